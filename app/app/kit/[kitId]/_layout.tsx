import { useEffect } from 'react'

import { KitShell } from '../../../shell'
import { warmPlaces } from '../../../features/warm-places'

export default function KitLayout() {
  useEffect(warmPlaces, [])
  return <KitShell />
}
