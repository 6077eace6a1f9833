import { notify } from '../ui/layout/notices'
import { createDevice } from '../sync/device'
import { localDb, onLocalDbBlocked } from '../sync/local-db'
import { pageTimers } from '../sync/timers'
import { makeId } from './make-id'

/** This page's own. */
export const device = createDevice({
  db: localDb,
  fetch: (...request) => fetch(...request),
  channel: typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('heliaster'),
  timers: pageTimers,
  makeId,
  isVisible: () => typeof document === 'undefined' || document.visibilityState === 'visible',
  notify,
})

export const { kits, sources, starts, saveState } = device
onLocalDbBlocked((blocked) => saveState.setState({ blocked }))
