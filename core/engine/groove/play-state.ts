/** Beads of grooves that are played, by slots that stay while they are edited. */
export const MAX_BEADS = 16384
const MAX_STRINGS = 128

/** Where the groove is. Beats are counted from where its section began; `anchor...` say which frame is which beat. */
export interface GroovePlay {
  isPlaying: number
  /** The program that is played: its slot, and where it begins in the arena; 0 for none. */
  programSlot: number
  program: number
  section: number
  anchorFrame: number
  anchorBeat: number
  framesPerBeat: number
  /** Beats of the sections before this one, since it began; and 1 where another clock says how long a beat is. */
  passedBeats: number
  isLed: number
  /** The next bead of each string: its place, its lap and its frame. */
  readonly bead: Int32Array
  readonly lap: Float64Array
  readonly nextFrame: Float64Array
  /** The earliest of all that is to come, and the frame on which the section ends. */
  next: number
  endFrame: number
  /** By slots of beads: 1 where it sounded when its time last came, how often that was, and where its row is. */
  readonly sounded: Uint8Array
  readonly occasions: Float64Array
  readonly rows: Float64Array
}

export function createGroovePlay(): GroovePlay {
  return {
    isPlaying: 0,
    programSlot: 0,
    program: 0,
    section: 0,
    anchorFrame: 0,
    anchorBeat: 0,
    framesPerBeat: 1,
    passedBeats: 0,
    isLed: 0,
    bead: new Int32Array(MAX_STRINGS),
    lap: new Float64Array(MAX_STRINGS),
    nextFrame: new Float64Array(MAX_STRINGS),
    next: 0,
    endFrame: 0,
    sounded: new Uint8Array(MAX_BEADS),
    occasions: new Float64Array(MAX_BEADS),
    rows: new Float64Array(MAX_BEADS),
  }
}
