import type { Effect } from './effects'
import type { Insert } from './mix'

/** A named beginning of an effect: its numbers and choices, all others as usual. */
export interface EffectStart {
  readonly name: string
  readonly values: Insert['values']
  readonly choices?: Insert['choices']
}

const start = (name: string, values: Insert['values'] = {}, choices?: Insert['choices']): EffectStart => ({ name, values, ...(choices ? { choices } : {}) }) // prettier-ignore

/** Three or four beginnings for each kind of effect; the first is what a new one begins with. */
export const effectStarts: { readonly [Kind in Effect]: readonly EffectStart[] } = {
  equaliser: [
    start('Flat'),
    start('Less mud', { band3Hz: 320, band3Db: -4, band3Damping: 1.1 }),
    start('Air and weight', { band1Hz: 70, band1Db: 3, band1Damping: 1.2, band6Hz: 9000, band6Db: 3, band6Damping: 1.2 }, { band1Kind: 'lowShelf', band6Kind: 'highShelf' }),
    start('Out of the cellar', { band1Hz: 45, band1Damping: 1.2 }, { band1Kind: 'highPass' }),
  ],
  compressor: [
    start('Holds together', { threshold1Db: -20, ratio1: 2, attack1Seconds: 0.02, release1Seconds: 0.15, makeUp1Db: 1.5 }),
    start('Lets the stroke through', { threshold1Db: -26, ratio1: 4, attack1Seconds: 0.03, release1Seconds: 0.12, makeUp1Db: 4 }),
    start('Flat as the sea', { threshold1Db: -34, ratio1: 10, attack1Seconds: 0.001, release1Seconds: 0.08, makeUp1Db: 8, mix: 0.5 }),
    start('Low, middle and high apart', { threshold1Db: -26, ratio1: 3, threshold2Db: -24, threshold3Db: -28 }, { ranges: '3' }),
  ],
  gate: [
    start('Quiet between strikes', { thresholdDb: -42, rangeDb: -30, holdSeconds: 0.05, releaseSeconds: 0.15 }),
    start('Short and dry', { thresholdDb: -30, rangeDb: -80, holdSeconds: 0.03, releaseSeconds: 0.06 }),
    start('Only what is loud', { thresholdDb: -18, rangeDb: -60, holdSeconds: 0.08, releaseSeconds: 0.2 }),
  ],
  limiter: [
    start('Safe', { ceiling1Db: -1 }),
    start('Pressed', { ceiling1Db: -9, releaseSeconds: 0.06 }),
    start('Low, middle and high apart', { ceiling1Db: -9, ceiling2Db: -9, ceiling3Db: -9, releaseSeconds: 0.1 }, { ranges: '3' }),
  ],
  drive: [
    start('Warm', { driveDb: 9, levelDb: -4 }),
    start('Torn', { driveDb: 24, levelDb: -12 }, { kind: 'hard' }),
    start('Folded', { driveDb: 18, levelDb: -9, mix: 0.6 }, { kind: 'folded' }),
    start('Uneven, beneath', { driveDb: 24, levelDb: -14, mix: 0.35 }, { kind: 'uneven' }),
  ],
  crush: [
    start('Dusty', { bits: 12, rateHz: 22050 }),
    start('Twelve bits', { bits: 12, rateHz: 48000 }),
    start('Broken shell', { bits: 5, rateHz: 6000, mix: 0.6 }),
  ],
  transient: [
    start('Nearer', { attackDb: 5, tailDb: -3 }),
    start('Shorter', { attackDb: 0, tailDb: -9 }),
    start('Longer', { attackDb: -4, tailDb: 6 }),
  ],
  width: [start('Bass in the middle', { width: 1, monoBelowHz: 140 }), start('Wider', { width: 1.5, monoBelowHz: 140 }), start('One channel', { width: 0 })],
  echo: [
    start('An eighth', { beats: 0.5, feedback: 0.35, mix: 0.25 }, { time: 'beats' }),
    start('To and fro', { beats: 0.75, feedback: 0.45, toAndFro: 1, lowPassHz: 5000, mix: 0.3 }, { time: 'beats' }),
    start('Slap against a wall', { seconds: 0.09, feedback: 0.1, lowPassHz: 6000, mix: 0.3 }),
    start('Far out', { beats: 1, feedback: 0.7, lowPassHz: 2200, highPassHz: 250, toAndFro: 0.6, mix: 0.3 }, { time: 'beats' }),
  ],
  reverb: [
    start('Boathouse', { size: 1, decaySeconds: 0.9, decayHigh: 0.6, mix: 0.25 }),
    start('Sea cave', { size: 1.6, decaySeconds: 3.2, decayLow: 1.4, decayHigh: 0.4, beforeSeconds: 0.02, mix: 0.3 }, { kind: 'hall' }),
    start('Sheet of steel', { size: 1, decaySeconds: 1.8, decayLow: 0.7, decayHigh: 0.9, early: 0, mix: 0.3 }, { kind: 'plate' }),
    start('Locker', { size: 0.35, decaySeconds: 0.3, early: 0.9, mix: 0.3 }),
  ],
  room: [start('As recorded'), start('Near', { near: 0.85, mix: 0.35 }), start('Far', { near: 0.15, mix: 0.35, beforeSeconds: 0.015 })],
  resonator: [
    start('Hull', { hz: 82, decaySeconds: 0.6, damping: 0.6, mix: 0.35 }),
    start('Wires', { hz: 220, decaySeconds: 2.5, damping: 0.15, position: 0.13, mix: 0.3 }, { chord: 'fifths' }),
    start('Bottles', { hz: 330, decaySeconds: 0.8, mix: 0.3 }, { kind: 'combs', chord: 'minor' }),
  ],
} // prettier-ignore
