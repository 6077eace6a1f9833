import { useEffect } from 'react'

import { warmPlaces } from '../../../kit-view/warm-places'
import { KitShell } from '../../../shell'

const places = [
  () => import('./gather'),
  () => import('./cut'),
  () => import('./board'),
  () => import('./shape'),
  () => import('./groove'),
  () => import('./ship'),
]

export default function KitLayout() {
  useEffect(() => warmPlaces(places), [])
  return <KitShell />
}
