import { createOffline, EventType, renderOffline, toScore } from '../../engine'
import { hashOf, seeded, testIds } from '../../kit/builders'
import { createKit, createPad, wholeClip } from '../../kit/make'
import type { Clip } from '../../kit'
import { asLoud } from '../../place'
import { playedGroove } from './played-groove'
import type { PlayedStrike } from './played-groove'

const RATE = 48000
const FRAMES = 2400
const HASH = hashOf('b')
const dbToGain = (db: number) => 10 ** (db / 20)

/** Three things struck at times of a hand, each strike of its own noise and as loud as it happens to be; where each lies. */
function drummed(seed: number) {
  const random = seeded(seed)
  const strikes = Array.from({ length: 32 }, (_, i) => ({
    frame: Math.round(RATE * (0.5 + 0.16 * i + 0.03 * random())),
    thing: i === 0 ? 0 : Math.floor(3 * random()),
    levelDb: -30 * random() * random(),
  }))
  const samples = new Float32Array(RATE * 7)
  for (const { frame, levelDb } of strikes)
    for (let i = 0; i < FRAMES; i++) samples[frame + i] = dbToGain(levelDb) * Math.exp(-i / 400) * (random() - 0.5)
  return { samples, strikes }
}

/** What is heard again of what was drummed, from the pads that it became; by its own hits, or by whichever take answers. */
function again(seed: number, byOwnHits: boolean) {
  const { samples, strikes } = drummed(seed)
  const makeId = testIds(seed)
  const played: PlayedStrike[] = []
  const pads = [0, 1, 2].map((thing) => {
    const pad = createPad(makeId, { name: `thing ${thing}` }, 36 + thing)
    const own = strikes.filter((strike) => strike.thing === thing)
    const takes = own.map(({ frame, levelDb }) => ({
      clip: { ...wholeClip(HASH, { frames: samples.length, channels: 1 }), startFrame: frame, endFrame: frame + FRAMES, fadeInSeconds: 0, fadeOutSeconds: 0 }, // prettier-ignore
      loudnessDb: levelDb,
    }))
    const { bands, response, velocities } = asLoud(makeId, pad.rays[0].id, takes)
    const turnAt = new Map(bands.flatMap(({ turns }) => turns.map(({ id, clips }) => [(Object.values(clips)[0] as Clip).startFrame, id] as const))) // prettier-ignore
    own.forEach(({ frame }, i) => played.push({ padId: pad.id, seconds: frame / RATE, velocity: velocities[i], ...(byOwnHits ? { turn: turnAt.get(frame)! } : {}) })) // prettier-ignore
    return { ...pad, own: { ...pad.own, responses: [response] }, bands }
  })
  const pace = { tempoBpm: 93.7, firstSeconds: strikes[0].frame / RATE, stepsPerBeat: 4, swing: 0.5, beatsPerBar: 4, confidence: 1 }
  const groove = playedGroove(makeId, 'Again', played, pace, 0)
  const kit = { ...createKit(makeId, 'Again'), tempoBpm: pace.tempoBpm, pads, grooves: [groove] }
  const { engine } = createOffline(kit, RATE, () => ({ sampleRateHz: RATE, channels: [samples] }))
  const [left] = renderOffline(engine, toScore([{ frame: strikes[0].frame, type: EventType.groove, padSlot: 0 }]), samples.length)
  return { samples, strikes, left }
}

const energy = (part: Float32Array) => part.reduce((sum, sample) => sum + sample * sample, 0)

/** How far off a strike is heard, frames, at the best fit within 4 of where it was; and how much louder, dB, at that. */
function fit(left: Float32Array, samples: Float32Array, frame: number) {
  const was = samples.subarray(frame, frame + FRAMES)
  const fits = [-4, -3, -2, -1, 0, 1, 2, 3, 4].map((off) => {
    const now = left.subarray(frame + off, frame + off + FRAMES)
    const product = was.reduce((sum, sample, i) => sum + sample * now[i], 0)
    return { off, likeness: product / Math.sqrt(energy(was) * energy(now)), louderDb: 10 * Math.log10(energy(now) / energy(was)) }
  })
  return fits.reduce((best, one) => (one.likeness > best.likeness ? one : best))
}

test('from the kit the table is heard again: each hit by itself, where it was, as loud as it was', () => {
  for (const seed of [3, 14, 15]) {
    const { samples, strikes, left } = again(seed, true)
    const gain = fit(left, samples, strikes[0].frame).louderDb // a pad is centred between two sides
    for (const { frame } of strikes) {
      const { off, likeness, louderDb } = fit(left, samples, frame)
      expect(Math.abs(off)).toBeLessThanOrEqual(1)
      expect(likeness).toBeGreaterThan(0.999)
      expect(Math.abs(louderDb - gain)).toBeLessThan(0.5)
    }
  }
})

test('where any take answers they differ, and are as loud all the same', () => {
  const { samples, strikes, left } = again(9, false)
  const heard = strikes.map(({ frame }) => fit(left, samples, frame))
  expect(heard.filter(({ likeness }) => likeness < 0.5).length).toBeGreaterThan(8)
  const levels = strikes.map(({ frame }) => 10 * Math.log10(energy(left.subarray(frame, frame + FRAMES)) / energy(samples.subarray(frame, frame + FRAMES)))) // prettier-ignore
  const middle = [...levels].sort((a, b) => a - b)[16]
  expect(levels.filter((level) => Math.abs(level - middle) < 1).length).toBeGreaterThan(28)
})
