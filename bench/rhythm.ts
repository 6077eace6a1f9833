import { hitPortraitsOf } from '@heliaster/core/alike'
import { cutRecording } from '@heliaster/core/cut'
import { heardRhythm as heardHits, paceOf } from '@heliaster/core/groove/rhythm'
import type { Pace } from '@heliaster/core/groove/rhythm'
import { broadFamily, playedInTime, USUAL_GAP_SECONDS } from '@heliaster/core/kit'

import { createRandom, gaussian } from '../demo/random'
import type { Figure } from './figure'
import { measuredPackages, REAL_RATE, realStrikes } from './real/material'
import type { RealStrike } from './real/material'
import { placedScene, usableThings } from './real/compose'
import { banks, drumNotes, drumPrograms, familyOfNote, playedStrikes } from './real/drums'

const SEED = Number(process.env.BENCH_SEED ?? 7100)
const TEMPI = [76, 103, 138]
const SWINGS = [0.5, 0.6, 2 / 3]
const STRAY_SECONDS = 0.012
const BARS = 8
const SYMBOLIC = 120
const SCENES = 4

/**
 * How well a played rhythm is understood: patterns drawn at random (another generator than the rules were made on), three tempi,
 * straight and swung, one strike at a time, hands that stray by 12 ms and drift; first as plain times, then as recordings of impacts that others made, cut
 * and grouped as a person's would be.
 */
export function figuresOfRhythm(): Record<string, Figure> {
  return { ...plainTimes(), ...recordings() }
}

interface PlayedStrike {
  readonly seconds: number
  readonly thing: number
  readonly strength: number
}

interface Played {
  readonly strikes: readonly PlayedStrike[]
  readonly bpm: number
  readonly firstSeconds: number
}

/** Bars that are alike but for what changes by chance: the low thing on the one, another on two and four or on three, a third filling. */
function playedRhythm(seed: number): Played {
  const random = createRandom(seed)
  const bpm = TEMPI[seed % TEMPI.length]
  const swing = SWINGS[Math.floor(seed / TEMPI.length) % SWINGS.length]
  const fills = ['halves', 'quarters', 'off', 'beats'][Math.floor(random() * 4)]
  const isHalfTime = random() < 0.15
  const low = Array.from({ length: 16 }, (_, step) => step === 0 || random() < (step === 8 ? 0.5 : step % 4 === 0 ? 0.12 : step % 2 === 0 ? 0.22 : 0.1)) // prettier-ignore
  const back = Array.from({ length: 16 }, (_, step) => (isHalfTime ? step === 8 : step % 8 === 4) || random() < 0.04)
  const fill = (step: number) => (fills === 'halves' ? step % 2 === 0 : fills === 'quarters' ? true : fills === 'off' ? step % 4 === 2 : step % 4 === 0)
  const firstSeconds = 0.5 + random()
  const strikes: PlayedStrike[] = []
  let drift = 0
  for (let bar = 0; bar < BARS; bar++)
    for (let step = 0; step < 16; step++) {
      drift += 0.0012 * gaussian(random)
      const at = bar * 4 + (step + (step % 2 === 1 ? 2 * swing - 1 : 0)) / 4
      const put = (thing: number, strength: number) => {
        if (random() > 0.04) strikes.push({ seconds: firstSeconds + (at * 60) / bpm + drift + STRAY_SECONDS * gaussian(random), thing, strength: strength * (0.8 + 0.4 * random()) }) // prettier-ignore
      }
      // One mouth, or one hand at a time: what matters most of a step sounds.
      if (back[step] && (step % 8 === 4 || !low[step])) put(1, step % 8 === 4 ? 0.9 : 0.35)
      else if (low[step]) put(0, step === 0 ? 1 : 0.7)
      else if (fill(step)) put(2, step % 4 === 0 ? 0.55 : 0.35)
    }
  return { strikes: strikes.sort((a, b) => a.seconds - b.seconds), bpm, firstSeconds }
} // prettier-ignore

const CENTRES = [130, 1100, 5200]

function plainTimes(): Record<string, Figure> {
  const counts = { tempo: 0, beat: 0, bar: 0 }
  for (let i = 0; i < SYMBOLIC; i++) {
    const played = playedRhythm(SEED + i)
    const pace = paceOf(played.strikes.map((strike) => ({ ...strike, centreHz: CENTRES[strike.thing] })))
    count(counts, pace, played)
  }
  return { ...figuresFor('rhythm.times', counts, SYMBOLIC) }
}

interface Counts {
  tempo: number
  beat: number
  bar: number
}

