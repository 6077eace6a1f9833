import { seeded } from '../kit/builders'
import { playedInTime } from '../kit/source'
import type { CutSettings } from '../kit/source'
import { cutRecording } from './cut'
import type { Hit } from './cut'
import { strikesOver } from './gestures'
import type { Strikes } from './gestures'
import { inTime } from './in-time'
import { likelier } from './strikes'

const RATE = 48000
const HOP = 64
const GAP = 0.06 * RATE

interface Played {
  readonly found: Strikes
  /** Where something was struck: surely, or as softly as an echo is. */
  readonly sure: readonly number[]
  readonly soft: readonly number[]
  readonly echoes: readonly number[]
}

/** Rises by their seconds and odds, as strikes of a recording. */
function strikesAt(rises: readonly { readonly seconds: number; readonly odds: number }[]): Strikes {
  const strikes = [...rises]
    .sort((a, b) => a.seconds - b.seconds)
    .map(({ seconds, odds }) => ({ hop: Math.round((seconds * RATE) / HOP), odds }))
    .map(({ hop, odds }) => ({ hop, beginHop: hop, strength: 0.7, height: 0, odds }))
  return likelier({ hopFrames: HOP, strikes, line: 0 }, RATE, strikes.map(() => 0)) // prettier-ignore
}

const PATTERN = [2, 0, 1, 0, 2, 0, 1, 2, 2, 0, 1, 0, 2, 1, 0, 0]

/** Eight bars of hands that stray by 12 ms: sure strikes, soft ones between, and after some a rattle that is as likely as these. */
function played(seed: number, swing = 0.5): Played {
  const random = seeded(seed)
  const gaussian = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
  const step = 60 / (66 + 34 * random()) / 4
  const [sure, soft, echoes]: [number[], number[], number[]] = [[], [], []]
  for (let i = 0; i < 8 * 16; i++) {
    const at = 0.7 + (i + (i % 2 === 1 ? 2 * swing - 1 : 0)) * step + 0.012 * gaussian()
    if (PATTERN[i % 16] === 2) sure.push(at)
    if (PATTERN[i % 16] === 1) soft.push(at)
    if (PATTERN[i % 16] !== 0 && random() < 0.3) echoes.push(at + 0.065 + 0.03 * random())
  }
  const rises = [
    ...sure.map((seconds) => ({ seconds, odds: 3 + random() })),
    ...[...soft, ...echoes].map((seconds) => ({ seconds, odds: -0.6 + 0.8 * random() })),
  ]
  return { found: strikesAt(rises), sure, soft, echoes }
}

/** How many of these stand over the line. */
function over(found: Strikes, seconds: readonly number[]): number {
  const hops = new Set(strikesOver(found, found.line, GAP).map(({ hop }) => hop))
  return seconds.filter((at) => hops.has(Math.round((at * RATE) / HOP))).length
}

test('soft strikes on the pulse stand over the line, rattles between do not, straight and swung', () => {
  for (const swing of [0.5, 0.62])
    for (let seed = 1; seed <= 6; seed++) {
      const { found, sure, soft, echoes } = played(seed, swing)
      const timed = inTime(found, RATE)
      const shares = [sure, soft, echoes].map((list) => over(timed, list) / list.length)
      expect(shares[0]).toBe(1)
      expect(shares[1]).toBeGreaterThan(0.85)
      expect(shares[2]).toBeLessThan(0.25)
      // Without the pulse nothing tells the soft ones from the rattles.
      expect(Math.abs(over(found, soft) / soft.length - over(found, echoes) / echoes.length)).toBeLessThan(0.45)
    }
}) // prettier-ignore

test('hands that grow faster are followed', () => {
  const { found, sure, soft, echoes } = played(3)
  const faster = (seconds: number) => seconds - 0.0004 * seconds * seconds
  const rises = found.strikes.map(({ hop, odds }) => ({ seconds: faster((hop * HOP) / RATE), odds }))
  const timed = inTime(strikesAt(rises), RATE)
  const near = (list: readonly number[]) => list.map(faster).filter((at) => strikesOver(timed, timed.line, GAP).some(({ hop }) => Math.abs((hop * HOP) / RATE - at) < 0.003)).length / list.length // prettier-ignore
  expect(near(sure)).toBeGreaterThan(0.97)
  expect(near(soft)).toBeGreaterThan(0.85)
  expect(near(echoes)).toBeLessThan(0.25)
})

test('where no pulse gathers what was struck, and where nothing was, all stays as it was', () => {
  for (let seed = 1; seed <= 8; seed++) {
    const random = seeded(seed)
    let seconds = 0.5
    const rises = Array.from({ length: 40 }, () => ({ seconds: (seconds += 0.09 - 0.5 * Math.log(1 - random())), odds: 4 * random() - 1 }))
    const found = strikesAt(rises)
    const timed = inTime(found, RATE)
    if (timed !== found) expect(strikesOver(timed, timed.line, GAP).length).toBeGreaterThan(0.6 * strikesOver(found, found.line, GAP).length) // a pulse by chance takes little
  }
  const none = strikesAt([])
  expect(inTime(none, RATE)).toBe(none)
  const few = strikesAt([0.5, 1, 1.5].map((seconds) => ({ seconds, odds: 2 })))
  expect(inTime(few, RATE)).toBe(few)
}) // prettier-ignore

test('what is said of the strikes changes, and neither their places nor their strengths', () => {
  const { found } = played(5)
  const timed = inTime(found, RATE)
  const kept = ({ strikes }: Strikes) => strikes.map(({ hop, beginHop, strength }) => [hop, beginHop, strength])
  expect(kept(timed)).toEqual(kept(found))
  expect(timed.strikes.every(({ height, strength }) => height > 0 && height <= strength)).toBe(true)
  expect(likelier(found, RATE, found.strikes.map(() => 0))).toEqual(found) // prettier-ignore
})

test('a recording that is cut as played in time shows more of its soft strikes, and nothing that was not struck', () => {
  const random = seeded(9)
  const samples = Float32Array.from({ length: RATE * 9 }, () => 0.004 * (random() - 0.5))
  const put = (seconds: number, gain: number) => {
    const from = Math.round(seconds * RATE)
    for (let i = 0; i < 24_000 && from + i < samples.length; i++) samples[from + i] += gain * Math.exp(-i / 4000) * (random() - 0.5)
  }
  const struck: number[] = []
  for (let i = 0; i < 64; i++)
    if (PATTERN[i % 16] !== 0) {
      struck.push(0.4 + 0.13 * i + 0.008 * (random() - 0.5))
      put(struck[struck.length - 1]!, PATTERN[i % 16] === 2 ? 0.9 : 0.08)
    }
  const found = (cut: Partial<CutSettings>) => {
    const hits = cutRecording(
      { sampleRateHz: RATE, channels: [samples] },
      { waterLine: 0.3, findsLevel: true, minGapSeconds: 0.06, ...cut },
    )
    const isStruck = ({ onsetFrame }: Hit) => struck.some((at) => Math.abs(onsetFrame / RATE - at) < 0.01)
    expect(hits.every(isStruck)).toBe(true)
    return hits.length
  }
  expect(found(playedInTime({ waterLine: 0.3, findsLevel: true, minGapSeconds: 0.06 }, true))).toBeGreaterThan(found({}))
})
