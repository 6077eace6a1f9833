/** The context sleeps after so long a silence in which nobody strikes anything. */
export const SILENT_MS = 30_000

/** What can sleep: an AudioContext. */
export interface Sleepable {
  readonly state: string
  suspend(): Promise<void>
  resume(): Promise<void>
}

export interface Sleep {
  /** Something is about to sound: the context runs from now on, and `onWake` is told where it slept. */
  wake(): void
  /** To be asked again and again: puts the context to sleep when it is time, and says whether it sleeps. */
  rests(): boolean
  /** Whether it sleeps, and nothing else. */
  isAsleep(): boolean
  /** Keeps it awake, silent or not, until what is returned is called. */
  hold(): () => void
  onWake(listener: () => void): void
}

/**
 * Lets an audio context sleep after 30 s of silence, so that a page that is only open costs nothing. It wakes within the
 * strike: the event waits in the engine's ring until its first block.
 */
export function createSleep(context: Sleepable, isSilent: () => boolean, now: () => number = () => performance.now()): Sleep {
  const listeners = new Set<() => void>()
  let quietSince = now()
  let asleep = false
  let holds = 0
  const wake = () => {
    quietSince = now()
    if (!asleep) return
    asleep = false
    void context.resume()
    for (const listener of listeners) listener()
  }
  return {
    wake,
    rests() {
      if (asleep) return true
      if (holds > 0 || context.state !== 'running' || !isSilent()) quietSince = now()
      else if (now() - quietSince >= SILENT_MS) {
        asleep = true
        void context.suspend()
      }
      return asleep
    },
    isAsleep: () => asleep,
    hold() {
      holds++
      wake()
      let held = true
      return () => {
        if (held) holds--
        held = false
      }
    },
    onWake: (listener) => void listeners.add(listener),
  }
}