function count(counts: Counts, pace: Pace | undefined, { bpm, firstSeconds }: Played): void {
  if (!pace || Math.abs(pace.tempoBpm / bpm - 1) > 0.01) return
  counts.tempo++
  const beats = ((pace.firstSeconds - firstSeconds) * bpm) / 60
  if (Math.abs(beats - Math.round(beats)) < 0.12) counts.beat++
  if (Math.abs(beats / 4 - Math.round(beats / 4)) < 0.03) counts.bar++
}

function figuresFor(name: string, { tempo, beat, bar }: Counts, of: number): Record<string, Figure> {
  return {
    [`${name}.tempo`]: { value: tempo / of, unit: `of ${of} rhythms within 1 %` },
    [`${name}.beat`]: { value: beat / of, unit: 'of them with the beat too' },
    [`${name}.bar`]: { value: bar / of, unit: 'of them with the bar too' },
  }
}

function recordings(): Record<string, Figure> {
  const figures: Record<string, Figure> = {}
  for (const [name, { isUnseen }] of measuredPackages) {
    const strikes = realStrikes(name)
    const results = eachScene((i) => {
      const played = playedRhythm(SEED + 500 + i)
      const scene = sceneOfImpacts(played, strikes, SEED + 500 + i)
      return scene && heardRhythm(played, scene)
    })
    Object.assign(figures, figuresOfHeard(`rhythm.${name}${isUnseen ? ' (unseen)' : ''}`, results))
  }
  for (const [name, { isUnseen }] of Object.entries(banks)) {
    const results = eachScene((i) => {
      const played = playedRhythm(SEED + 800 + i)
      const scene = sceneOfDrums(played, name, SEED + 800 + i)
      return scene && heardRhythm(played, scene)
    })
    Object.assign(figures, figuresOfHeard(`rhythm.${name}${isUnseen ? ' (unseen)' : ''}`, results))
  }
  return figures
}

type Heard = ReturnType<typeof heardRhythm>

const eachScene = (hear: (i: number) => Heard | undefined) =>
  Array.from({ length: SCENES * 3 }, (_, i) => hear(i)).filter((one) => one !== undefined)

function figuresOfHeard(title: string, results: readonly Heard[]): Record<string, Figure> {
  if (results.length === 0) return {}
  const counts = { tempo: 0, beat: 0, bar: 0 }
  for (const { pace, played } of results) count(counts, pace, played)
  const all = results.reduce((sum, one) => sum + one.strikes, 0)
  const right = results.reduce((sum, one) => sum + one.right, 0)
  return {
    ...figuresFor(title, counts, results.length),
    [`${title}.assigned`]: { value: right / all, unit: `of ${all} strikes found, on the pad of their thing` },
    [`${title}.timingMs`]: { value: 1000 * most(results.flatMap(({ offs }) => offs)), unit: 'ms, 95 % of what was found lies nearer' },
    [`${title}.toldMs`]: {
      value: 1000 * most(results.flatMap(({ told }) => told)),
      unit: 'ms, the same from where a strike stands over what sounded before it',
    },
    [`${title}.otherTakesMs`]: {
      value: 1000 * most(results.flatMap(({ apart }) => apart)),
      unit: 'ms, 95 % are heard nearer where other takes answer',
    },
  }
}

/** What 95 % of some values are below. */
const most = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(0.95 * values.length)]

const NEAR_SECONDS = 0.03

type Scene = ReturnType<typeof placedScene>

/** A rhythm on three things of a package: each strike is one of the files of its thing. */
function sceneOfImpacts(played: Played, strikes: readonly RealStrike[], seed: number): Scene | undefined {
  const random = createRandom(seed * 3 + 1)
  const all = usableThings(strikes, 0.9)
  if (all.length < 3) return undefined
  const things = Array.from({ length: 3 }, () => all.splice(Math.floor(random() * all.length), 1)[0])
  const lowness = (takes: readonly RealStrike[]) => crossings(takes[0].samples)
  things.sort((a, b) => lowness(a) - lowness(b))
  return placedScene(played.strikes.map(({ seconds, thing, strength }) => ({ at: seconds, level: strength, takes: things[thing] })), -60, random) // prettier-ignore
}

const LONGEST_DRUM_SECONDS = 0.9
const STRAY_CENTS = 8
const TRIES = 12

