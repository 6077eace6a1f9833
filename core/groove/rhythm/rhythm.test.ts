import { thingsOfRhythm } from '../../alike'
import { seeded, testIds } from '../../kit/builders'
import { timedBeads } from '../../kit/groove-time'
import { playedPattern } from '../testing/played'
import { heardRhythm } from './heard'
import { paceOf } from './pace'
import { playedGroove } from './played-groove'

test('tempo within 1 %, the bar and the swing of rhythms that hands play, straight and swung, at three tempi', () => {
  const counts = { all: 0, tempo: 0, bar: 0, swing: 0 }
  for (let seed = 61; seed <= 74; seed++)
    for (const tempoBpm of [84, 108, 141]) {
      const swing = [0.5, 0.58, 2 / 3][seed % 3]
      const played = playedPattern(seed, { tempoBpm, swing })
      const pace = paceOf(played.hits)
      counts.all++
      if (!pace || Math.abs(pace.tempoBpm / tempoBpm - 1) > 0.01) continue
      counts.tempo++
      const bars = ((pace.firstSeconds - played.firstSeconds) * tempoBpm) / 240
      if (Math.abs(bars - Math.round(bars)) < 0.01) counts.bar++
      if (pace.stepsPerBeat === played.stepsPerBeat && played.stepsPerBeat === 4 && Math.abs(pace.swing - swing) < 0.025) counts.swing++
    }
  expect(counts.tempo / counts.all).toBeGreaterThanOrEqual(0.95)
  expect(counts.bar / counts.all).toBeGreaterThanOrEqual(0.93)
  expect(counts.swing / counts.all).toBeGreaterThan(0.45) // the others have too few strikes between their halves
})

test('strikes without a pulse have none, and few are not asked', () => {
  let none = 0
  let anywhere: { seconds: number; strength: number; thing: number; centreHz: number }[] = []
  for (let seed = 1; seed <= 12; seed++) {
    const random = seeded(seed * 17)
    anywhere = Array.from({ length: 60 }, () => ({ seconds: 20 * random(), strength: 1, thing: 0, centreHz: 500 }))
    if (!paceOf(anywhere)) none++
  }
  expect(none).toBeGreaterThanOrEqual(10)
  expect(paceOf(anywhere.slice(0, 4))).toBeUndefined()
})

/** Portraits of a thing that differ a little from strike to strike. */
const portraits = (seed: number) => {
  const random = seeded(seed)
  for (let i = 0; i < 4; i++) random()
  const centre = Uint8Array.from({ length: 120 }, () => Math.floor(14 + 26 * random()))
  return (stray: number) => centre.map((value) => Math.min(54, Math.max(0, Math.round(value + stray * (random() - 0.5)))))
}

/** What is struck alone. */
const alone = (portrait: Uint8Array) => ({ portrait, trust: new Float32Array(120).fill(1) })

test('two sounds of one thing that stand for each other in the bar are one thing; two things alike in sound, each in its places, are two', () => {
  const [one, other, third] = [portraits(1), portraits(2), portraits(3)]
  const middle = (share: number) => {
    const a = one(0)
    const b = other(0)
    return (stray: number) => a.map((value, i) => Math.round(value + (b[i] - value) * share + stray * (Math.sin(i * 7.3 + share * 50) / 2)))
  }
  // Of one thing two kinds of strikes, about 5 dB apart, on the same places.
  const near = middle(0.55)
  const alike = Array.from({ length: 16 }, (_, i) => ({ portrait: alone(i % 3 === 0 ? near(2) : one(2)), place: [0, 24][i % 2] }))
  const apart = Array.from({ length: 12 }, (_, i) => ({ portrait: alone(third(2)), place: [12, 36][i % 2] }))
  expect(thingsOfRhythm([...alike, ...apart]).map(({ length }) => length)).toEqual([16, 12])
  // The same sounds, each on places of its own.
  const told = [...Array.from({ length: 12 }, () => ({ portrait: alone(one(2)), place: 0 })), ...Array.from({ length: 12 }, () => ({ portrait: alone(near(2)), place: 12 }))] // prettier-ignore
  expect(thingsOfRhythm(told).map(({ length }) => length)).toEqual([12, 12])
})

test('a rhythm is heard whole: what was struck, how it goes, and as a groove every strike comes back where it was played', () => {
  const played = playedPattern(9, { tempoBpm: 97, swing: 0.58 })
  const things = new Map<number, ReturnType<typeof portraits>>()
  const hits = played.hits.map(({ seconds, thing, centreHz, strength }) => {
    if (!things.has(thing)) things.set(thing, portraits(thing + 20))
    return { seconds, centreHz, peakDb: 20 * Math.log10(strength), portrait: alone(things.get(thing)!(3)) }
  })
  const { things: groups, pace } = heardRhythm(hits)
  expect(groups.map((group) => new Set(group.map((i) => played.hits[i].thing)).size)).toEqual(groups.map(() => 1))
  expect(groups).toHaveLength(things.size)
  const strikes = groups.flatMap((group, g) => group.map((i) => ({ padId: `pad-${g}` as never, seconds: hits[i].seconds, velocity: 100 })))
  const groove = playedGroove(testIds(), 'Table', strikes, pace!, 0)
  expect(groove.lengthSteps / groove.stepsPerBeat).toBe(32)
  const offs = strikes.map(({ padId, seconds }) => {
    const beats = timedBeads(groove, groove.strings.find((string) => string.padId === padId)!).map(({ beat }) => pace!.firstSeconds + (beat * 60) / pace!.tempoBpm) // prettier-ignore
    return Math.min(...beats.map((at) => Math.abs(at - seconds)))
  })
  offs.sort((a, b) => a - b)
  expect(offs[Math.floor(0.95 * offs.length)]).toBeLessThan(0.003)
  const straight = playedGroove(testIds(), 'Table', strikes, pace!, 1)
  expect(straight.strings.flatMap(({ beads }) => beads).filter(({ offset }) => offset !== undefined)).toEqual([])
})
