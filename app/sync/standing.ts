import type { createSaveState } from './save-state'
import type { Shelf } from './shelf'

/** How saving stands: whether the server is away, and what waits for it, told in the state that people see. */
export class Standing {
  away = false
  why: string | undefined
  private counting = false
  private countAgain = false
  private stopped = false

  constructor(
    private readonly saveState: ReturnType<typeof createSaveState>,
    private readonly counts: Shelf['counts'],
  ) {}

  /** What could not be written here is said at once: nothing is called saved that is not. */
  noteUnkept(unkept: number, failure: string | undefined): void {
    const state = unkept === 0 ? this.saveState.getState().state : this.away ? ('away' as const) : ('saving' as const)
    this.saveState.setState({ unkept: failure === undefined ? 0 : unkept, failure, state })
  }

  /** That the server is away is said at once, that it is back once it has been counted what waits. */
  stand(isAway: boolean, reason: string | undefined): void {
    this.away = isAway
    this.why = reason
    if (isAway) this.saveState.setState({ state: 'away', why: reason })
    this.recount()
  }

  /** Counts anew after each change, once at a time. */
  recount(): void {
    this.countAgain = true
    if (this.counting || this.stopped) return
    this.counting = true
    void this.count().finally(() => (this.counting = false))
  }

  private async count(): Promise<void> {
    while (this.countAgain) {
      this.countAgain = false
      const { waiting, refused, files } = await this.counts()
      if (this.countAgain) continue // something has changed while it was counted
      const all = waiting + files
      const state = this.away ? 'away' : all === 0 ? 'saved' : 'saving'
      this.saveState.setState({ waiting: all, refused, why: this.away ? this.why : undefined, state })
    }
  }

  stop(): void {
    this.stopped = true
  }
}
