import { useEffect } from 'react'

import { listSoon } from '../../../features/gather'
import { warmPlaces } from '../../../kit-view/warm-places'
import { KitShell } from '../../../shell'

const places = [
  () => import('./gather'),
  listSoon,
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
