export { createTake } from './take'
export type { ChannelPlan, Take, TakeSettings, TakeState } from './take'
export { encodeFrames, HEADER_BYTES, wavHeader, wholeFrames } from './wav-stream'
export type { WavForm } from './wav-stream'
