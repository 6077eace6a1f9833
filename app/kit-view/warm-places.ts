/** Loads the places of a kit one by one while nothing else is to do, so that going to one for the first time is as quick as later. */
export function warmPlaces(places: readonly (() => Promise<unknown>)[]): () => void {
  let next = 0
  let handle = 0
  const soon = globalThis.requestIdleCallback ?? ((run: () => void) => setTimeout(run, 200) as unknown as number)
  const cancel = globalThis.cancelIdleCallback ?? clearTimeout
  const step = () => {
    void places[next++]().catch(() => undefined) // without it the place loads when it is gone to
    if (next < places.length) handle = soon(step)
  }
  handle = soon(step)
  return () => cancel(handle)
}
