/** What can be put into a bus, and the numbers each has. */

export interface EffectRow {
  readonly min: number
  readonly max: number
  readonly usual: number
}
const row = (min: number, max: number, usual: number): EffectRow => ({ min, max, usual })
const numbered = (count: number, make: (i: number) => Record<string, EffectRow>): Record<string, EffectRow> =>
  Object.assign({}, ...Array.from({ length: count }, (_, i) => make(i + 1)))

const CENTRES_HZ = [60, 160, 500, 1500, 4000, 10000]
const dynamics = (i: number) => ({
  [`threshold${i}Db`]: row(-80, 0, -18),
  [`ratio${i}`]: row(1, 100, 2),
  [`attack${i}Seconds`]: row(0, 1, 0.01),
  [`release${i}Seconds`]: row(0.001, 5, 0.15),
  [`makeUp${i}Db`]: row(-24, 24, 0),
})

/** Names carry their units. Frequencies between ranges are `split1Hz` and `split2Hz`. */
export const effects = {
  equaliser: numbered(6, (i) => ({
    [`band${i}Hz`]: row(10, 24000, CENTRES_HZ[i - 1]),
    [`band${i}Db`]: row(-24, 24, 0),
    [`band${i}Damping`]: row(0.02, 4, 1),
  })),
  compressor: { ...numbered(3, dynamics), kneeDb: row(0, 24, 6), split1Hz: row(20, 20000, 200), split2Hz: row(20, 20000, 3000), mix: row(0, 1, 1) },
  gate: { thresholdDb: row(-100, 0, -50), rangeDb: row(-120, 0, -60), attackSeconds: row(0, 1, 0.001), holdSeconds: row(0, 5, 0.02), releaseSeconds: row(0.001, 5, 0.1) },
  limiter: { ...numbered(3, (i) => ({ [`ceiling${i}Db`]: row(-40, 0, -1) })), releaseSeconds: row(0.001, 5, 0.1), split1Hz: row(20, 20000, 200), split2Hz: row(20, 20000, 3000) },
  drive: { driveDb: row(0, 60, 0), levelDb: row(-60, 60, 0), mix: row(0, 1, 1) },
  crush: { bits: row(1, 24, 8), rateHz: row(100, 192000, 12000), mix: row(0, 1, 1) },
  transient: { attackDb: row(-24, 24, 0), tailDb: row(-24, 24, 0) },
  width: { width: row(0, 2, 1), monoBelowHz: row(1, 1000, 1) },
  echo: { seconds: row(0.001, 10, 0.25), beats: row(0.03125, 16, 0.5), feedback: row(0, 0.99, 0.3), lowPassHz: row(20, 24000, 8000), highPassHz: row(10, 10000, 100), toAndFro: row(0, 1, 0), mix: row(0, 1, 0.3) },
  reverb: { size: row(0.05, 4, 1), decaySeconds: row(0.05, 60, 1.5), decayLow: row(0.1, 4, 1), decayHigh: row(0.1, 4, 0.6), beforeSeconds: row(0, 1, 0.01), early: row(0, 1, 0.5), density: row(0, 1, 1), mix: row(0, 1, 0.25) },
  room: { near: row(0, 1, 0.5), decayScale: row(0.05, 4, 1), beforeSeconds: row(0, 1, 0), mix: row(0, 1, 0.25) },
  resonator: { hz: row(10, 20000, 110), decaySeconds: row(0.01, 60, 1), position: row(0, 1, 0.3), damping: row(0, 1, 0.3), mix: row(0, 1, 0.3) },
} as const satisfies Record<string, Record<string, EffectRow>> // prettier-ignore

export type Effect = keyof typeof effects
export const effectKinds = Object.keys(effects) as [Effect, ...Effect[]]

/** Choices of an effect, the first of each usual. */
export const effectChoices: { readonly [Kind in Effect]?: Readonly<Record<string, readonly string[]>> } = {
  equaliser: numberedChoices(6, (i) => ({ [`band${i}Kind`]: ['peak', 'lowShelf', 'highShelf', 'notch', 'lowPass', 'highPass'] })),
  compressor: { ranges: ['1', '2', '3'] },
  limiter: { ranges: ['1', '2', '3'] },
  drive: { kind: ['soft', 'hard', 'folded', 'uneven'] },
  echo: { time: ['seconds', 'beats'] },
  reverb: { kind: ['room', 'hall', 'plate'] },
  resonator: { kind: ['strings', 'combs'], chord: ['one', 'octaves', 'fifths', 'major', 'minor'] },
}

function numberedChoices(count: number, make: (i: number) => Record<string, readonly string[]>): Record<string, readonly string[]> {
  return Object.assign({}, ...Array.from({ length: count }, (_, i) => make(i + 1)))
}
