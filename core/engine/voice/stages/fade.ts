import type { EngineState } from '../../state'

/** The last fade of a voice, straight down from where it began. */
export function applyFade(engine: EngineState, voice: number, start: number, count: number, stereo: boolean): void {
  const { scratchLeft, scratchRight } = engine
  const v = engine.voices
  const fadeStart = v.fadeStart[voice]
  const fadeFrames = v.fadeFrames[voice]
  for (let i = 0; i < count; i++) {
    const passed = start + i - fadeStart
    if (passed <= 0) continue
    const level = 1 - passed / fadeFrames
    scratchLeft[i] *= level
    if (stereo) scratchRight[i] *= level
  }
}
