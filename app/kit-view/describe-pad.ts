import { clipsOfPad } from '@heliaster/core/kit'
import type { AudioHash, Clip, Pad } from '@heliaster/core/kit'
import { recipeOf } from '@heliaster/core/matter'

/** What fills a pad, in words. A silent pad says why. */
export function describeFilling(pad: Pad): string {
  const turns = pad.bands.reduce((sum, band) => sum + band.turns.length, 0)
  if (turns === 0) return 'empty, so it is silent'
  const bands = pad.bands.length === 1 ? '1 band' : `${pad.bands.length} bands`
  const rays = pad.rays.length === 1 ? '' : `, ${pad.rays.length} rays`
  return `${bands}, ${turns} ${turns === 1 ? 'turn' : 'turns'}${rays}`
}

/** Why some of a pad is silent: the first of its files that cannot be had. */
export function describeMissing(pad: Pad, missing: Readonly<Record<AudioHash, string>>): string | undefined {
  const clips = clipsOfPad(pad)
  const clip = clips.find((one) => missing[one.audio] !== undefined)
  if (clip) return missing[clip.audio]
  // What was not worked is told where its clip lies.
  const unworked = Object.keys(missing).find((hash) => clips.includes(recipeOf(hash as AudioHash)?.clip as Clip))
  return unworked && missing[unworked as AudioHash]
}
