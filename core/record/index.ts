export { createTake } from './take'
export type { ChannelPlan, Take, TakeSettings, TakeState } from './take'
export { encodeFrames, firstSide, formOf, HEADER_BYTES, sidesAlike, wavHeader, wholeFrames } from './wav-stream'
export type { WavForm } from './wav-stream'
