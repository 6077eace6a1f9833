export interface GateSettings {
  /** Sound begins at this peak level... */
  readonly openDb: number
  /** ...and has ended when it stayed below this lower one for the hold. */
  readonly closeDb: number
  readonly holdSeconds: number
}

export type GateState = 'waiting' | 'open' | 'ended'

/** Waits for sound and notices silence, with hysteresis, so that a level near the threshold does not flicker. */
export function createGate({ openDb, closeDb, holdSeconds }: GateSettings, sampleRateHz: number) {
  const open = 10 ** (openDb / 20)
  const close = 10 ** (closeDb / 20)
  const holdFrames = holdSeconds * sampleRateHz
  let state: GateState = 'waiting'
  let quietFrames = 0
  return {
    /** Takes the peak of the next `frames` frames. Once ended it stays so. */
    take(peak: number, frames: number): GateState {
      if (state === 'waiting' && peak >= open) state = 'open'
      if (state !== 'open') return state
      quietFrames = peak >= close ? 0 : quietFrames + frames
      if (quietFrames >= holdFrames) state = 'ended'
      return state
    },
  }
}
