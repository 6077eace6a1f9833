/** A stretch of a sound that is worked by itself, with nothing of what is before or behind it, and where its time goes. */
export interface Passage {
  readonly channels: readonly Float32Array[]
  readonly sampleRateHz: number
  /** Frames of the source, the second not in it. */
  readonly from: number
  readonly to: number
  /** Frames of the result. */
  readonly frames: number
  /** Where in the source, in frames from `from` on, what is heard at a frame of the result is. Rises, or stands still. */
  sourceAt(outFrame: number): number
  /** Hears how far it is, 0..1, every now and then; may throw to stop. */
  readonly told?: (share: number) => void
}

/** Sizes of frames are said for 48 kHz: as many seconds at other rates, as a power of two, 64 at least. */
export const sizeAt = (size: number, sampleRateHz: number): number => Math.max(64, size * 2 ** Math.round(Math.log2(sampleRateHz / 48000)))
