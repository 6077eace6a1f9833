import { seeded } from '../kit/builders'
import { hitPortraitsOf, hitUnlikeness } from './amid'
import { dividingJoin, groupsAfter, joinsOf } from './groups'
import { kinOf } from './kin'
import type { Sounding } from './kin'
import { measureSound, soundingOfMeasured } from './measure-sound'
import { brightnessOf, lowestBandOf, portraitFrom, portraitOf, portraitText, unlikeness } from './portrait'

const RATE = 48000

interface Thing {
  readonly hz: readonly number[]
  readonly fallSeconds: number
  readonly hiss: number
}

/** A struck thing: its tones, and a burst of noise, never twice the same. */
function struck({ hz, fallSeconds, hiss }: Thing, seed: number, level = 0.5, rate = RATE): Float32Array {
  const random = seeded(seed)
  const phases = hz.map(() => 2 * Math.PI * random())
  const weights = hz.map(() => 0.7 + 0.6 * random())
  return Float32Array.from({ length: Math.round(0.6 * rate) }, (_, i) => {
    const t = i / rate
    const tones = hz.reduce((sum, one, k) => sum + weights[k] * Math.sin(2 * Math.PI * one * t + phases[k]), 0) / hz.length
    return level * (tones * Math.exp(-t / fallSeconds) + hiss * (2 * random() - 1) * Math.exp(-t / 0.012))
  })
}

const things: Thing[] = [
  { hz: [90, 143, 210], fallSeconds: 0.09, hiss: 0.2 },
  { hz: [420, 690, 1130], fallSeconds: 0.04, hiss: 0.3 },
  { hz: [2100, 3350, 5200, 7700], fallSeconds: 0.15, hiss: 0.1 },
  { hz: [150, 880], fallSeconds: 0.02, hiss: 1 },
]

test('takes of one thing are more alike than any two things, at whatever level and rate they were recorded', () => {
  const takes = things.flatMap((thing, i) => [0, 1, 2].map((n) => ({ thing: i, portrait: portraitOf(struck(thing, 10 * i + n, [0.6, 0.1, 0.02][n], [RATE, 44100, 96000][n]), [RATE, 44100, 96000][n]) }))) // prettier-ignore
  const same: number[] = []
  const other: number[] = []
  for (const a of takes) for (const b of takes) if (a !== b) (a.thing === b.thing ? same : other).push(unlikeness(a.portrait, b.portrait))
  expect(Math.max(...same)).toBeLessThan(Math.min(...other))
})

test('unlikeness is 0 for the same and alike both ways, and a portrait survives being written down', () => {
  const random = seeded(3)
  for (let n = 0; n < 200; n++) {
    const [a, b] = [0, 1].map(() => Uint8Array.from({ length: 120 }, () => Math.floor(random() * 55)))
    expect(unlikeness(a, a)).toBe(0)
    expect(unlikeness(a, b)).toBeCloseTo(unlikeness(b, a), 9)
    expect(unlikeness(a, b)).toBeGreaterThan(0)
    expect(portraitFrom(portraitText(a))).toEqual(a)
    expect(JSON.parse(JSON.stringify(portraitText(a)))).toBe(portraitText(a))
  }
  expect(portraitFrom('short')).toBeUndefined()
  expect(portraitFrom('~'.repeat(120))).toBeUndefined()
})

interface Struck {
  readonly sound: Float32Array
  readonly atSeconds: number
}

function plainRow(strikes: readonly Struck[]): Float32Array {
  const mono = new Float32Array(Math.round((strikes.at(-1)!.atSeconds + 0.8) * RATE))
  for (const { sound, atSeconds } of strikes) sound.forEach((sample, i) => (mono[Math.round(atSeconds * RATE) + i] += sample))
  return mono
}

/** The portraits of strikes in a row, each amid the others. */
function row(strikes: readonly Struck[]) {
  const mono = plainRow(strikes)
  const onsets = strikes.map(({ atSeconds }) => Math.round(atSeconds * RATE))
  return hitPortraitsOf(mono, RATE, onsets.map((onsetFrame, i) => ({ onsetFrame, endFrame: onsets[i + 1] ?? mono.length }))) // prettier-ignore
}

test('a hit that stands alone is like others as its plain portrait says', () => {
  const plain = things.map((thing, i) => portraitOf(struck(thing, i), RATE))
  const hits = row(things.map((thing, i) => ({ sound: struck(thing, i), atSeconds: 1.2 * i })))
  hits.forEach(({ portrait, trust }, i) => {
    expect(portrait).toEqual(plain[i])
    expect([...trust].every((one) => one === 1)).toBe(true)
  })
  for (const a of [0, 1, 2, 3]) for (const b of [0, 1, 2, 3]) expect(hitUnlikeness(hits[a], hits[b])).toBeCloseTo(unlikeness(plain[a], plain[b]), 6) // prettier-ignore
})

