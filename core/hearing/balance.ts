import { strikeLoudness } from '../audio/loudness'
import type { Family } from '../kit/families'
import { broadFamily } from '../kit/families'

/** What a sound is, and how it sounds in the groove: its channels at a rate in Hz. */
export interface Heard {
  readonly family: Family
  readonly channels: readonly Float32Array[]
}

/** A level that would suit: of which sound, by how many dB, and how loud it is and would be in its loudest 100 ms, LUFS: short strikes are heard so. */
export interface LevelChange {
  readonly sound: number
  readonly byDb: number
  readonly isLufs: number
  readonly wantsLufs: number
}

/** How loud families are against a kick in a groove, LU; kinds that differ from their family stand by themselves. */
const LOUD: Readonly<Record<string, number>> = {
  kick: 0, snare: -1, clap: -3, tom: -2, hat: -10, openHat: -9, cymbal: -8, ride: -10, crash: -6, shaker: -13, bell: -9, wood: -8, noise: -12, other: -6,
} // prettier-ignore

export function wantedLoudness(family: Family): number {
  return LOUD[family] ?? LOUD[broadFamily(family)] ?? LOUD.other!
}

/** Smaller changes are left alone; none is larger; they go in steps, dB. */
const LEAST_DB = 1
const MOST_DB = 15
const STEP_DB = 0.5
const SILENT_LUFS = -70

/**
 * Levels that would suit a groove: each sound as loud as its family is against the others. The kit as a whole stays where
 * it is: half of the sounds are louder than they would be then, and half softer.
 */
export function balanceOf(heard: readonly Heard[], sampleRateHz: number): LevelChange[] {
  const loud = heard.map(({ channels }) => strikeLoudness(channels, sampleRateHz))
  const sounding = loud.flatMap((lufs, sound) => (lufs > SILENT_LUFS ? [sound] : []))
  if (sounding.length < 2) return []
  const off = sounding.map((sound) => loud[sound] - wantedLoudness(heard[sound].family)).sort((a, b) => a - b)
  const middle = (off[(off.length - 1) >> 1] + off[off.length >> 1]) / 2
  return sounding.flatMap((sound) => {
    const wantsLufs = middle + wantedLoudness(heard[sound].family)
    const by = Math.min(MOST_DB, Math.max(-MOST_DB, wantsLufs - loud[sound]))
    const byDb = STEP_DB * Math.round(by / STEP_DB)
    return Math.abs(byDb) < LEAST_DB ? [] : [{ sound, byDb, isLufs: loud[sound], wantsLufs }]
  })
}
