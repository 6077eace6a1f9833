import { kits, keptSteps, performances, sources, starts } from './index'
import { documentKey } from '../sync/local-db'
import type { History } from './history'
import { library } from './library'

/** Keeps what can be taken back for when this page comes again. */
function keepSteps(): void {
  const documents: Record<string, History<unknown>> = {}
  for (const { kind, store } of [kits, sources, starts, performances])
    for (const [id, { history }] of Object.entries(store.getState().entries))
      if (history.past.length + history.future.length > 0) documents[documentKey(kind.kind, id)] = history as History<unknown>
  keptSteps.keep({ library: library.getState(), documents })
}

/** A page that goes, or is out of sight and may be taken away, keeps its steps. */
export function keepStepsOnLeave(): void {
  window.addEventListener('pagehide', keepSteps)
  document.addEventListener('visibilitychange', () => document.visibilityState === 'hidden' && keepSteps())
}