test('a hit amid others, what rings before it and cuts it off left out, is more like itself alone than plainly heard', () => {
  let [nearer, all] = [0, 0]
  for (let seed = 1; seed <= 12; seed++)
    for (const [first, second] of [[2, 0], [2, 1], [0, 3], [2, 3]]) {
      const strikes = [first, second, first].map((thing, i) => ({ sound: struck(things[thing], 40 * seed + i, i === 1 ? 0.3 : 0.5), atSeconds: 0.3 + 0.13 * i })) // prettier-ignore
      const amid = row(strikes)[1]
      const alone = row([{ sound: struck(things[second], 40 * seed + 9), atSeconds: 0.3 }])[0]
      const plain = unlikeness(portraitOf(plainRow(strikes), RATE, Math.round(0.43 * RATE), Math.round(0.56 * RATE)), alone.portrait)
      all++
      if (hitUnlikeness(amid, alone) < plain) nearer++
    } // prettier-ignore
  expect(nearer / all).toBeGreaterThan(0.95)
})

test('silence, a single frame and nothing at all have portraits of their own length', () => {
  for (const samples of [new Float32Array(0), new Float32Array(1), new Float32Array(RATE), Float32Array.of(1)])
    expect(portraitOf(samples, RATE)).toHaveLength(120)
  expect(measureSound({ sampleRateHz: RATE, channels: [new Float32Array(100)] }).portrait).toBeUndefined()
  expect(soundingOfMeasured({ peakDb: -6, loudnessDb: -20, portrait: 'no portrait' })).toBeUndefined()
})

/** Average linkage said slowly: all pairs of members, anew each time. */
function plainJoins(count: number, unlike: (a: number, b: number) => number): number[] {
  let groups = Array.from({ length: count }, (_, i) => [i])
  const between = (a: number[], b: number[]) =>
    a.reduce((sum, i) => sum + b.reduce((all, j) => all + unlike(i, j), 0), 0) / a.length / b.length
  const made: number[] = []
  while (groups.length > 1) {
    let best = { unlike: Infinity, a: groups[0], b: groups[1] }
    for (const [i, a] of groups.entries()) for (const b of groups.slice(i + 1)) if (between(a, b) < best.unlike) best = { unlike: between(a, b), a, b } // prettier-ignore
    made.push(best.unlike)
    groups = [...groups.filter((group) => group !== best.a && group !== best.b), [...best.a, ...best.b]]
  }
  return made
}

test('groups are joined as by the slow rule, and every member is in one group', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const random = seeded(seed)
    const places = Array.from({ length: 2 + Math.floor(random() * 25) }, () => [10 * random(), 10 * random()])
    const unlike = (a: number, b: number) => Math.hypot(places[a][0] - places[b][0], places[a][1] - places[b][1])
    const joins = joinsOf(places.length, unlike)
    plainJoins(places.length, unlike).forEach((height, i) => expect(joins[i].unlike).toBeCloseTo(height, 3))
    for (const made of [0, joins.length >> 1, joins.length, dividingJoin(joins)]) {
      const groups = groupsAfter(places.length, joins, made)
      expect(groups).toHaveLength(places.length - made)
      expect(groups.flat().sort((a, b) => a - b)).toEqual(places.map((_, i) => i))
    }
  }
})

test('what was struck is counted by itself', () => {
  const portraits = things.flatMap((thing, i) =>
    Array.from({ length: 5 }, (_, n) => portraitOf(struck(thing, 100 * i + n, 0.1 + 0.2 * n), RATE)),
  )
  const joins = joinsOf(portraits.length, (a, b) => unlikeness(portraits[a], portraits[b]))
  const groups = groupsAfter(portraits.length, joins, dividingJoin(joins))
  expect(groups).toEqual(things.map((_, i) => [0, 1, 2, 3, 4].map((n) => 5 * i + n)))
  expect(dividingJoin([])).toBe(0)
})

test('kin comes nearest first, and lies the way that is asked for', () => {
  const sounds = Array.from({ length: 60 }, (_, n) => {
    const random = seeded(500 + n)
    const thing = { hz: [80 * 30 ** random()], fallSeconds: 0.01 * 20 ** random(), hiss: random() }
    return soundingOfMeasured(measureSound({ sampleRateHz: RATE, channels: [struck(thing, n)] }))!
  })
  const query = sounds[7]
  const own = (sounding: Sounding) => sounding
  const near = kinOf(query, sounds, own)
  expect(near[0]).toBe(query)
  expect(near).toHaveLength(60)
  const apart = near.map(({ portrait }) => unlikeness(query.portrait, portrait))
  expect(apart).toEqual([...apart].sort((a, b) => a - b))
  const brighter = kinOf(query, sounds, own, 'brighter')
  const darker = kinOf(query, sounds, own, 'darker')
  expect(brighter.every(({ portrait }) => brightnessOf(portrait) > brightnessOf(query.portrait))).toBe(true)
  expect(brighter.some((one) => darker.includes(one))).toBe(false)
  expect(kinOf(query, sounds, own, 'longer').every(({ decaySeconds }) => decaySeconds > query.decaySeconds)).toBe(true)
  expect(kinOf(query, sounds, own, 'lower').every(({ portrait }) => lowestBandOf(portrait) < lowestBandOf(query.portrait))).toBe(true)
  for (const way of ['brighter', 'darker', 'longer', 'shorter', 'lower', 'higher'] as const)
    expect(kinOf(query, sounds, own, way)).not.toContain(query)
  expect(kinOf(query, [1, 2], () => undefined)).toEqual([])
})