/** A rhythm on three drums of a bank, of three families: each strike is played as hard as it was meant, and a little off its pitch. */
function sceneOfDrums(played: Played, name: string, seed: number): Scene | undefined {
  const random = createRandom(seed * 3 + 2)
  for (let i = 0; i < TRIES; i++) {
    const program = drumPrograms[Math.floor(random() * drumPrograms.length)]
    const notes = drawnDrums(random)
    const alone = playedStrikes(name, program, notes.map((note) => ({ note, velocity: 100, bend: 0 }))) // prettier-ignore
    if (alone.length === 0) return undefined
    const asThings = usableThings(alone.flatMap((samples, n) => [0, 1].map((take) => ({ name: `${n} ${take}`, thing: `${n}`, samples }))), LONGEST_DRUM_SECONDS) // prettier-ignore
    if (asThings.length < 3) continue
    const order = [0, 1, 2].sort((a, b) => crossings(alone[a]) - crossings(alone[b]))
    const strikes = played.strikes.map(({ thing, strength }) => ({
      note: notes[order[thing]],
      velocity: Math.max(1, Math.min(127, Math.round(110 * strength))),
      bend: STRAY_CENTS * gaussian(random),
    }))
    const sounds = playedStrikes(name, program, strikes)
    return placedScene(played.strikes.map(({ seconds, strength }, s) => ({ at: seconds, level: strength, takes: [{ name: `${s}`, thing: `${strikes[s].note}`, samples: sounds[s] }] })), -60, random) // prettier-ignore
  }
  return undefined
}

function drawnDrums(random: () => number): number[] {
  const left = [...drumNotes]
  const drawn: number[] = []
  while (drawn.length < 3) {
    const [note] = left.splice(Math.floor(random() * left.length), 1)
    const isNew = drawn.every((other) => broadFamily(familyOfNote(other)) !== broadFamily(familyOfNote(note)))
    if (isNew) drawn.push(note)
  }
  return drawn
}

/** A rhythm that was recorded, cut and grouped: what came of each strike. */
function heardRhythm(played: Played, scene: Scene) {
  const hits = cutRecording({ sampleRateHz: REAL_RATE, channels: [scene.samples] }, playedInTime({ waterLine: 0.3, findsLevel: true, minGapSeconds: USUAL_GAP_SECONDS }, true))
  const portraits = hitPortraitsOf(scene.samples, REAL_RATE, hits)
  const { things: groups, pace } = heardHits(
    hits.map(({ onsetFrame, peakDb, centreHz }, i) => ({ seconds: onsetFrame / REAL_RATE, peakDb, centreHz, portrait: portraits[i] })),
  )
  const groupOf = new Map(groups.flatMap((group, g) => group.map((i) => [i, g] as const)))
  const found = played.strikes.map((strike, i) => {
    const frame = scene.truth[i]
    const nearest = hits.map(({ onsetFrame }, h) => ({ h, late: onsetFrame - frame })).sort((a, b) => Math.abs(a.late) - Math.abs(b.late))[0]
    const off = Math.abs(hits[nearest?.h]?.onsetFrame - scene.told[i]) / REAL_RATE
    return nearest && Math.abs(nearest.late) < NEAR_SECONDS * REAL_RATE ? { thing: strike.thing, group: groupOf.get(nearest.h)!, late: nearest.late, off } : undefined
  })
  // A group is the pad of the thing that most of it are; a thing has one pad.
  const padOf = new Map<number, number>()
  for (let thing = 0; thing < 3; thing++) {
    const counts = new Map<number, number>()
    for (const one of found) if (one?.thing === thing) counts.set(one.group, (counts.get(one.group) ?? 0) + 1)
    const [most] = [...counts].sort((a, b) => b[1] - a[1])
    if (most) padOf.set(thing, most[0])
  }
  /** Two things on one pad: only the one that has more of it is right. */
  const isOwn = (thing: number) => {
    const group = padOf.get(thing)
    const own = (of: number) => found.filter((one) => one?.thing === of && one.group === group).length
    return [...padOf].every(([other, pad]) => other === thing || pad !== group || own(other) < own(thing))
  }
  /** How far off a strike is heard where another take of its pad answers, begun as that was cut; by its own hit it is heard where it was. */
  const apart = found.flatMap((one, i) => found.slice(i + 1).flatMap((other) => (one && other && one.group === other.group ? [Math.abs(one.late - other.late) / REAL_RATE] : []))) // prettier-ignore
  const right = found.filter((one) => one && padOf.get(one.thing) === one.group && isOwn(one.thing)).length
  return { pace, played, strikes: played.strikes.length, right, offs: found.flatMap((one) => (one ? [Math.abs(one.late) / REAL_RATE] : [])), told: found.flatMap((one) => (one ? [one.off] : [])), apart }
} // prettier-ignore

/** How often a sound crosses the middle, where it is loud: low things seldom. */
function crossings(samples: Float32Array): number {
  const top = samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)
  let count = 0
  let loud = 0
  for (let i = 1; i < samples.length; i++) {
    if (Math.abs(samples[i]) > 0.05 * top) loud++
    if (samples[i] >= 0 !== samples[i - 1] >= 0) count++
  }
  return count / Math.max(1, loud)
}
