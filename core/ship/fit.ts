import { toDb } from '../audio/audio'
import type { Audio } from '../audio/audio'

/** What happens to files that would pass full scale: all are lowered by one gain, or each that would by its own. */
export const fits = ['together', 'each'] as const
export type Fit = (typeof fits)[number]

/** The highest sample that 24 bits hold. */
const FULL = 1 - 2 ** -23

/** Gains (linear, at most 1) after which no peak (linear) passes full scale. Levels keep their relations when lowered together. */
export function fitGains(peaks: readonly number[], fit: Fit): number[] {
  const own = peaks.map((peak) => (peak > FULL ? FULL / peak : 1))
  const least = Math.min(1, ...own)
  return fit === 'each' ? own : own.map(() => least)
}

export function scaled(audio: Audio, gain: number): Audio {
  if (gain === 1) return audio
  return { ...audio, channels: audio.channels.map((channel) => channel.map((sample) => sample * gain)) }
}

/** What is said of files that would pass full scale, and of what becomes of them; nothing where none would. */
export function fitWords(peaks: readonly number[], fit: Fit): string | undefined {
  const over = peaks.filter((peak) => peak > FULL)
  if (over.length === 0) return undefined
  const most = toDb(Math.max(...over)).toFixed(1)
  const which = over.length === peaks.length && over.length > 1 ? `All ${over.length} files` : `${over.length} of ${peaks.length} files`
  const what =
    fit === 'together' ? `All are lowered together by ${most} dB` : 'Each of them is lowered until it fits; the others stay as they are'
  return `${which} would pass full scale, by up to ${most} dB. ${what}, so that nothing clips.`
}
