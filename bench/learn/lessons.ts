import { spectralFlux } from '../../core/cut/flux'
import { listenForStrikes } from '../../core/cut/strength'
import { risesOf } from '../../core/cut/strikes'
import { SIGNS, signsOf } from '../../core/cut/strike-signs'
import { createRandom } from '../../demo/random'
import { impactScene, sceneWishes } from '../impact-scenes'
import { manners, realScene } from '../real/compose'
import type { Manner } from '../real/compose'
import type { RealStrike } from '../real/material'
import { burstScene, inCombRoom, toneScene } from './bursts'
import type { Lesson } from './train-net'

/** A recording whose strikes are known, as it is looked at: all its rises, and when it was struck, s. */
export interface KnownRecording {
  readonly samples: Float32Array
  readonly sampleRateHz: number
  readonly truth: readonly number[]
}

const STANDARD = 6
const RANDOM = 40
const ROOM_SHARE = 0.4
/** Of recordings drawn at random so many were not made in a room at all. */
const NO_ROOM_SHARE = 0.15

/** Recordings composed of what a package holds: of each standard manner, and of manners drawn at random, some in a room. */
export function* recordingsOf(strikes: readonly RealStrike[], seed: number): Generator<KnownRecording> {
  for (const manner of Object.values(manners)) for (let i = 0; i < STANDARD; i++) yield known(realScene(manner, strikes, seed + i))
  for (let i = 0; i < RANDOM; i++) {
    const random = createRandom(seed * 7 + i)
    const scene = known(realScene(randomManner(random), strikes, seed * 3 + i))
    yield random() < ROOM_SHARE ? { ...scene, samples: inCombRoom(scene.samples, scene.sampleRateHz, random) } : scene
  }
}

function randomManner(random: () => number): Manner {
  const between = (low: number, high: number) => low + (high - low) * random()
  const low = Math.exp(between(Math.log(0.08), Math.log(0.9)))
  const high = low * between(1.2, 3)
  const top = between(-14, -1)
  const range = random() < 0.6 ? between(3, 14) : between(14, 36)
  return {
    strikes: Math.round(between(30, 60)),
    gapSeconds: [low, high],
    levelDb: [top - range, top],
    isRising: random() < 0.15,
    noiseDb: random() < NO_ROOM_SHARE ? -110 : between(-74, -40),
    longest: Math.min(1.5, between(0.25, 3 * high)),
    ...(random() < 0.3 ? { only: manners.walking!.only! } : {}),
  }
}

const MADE = 8
const SECONDS = 24
const BURSTS = 48
const TONES = 40

/** Recordings made up: struck bodies in rooms, bursts of noise with toes, in rolls and flams, soft and loud, and plain tones. */
export function* recordingsMade(seed: number): Generator<KnownRecording> {
  for (let i = 0; i < MADE; i++) for (const wish of sceneWishes(seed + 10 * i, SECONDS)) yield known(impactScene(wish))
  for (let i = 0; i < BURSTS; i++) yield burstScene(i, createRandom(seed + i))
  for (let i = 0; i < TONES; i++) yield toneScene(i, createRandom(seed + 500 + i))
}

function known({ samples, sampleRateHz, truth }: KnownRecording): KnownRecording {
  return { samples, sampleRateHz, truth: truth.map((frame) => frame / sampleRateHz) }
}

const EARLY_SECONDS = 0.02
const LATE_SECONDS = 0.045

/** The most sudden rise near each strike is that strike; others near it count nothing, and all else is none. */
export function lessonOf({ samples, sampleRateHz, truth }: KnownRecording): Lesson {
  const rises = risesOf(listenForStrikes(samples, sampleRateHz), sampleRateHz)
  const isStrike = new Uint8Array(rises.length)
  const counts = new Float64Array(rises.length).fill(1)
  for (const at of truth) {
    const near = rises.flatMap(({ seconds }, i) => (seconds > at - EARLY_SECONDS && seconds < at + LATE_SECONDS ? [i] : []))
    for (const i of near) counts[i] = isStrike[i]!
    const best = near.reduce((most, i) => (most < 0 || rises[i]!.strength > rises[most]!.strength ? i : most), -1)
    if (best >= 0) counts[best] = isStrike[best] = 1
  }
  // Each recording counts by the root of what it holds.
  const share = 1 / Math.sqrt(Math.max(1, rises.length))
  return { signs: signsOf(rises, spectralFlux(samples, sampleRateHz)), isStrike, counts: counts.map((count) => count * share) }
}

export function lessonsOf(lessons: readonly Lesson[]): Lesson {
  const rows = lessons.reduce((sum, { isStrike }) => sum + isStrike.length, 0)
  const all: Lesson = { signs: new Float64Array(rows * SIGNS), isStrike: new Uint8Array(rows), counts: new Float64Array(rows) }
  let from = 0
  for (const { signs, isStrike, counts } of lessons) {
    all.signs.set(signs, from * SIGNS)
    all.isStrike.set(isStrike, from)
    all.counts.set(counts, from)
    from += isStrike.length
  }
  const mean = all.counts.reduce((sum, count) => sum + count, 0) / rows
  return { ...all, counts: all.counts.map((count) => count / mean) }
}
