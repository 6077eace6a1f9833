import { kitKind, performanceKind, sourceKind, startKind } from '@heliaster/core/kit'
import type { SourceId } from '@heliaster/core/kit'

import { untilFirstScreen } from '../ui/device/first-screen'
import { notify } from '../ui/layout/notices'
import { createDevice } from '../sync/device'
import { localDb, onLocalDbBlocked } from '../sync/local-db'
import { pageTimers } from '../sync/timers'
import { noteGathered } from './gathered'
import { StepKeeper } from './kept-steps'
import { makeId } from './make-id'

const forms = [kitKind, sourceKind, startKind, performanceKind].map(({ kind, version }) => `${kind} ${version}`).join(', ')
/** Steps that were done in this tab before its page was loaded anew. */
export const keptSteps = new StepKeeper(typeof sessionStorage === 'undefined' ? undefined : sessionStorage, forms)

/** This page's own. */
export const device = createDevice({
  db: localDb,
  fetch: (...request) => fetch(...request),
  channel: typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('heliaster'),
  timers: pageTimers,
  makeId,
  isVisible: () => typeof document === 'undefined' || document.visibilityState === 'visible',
  notify,
  untilShown: untilFirstScreen,
  stepsOf: (key) => keptSteps.take(key),
  onSoundsMade: (ids) => noteGathered(ids as SourceId[]),
})

export const { kits, sources, starts, performances, saveState } = device
onLocalDbBlocked((blocked) => saveState.setState({ blocked }))
