/** When strikes may begin that wait for their time. Beats are those of the kit's tempo. */
export interface InTime {
  readonly tempoBpm: number
  readonly everyBeats: number
  readonly sampleRateHz: number
}

/** A strike that comes so much after its time begins at once: it was meant for it. */
const LATE_SECONDS = 0.05

/**
 * The frame at which a strike of now begins that is to be in time: on the groove's next step where one plays (`beat`, -1 for
 * none), else on the next step from where something began that still sounds (`sinceFrame`); at once where nothing sounds.
 */
export function inTimeFrame(
  nowFrame: number,
  { beat, sinceFrame }: { readonly beat: number; readonly sinceFrame: number | undefined },
  { tempoBpm, everyBeats, sampleRateHz }: InTime,
): number {
  const stepFrames = (60 * sampleRateHz * everyBeats) / tempoBpm
  const passed = beat >= 0 ? (beat / everyBeats) * stepFrames : sinceFrame === undefined ? undefined : nowFrame - sinceFrame
  if (passed === undefined) return nowFrame
  const late = passed - Math.floor(passed / stepFrames) * stepFrames
  if (late < 1 || late <= Math.min(LATE_SECONDS * sampleRateHz, stepFrames / 4)) return nowFrame
  return Math.round(nowFrame + stepFrames - late)
}
