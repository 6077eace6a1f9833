/** Decoded audio: one Float32Array for each channel, all of one length, at the file's own rate. */
export interface Audio {
  readonly sampleRateHz: number
  readonly channels: Float32Array[]
}

export function frameCount(audio: Audio): number {
  return audio.channels[0]?.length ?? 0
}

/**
 * The mean of all channels, for looking at sound rather than for hearing it; where they cancel each other, the strongest of
 * them instead, so that nothing is overlooked.
 */
export function toMono({ channels }: Audio): Float32Array {
  if (channels.length === 1) return channels[0]
  const mono = new Float32Array(channels[0]?.length ?? 0)
  for (const channel of channels) for (let i = 0; i < mono.length; i++) mono[i] += channel[i]
  for (let i = 0; i < mono.length; i++) mono[i] /= channels.length
  const powers = channels.map(powerOf)
  const strongest = powers.indexOf(Math.max(...powers))
  return powerOf(mono) < CANCELLED * powers[strongest] ? channels[strongest] : mono
}

/** Less of the strongest channel's power than this is left where channels cancel; one channel alone leaves a quarter. */
const CANCELLED = 0.02
const POWER_STEP = 5

/** Mean square of every few samples. */
function powerOf(samples: Float32Array): number {
  let sum = 0
  for (let i = 0; i < samples.length; i += POWER_STEP) sum += samples[i] * samples[i]
  return sum / Math.max(1, samples.length)
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

/** The highest sample of all channels, linear. */
export function peakOfAudio({ channels }: Audio): number {
  return Math.max(0, ...channels.map((channel) => peakOf(channel)))
}

export function toDb(gain: number): number {
  return gain > 0 ? 20 * Math.log10(gain) : -Infinity
}
