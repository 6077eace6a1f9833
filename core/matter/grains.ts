import type { Passage } from './passage'

export interface GrainSettings {
  /** How long each is, s. */
  readonly seconds: number
  /** How many sound at once, on an average. */
  readonly atOnce: number
  /** How far they stray from their moment in the source, s, and from their pitch, cents: up to so much to each side. */
  readonly straySeconds: number
  readonly strayCents: number
}

/**
 * A passage laid anew of short grains of it under Hann's window. Where fewer than one sounds at once they stand apart; where
 * more do, their sum is held at the level of one. Grains begin at moments that stray by half their distance, so that no
 * comb of a steady rate is heard.
 */
export function grainsOf(
  passage: Passage,
  { seconds, atOnce, straySeconds, strayCents }: GrainSettings,
  random: () => number,
): Float32Array[] {
  const { channels, sampleRateHz, from, to, frames, sourceAt } = passage
  const length = Math.max(16, Math.round(seconds * sampleRateHz))
  const hop = length / atOnce
  const out = channels.map(() => new Float32Array(frames))
  // Grains that agree add up as samples, those that stray as powers.
  const gain = atOnce <= 1 ? 1 : strayCents > 0 || straySeconds > 0.0005 ? 1 / Math.sqrt(0.375 * atOnce) : 1 / (0.5 * atOnce)
  const window = Float64Array.from({ length: length + 1 }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length))
  for (let middle = 0; middle < frames + length / 2; middle += hop) {
    const at = Math.round(middle + (atOnce > 1 ? hop * (random() - 0.5) : 0))
    const rate = 2 ** ((strayCents * (2 * random() - 1)) / 1200)
    const source = sourceAt(middle) + straySeconds * sampleRateHz * (2 * random() - 1)
    // What strays out of the passage is read at its nearest whole grain.
    const reach = (length / 2) * rate
    const centre = Math.min(Math.max(source, Math.min(reach, (to - from) / 2)), Math.max(to - from - reach, (to - from) / 2))
    const begin = straySeconds > 0 ? centre : source
    channels.forEach((channel, i) => {
      const into = out[i]!
      for (let k = 0; k <= length; k++) {
        const frame = at - (length >> 1) + k
        if (frame < 0 || frame >= frames) continue
        const place = from + begin + (k - length / 2) * rate
        const below = Math.floor(place)
        if (below < from || below + 1 >= to) continue
        const way = place - below
        into[frame]! += gain * window[k]! * (channel[below]! + (channel[below + 1]! - channel[below]!) * way)
      }
    })
  }
  return out
}
