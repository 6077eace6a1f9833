/** A clock that calls back. Pages have one, tests turn theirs by hand. */
export interface Timers {
  now(): number
  set(run: () => void, ms: number): unknown
  clear(timer: unknown): void
}

export const pageTimers: Timers = {
  now: () => Date.now(),
  set: (run, ms) => setTimeout(run, ms),
  clear: (timer) => clearTimeout(timer as ReturnType<typeof setTimeout>),
}
