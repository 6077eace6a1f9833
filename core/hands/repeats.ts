/** How a strike that is slid outward goes on. Frames are the engine's. */
export interface Repeating {
  /** The frame that the repeats are counted from: the strike, or a step of the groove that plays. */
  readonly fromFrame: number
  readonly tempoBpm: number
  readonly repeatsPerBeat: number
  readonly sampleRateHz: number
}

/**
 * The frames after `afterFrame`, up to and with `untilFrame`, on which a strike is repeated in the kit's tempo. Whatever
 * stretches are asked for one after another, each repeat comes once, and none is more than half a frame off its time.
 */
export function repeatFrames(
  { fromFrame, tempoBpm, repeatsPerBeat, sampleRateHz }: Repeating,
  afterFrame: number,
  untilFrame: number,
): number[] {
  const step = (60 * sampleRateHz) / (tempoBpm * repeatsPerBeat)
  const frames: number[] = []
  for (let k = Math.max(1, Math.floor((afterFrame - fromFrame) / step)); ; k++) {
    const frame = Math.round(fromFrame + k * step)
    if (frame > untilFrame) return frames
    if (frame > afterFrame) frames.push(frame)
  }
}

/** The frame of the groove's next step, from where it is now in beats: repeats fall in with what plays. */
export function nextStepFrame(
  nowFrame: number,
  beat: number,
  { tempoBpm, repeatsPerBeat, sampleRateHz }: Omit<Repeating, 'fromFrame'>,
): number {
  const ahead = Math.ceil(beat * repeatsPerBeat) / repeatsPerBeat - beat
  return nowFrame + (ahead * 60 * sampleRateHz) / tempoBpm
}

/** So far outward, in shares of a pad's radius, a finger slides before its strike repeats. */
const SLID_SHARE = 0.35

/** Whether a finger that came down at one share of the radius has slid outward far enough to mean repeats. */
export const hasSlidOut = (downShare: number, nowShare: number): boolean => nowShare - downShare > SLID_SHARE
