/** Decoded audio: one Float32Array for each channel, all of one length, at the file's own rate. */
export interface Audio {
  readonly sampleRateHz: number
  readonly channels: Float32Array[]
}

export function frameCount(audio: Audio): number {
  return audio.channels[0]?.length ?? 0
}

/** The mean of all channels, for looking at sound rather than for hearing it. */
export function toMono(audio: Audio): Float32Array {
  if (audio.channels.length === 1) return audio.channels[0]
  const mono = new Float32Array(frameCount(audio))
  for (const channel of audio.channels) for (let i = 0; i < mono.length; i++) mono[i] += channel[i]
  for (let i = 0; i < mono.length; i++) mono[i] /= audio.channels.length
  return mono
}

/** Largest absolute sample; 0 for silence. */
export function peakOf(samples: Float32Array, startFrame = 0, endFrame = samples.length): number {
  let peak = 0
  for (let i = startFrame; i < endFrame; i++) {
    const level = Math.abs(samples[i])
    if (level > peak) peak = level
  }
  return peak
}

export function toDb(gain: number): number {
  return gain > 0 ? 20 * Math.log10(gain) : -Infinity
}
