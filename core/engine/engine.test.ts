import fc from 'fast-check'

import { aKit, anImpulse, aTone, seeded } from '../kit/builders'
import type { Rig } from '../kit/builders'
import type { Kit, OwnSettings } from '../kit/kit'
import { responseTo } from '../kit/responses'
import { shuffledTurn } from './strike/chance'
import { createOffline, renderOffline, toScore } from './offline'
import type { ScoreEvent } from './offline'
import type { StrikeRecord } from './strike-record'
import { EventType } from './program/codes'
import { render } from './render'

const RATE = 48000

function play({ kit, audio }: Rig, events: ScoreEvent[], frames: number, blockFrames = 256) {
  const { engine } = createOffline(kit, RATE, (hash) => audio.get(hash))
  const records: StrikeRecord[] = []
  const [left, right] = renderOffline(engine, toScore(events), frames, blockFrames, (record) => records.push(record))
  return { left, right, records, engine }
}

const strike = (frame: number, padSlot = 0, velocity = 127, key = 0): ScoreEvent => ({
  frame,
  type: EventType.strike,
  padSlot,
  velocity,
  key,
})
const firstSound = (samples: Float32Array) => samples.findIndex((sample) => sample !== 0)

function shaped(rig: Rig, own: OwnSettings): Rig {
  const pads = rig.kit.pads.map((pad) => ({ ...pad, own: { ...pad.own, ...own } }))
  return { ...rig, kit: { ...rig.kit, pads } }
}

/** A kit that uses everything at once: bands, turns, picks, envelopes, filter, chokes, limits. */
function busyRig(): { rig: Rig; score: ScoreEvent[] } {
  const random = seeded(3)
  const sounds = Array.from({ length: 24 }, (_, i) => aTone(3000 + 500 * i, 0.2, i % 2 ? 44100 : 48000, 90 + 60 * i))
  const point = (seconds: number, value: number, bend = 0) => ({ seconds, value, bend })
  const shape: OwnSettings = {
    values: { tuneCents: -330, filter1CutoffHz: 900, filter1Damping: 1.22, filter1EnvelopeCents: 3600 },
    choices: { filter1Kind: 'lowPass' },
    envelopes: {
      level: { points: [point(0, 0), point(0.002, 1, -0.4), point(0.06, 0, 0.7)] },
      pitch: { points: [point(0, 2400), point(0.03, 0, -0.6)] },
      filter1: { points: [point(0, 1), point(0.05, 0)] },
    },
  }
  const rig = aKit([
    { own: { pick: 'cycle' }, bands: [sounds.slice(0, 3), sounds.slice(3, 6)] },
    { own: { pick: 'shuffle', ...shape }, bands: [sounds.slice(6, 12)] },
    { own: { pick: 'random', mode: 'hold', maxStrikes: 2, values: { pan: -0.4 } }, bands: [sounds.slice(12, 16), sounds.slice(16, 20)] },
    {
      own: { values: { gainDb: -6 }, responses: [responseTo('chance', 'tuneCents', 80)] },
      bands: [sounds.slice(20)],
    },
  ])
  rig.kit.pads[0].bands[1] = { ...rig.kit.pads[0].bands[1], blendVelocities: 40 }
  const kit: Kit = {
    ...rig.kit,
    maxStrikes: 9,
    ties: [{ kind: 'choke', id: 't' as never, from: rig.kit.pads[0].id, to: [rig.kit.pads[3].id], fadeSeconds: 0.004 }],
  }
  const score: ScoreEvent[] = []
  for (let frame = 5; frame < 40000; frame += 40 + Math.floor(random() * 900)) {
    const key = score.length + 1
    const padSlot = Math.floor(random() * 4)
    score.push(strike(frame, padSlot, 1 + Math.floor(random() * 127), key))
    score.push({ frame: frame + Math.floor(random() * 3000), type: EventType.release, padSlot, key })
  }
  return { rig: { ...rig, kit }, score }
}

test('a new pad plays its clip bit for bit, on the very frame of the strike', () => {
  const clip = aTone(500, 0.5)
  const { left, right } = play(aKit([{ bands: [[clip]] }]), [strike(37)], 700)
  expect(left.slice(37, 537)).toEqual(clip.channels[0])
  expect(right).toEqual(left)
  expect(firstSound(left)).toBe(38) // the tone's own first sample is 0
  expect(left.slice(537).every((sample) => sample === 0)).toBe(true)
})

test('blocks of any size give the same samples', () => {
  const { rig, score } = busyRig()
  const reference = play(rig, score, 48000, 128)
  expect(reference.left.some((sample) => Math.abs(sample) > 0.1)).toBe(true)
  for (const blockFrames of [1, 16, 37, 1000, 4096]) {
    const other = play(rig, score, 48000, blockFrames)
    expect(Buffer.compare(Buffer.from(other.left.buffer), Buffer.from(reference.left.buffer))).toBe(0)
    expect(Buffer.compare(Buffer.from(other.right.buffer), Buffer.from(reference.right.buffer))).toBe(0)
  }
})

test('a filter rings on after its clip by the same frames at any block size, and then is silent', () => {
  const stereo = { sampleRateHz: RATE, channels: [aTone(1000, 0.5).channels[0], aTone(1000, 0.3, RATE, 900).channels[0]] }
  const ringing = { filter1CutoffHz: 400, filter1Damping: 0.245 }
  const rig = shaped(aKit([{ bands: [[stereo]] }]), { choices: { filter1Kind: 'lowPass' }, values: ringing })
  const reference = play(rig, [strike(3)], 4000, 128)
  expect(reference.left.slice(1003, 1400).some((sample) => sample !== 0)).toBe(true)
  expect(reference.left.slice(1003 + 960).every((sample) => sample === 0)).toBe(true)
  for (const blockFrames of [1, 100, 4096]) {
    const other = play(rig, [strike(3)], 4000, blockFrames)
    expect(other.left).toEqual(reference.left)
    expect(other.right).toEqual(reference.right)
  }
})

test('velocity chooses the band, and a border value belongs to one band only', () => {
  const rig = aKit([{ bands: [[anImpulse(10, RATE, 0.1)], [anImpulse(10, RATE, 0.2)], [anImpulse(10, RATE, 0.4)]] }])
  const edges = rig.kit.pads[0].bands.map((band) => band.fromVelocity)
  expect(edges).toEqual([1, 43, 86])
  const velocities = [1, 42, 43, 85, 86, 127]
  const { records, left } = play(
    rig,
    velocities.map((velocity, i) => strike(i * 100, 0, velocity)),
    700,
  )
  expect(records.map((record) => record.band)).toEqual([0, 0, 1, 1, 2, 2])
  expect([0, 2, 4].map((i) => left[i * 100])).toEqual([0.1, 0.2, 0.4].map(Math.fround))
})

test('where bands blend, both sound and their powers add up to one', () => {
  const rig = aKit([{ bands: [[anImpulse(10, RATE, 0.5)], [{ sampleRateHz: RATE, channels: [new Float32Array([0, 0.5])] }]] }])
  rig.kit.pads[0].bands[1] = { ...rig.kit.pads[0].bands[1], blendVelocities: 20 }
  const { left } = play(rig, [strike(0, 0, 55)], 20)
  expect(left[0]).toBeGreaterThan(0)
  expect(left[1]).toBeGreaterThan(0)
  expect(Math.hypot(left[0], left[1])).toBeCloseTo(0.5, 6)
})

test('cycle goes through the turns in order, shuffle plays each once a round and never the same twice running', () => {
  const turns = Array.from({ length: 5 }, () => anImpulse())
  const hits = Array.from({ length: 50 }, (_, i) => strike(i * 10))
  expect(
    play(aKit([{ bands: [turns] }]), hits, 600)
      .records.map((r) => r.turn)
      .slice(0, 7),
  ).toEqual([0, 1, 2, 3, 4, 0, 1])
  const shuffled = play(aKit([{ own: { pick: 'shuffle' }, bands: [turns] }]), hits, 600).records.map((r) => r.turn)
  for (let round = 0; round < 10; round++) expect([...shuffled.slice(round * 5, round * 5 + 5)].sort()).toEqual([0, 1, 2, 3, 4])
  expect(shuffled.some((turn, i) => i > 0 && turn === shuffled[i - 1])).toBe(false)
})

test('a shuffle of any number of turns is a permutation in every round and does not repeat across rounds', () => {
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 40 }), fc.nat(), fc.nat(), (count, key, seed) => {
      const deck = { seed, key, list: 3, count, scratch: new Int32Array(128) }
      const played = Array.from({ length: count * 4 }, (_, i) => shuffledTurn(deck, Math.floor(i / count), i % count))
      for (let round = 0; round < 4; round++) expect(new Set(played.slice(round * count, (round + 1) * count)).size).toBe(count)
      expect(played.every((turn, i) => i === 0 || turn !== played[i - 1])).toBe(true)
    }),
  )
})

test('random picks are the same for the same seed and other for another, and heed weights', () => {
  const rig = aKit([{ own: { pick: 'random' }, bands: [[anImpulse(), anImpulse(), anImpulse()]] }])
  rig.kit.pads[0].bands[0].turns[2] = { ...rig.kit.pads[0].bands[0].turns[2], weight: 0 }
  const hits = Array.from({ length: 60 }, (_, i) => strike(i * 10))
  const turns = (seed: number) => play({ ...rig, kit: { ...rig.kit, seed } }, hits, 700).records.map((r) => r.turn)
  expect(turns(5)).toEqual(turns(5))
  expect(turns(5)).not.toEqual(turns(6))
  expect(new Set(turns(5))).toEqual(new Set([0, 1]))
})

test('a choke fades the other pad to silence within its fade, without a jump', () => {
  const steady = { sampleRateHz: RATE, channels: [new Float32Array(9600).fill(0.4)] }
  const rig = aKit([{ bands: [[steady]] }, { bands: [[{ sampleRateHz: RATE, channels: [new Float32Array(10)] }]] }])
  const [open, closed] = rig.kit.pads
  const kit: Kit = {
    ...rig.kit,
    ties: [{ kind: 'chokeGroup', id: 'g' as never, name: 'hatch', pads: [open.id, closed.id], fadeSeconds: 0.004 }],
  }
  const { left, records } = play({ ...rig, kit }, [strike(0, 0), strike(1000, 1)], 2000)
  expect(left[999]).toBeCloseTo(0.4)
  expect(left.slice(1000 + 192).every((sample) => sample === 0)).toBe(true)
  for (let i = 1000; i < 1192; i++) expect(left[i]).toBeLessThanOrEqual(left[i - 1])
  for (let i = 1001; i < 1192; i++) expect(left[i - 1] - left[i]).toBeLessThan(0.01)
  expect(records[1].chokedSlots).toEqual([0])
})

test('a hold pad with a sustain point waits there and ends after it is let go', () => {
  const steady = { sampleRateHz: RATE, channels: [new Float32Array(48000).fill(0.5)] }
  const points = [
    { seconds: 0, value: 1, bend: 0 },
    { seconds: 0.01, value: 0.5, bend: 0 },
    { seconds: 0.03, value: 0, bend: 0 },
  ]
  const rig = shaped(aKit([{ own: { mode: 'hold' }, bands: [[steady]] }]), { envelopes: { level: { points, sustain: 1 } } })
  const letGo: ScoreEvent = { frame: 5000, type: EventType.release, padSlot: 0, key: 9 }
  const { left } = play(rig, [strike(0, 0, 127, 9), letGo], 8000)
  expect(left[4999]).toBeCloseTo(0.25, 6)
  expect(left[5480]).toBeCloseTo(0.125, 3) // half of the 20 ms release
  expect(left.slice(5970).every((sample) => sample === 0)).toBe(true)
  expect(play(rig, [strike(0, 0, 127, 9)], 8000).left[7999]).toBeCloseTo(0.25, 6)
})

test('a pitch fall of four octaves ends on the clip rate at its last point', () => {
  const ramp = { sampleRateHz: RATE, channels: [Float32Array.from({ length: 40000 }, (_, i) => i / 65536)] }
  const rig = shaped(aKit([{ bands: [[ramp]] }]), {
    values: { startSeconds: 0.1 }, // the reader looks to both sides: within the ramp it sees nothing else
    envelopes: {
      pitch: {
        points: [
          { seconds: 0, value: 4800, bend: 0 },
          { seconds: 0.005, value: 0, bend: 0 },
        ],
      },
    },
  })
  const { left } = play(rig, [strike(0)], 1000)
  const speed = (frame: number) => (left[frame + 1] - left[frame]) * 65536
  expect(speed(0)).toBeCloseTo(16, 0)
  expect(speed(120)).toBeCloseTo(4, 0) // two octaves left half way
  expect(speed(500)).toBeCloseTo(1, 2)
})

test('voice limits stop the oldest that was let go, then the oldest, and count strikes', () => {
  const steady = () => ({ sampleRateHz: RATE, channels: [new Float32Array(40000).fill(0.1)] })
  const rig = aKit([{ own: { maxStrikes: 2 }, bands: [[steady()]] }])
  expect(play(rig, [strike(0), strike(100), strike(200)], 2000).left[1999]).toBeCloseTo(0.2, 5)
  const held = aKit([
    { own: { mode: 'hold' }, bands: [[steady()]] },
    { bands: [[{ sampleRateHz: RATE, channels: [new Float32Array(40000).fill(0.3)] }]] },
  ])
  const { engine } = play({ ...held, kit: { ...held.kit, maxStrikes: 2 } }, [strike(0, 1), strike(10, 0, 100, 5), strike(500, 1)], 2000)
  const sounding = Array.from(engine.strikes.padSlot).filter((_, i) => engine.strikes.active[i] === 1)
  expect(sounding.sort()).toEqual([0, 1])
})

test('below -0.3 dBFS the limiter changes nothing, above it nothing passes the ceiling', () => {
  const loud = aTone(4800, 0.9)
  const rig = aKit([{ own: { maxStrikes: 8 }, bands: [[loud]] }])
  expect(play(rig, [strike(0)], 4800).left).toEqual(loud.channels[0])
  const { left } = play(rig, [strike(0), strike(0), strike(0)], 4800)
  expect(Math.max(...left)).toBeLessThanOrEqual(Math.fround(0.9660508789898133))
})

test('start, tuning and pan act as they say', () => {
  const clip = aTone(2000, 0.5)
  const started = shaped(aKit([{ bands: [[clip]] }]), { values: { startSeconds: 0.01 } })
  expect(play(started, [strike(0)], 100).left[0]).toBe(clip.channels[0][480])
  const octave = play(aKit([{ own: { values: { tuneCents: 1200 } }, bands: [[clip]] }]), [strike(0)], 2000)
  for (let i = 100; i < 900; i++) expect(Math.abs(octave.left[i] - clip.channels[0][2 * i])).toBeLessThan(1e-5) // -94 dB of it
  const panned = play(aKit([{ own: { values: { pan: 0.5 } }, bands: [[anImpulse()]] }]), [strike(0)], 10)
  expect(panned.left[0] ** 2 + panned.right[0] ** 2).toBeCloseTo(0.5, 6)
  expect(panned.right[0]).toBeGreaterThan(panned.left[0])
})

test('microphones of one strike play the same turn; a missing one is silent and shifts nothing', () => {
  const rig = aKit([{ bands: [[anImpulse(10, RATE, 0.1), anImpulse(10, RATE, 0.2), anImpulse(10, RATE, 0.3)]] }])
  const pad = rig.kit.pads[0]
  const far = { ...pad.rays[0], id: 'ray-far' as never, name: 'Far', microphone: true, values: { delaySeconds: 0.001 } }
  const turns = pad.bands[0].turns.map((turn, i) =>
    i === 1 ? turn : { ...turn, clips: { ...turn.clips, 'ray-far': turn.clips[pad.rays[0].id] } },
  )
  const kit = { ...rig.kit, pads: [{ ...pad, rays: [pad.rays[0], far], bands: [{ ...pad.bands[0], turns }] }] }
  const { left, records } = play({ ...rig, kit }, [strike(0), strike(200), strike(400)], 600)
  expect(records.map((record) => record.turn)).toEqual([0, 1, 2])
  expect([left[0], left[48], left[200], left[248], left[400], left[448]]).toEqual([0.1, 0.1, 0.2, 0, 0.3, 0.3].map(Math.fround))
})

test('the tap takes the mix before the limiter: the same bits below its ceiling, and all of it above', () => {
  const mix = (level: number) => {
    const { kit, audio } = aKit([{ bands: [[aTone(2000, level)]] }])
    const { engine } = createOffline(kit, RATE, (hash) => audio.get(hash))
    engine.score = toScore([strike(0)])
    const [left, right, tapLeft, tapRight] = [0, 0, 0, 0].map(() => new Float32Array(2048))
    for (let at = 0; at < 2048; at += 128) render(engine, left, right, at, 128, { left: tapLeft, right: tapRight })
    return { left, right, tapLeft, tapRight }
  }
  const quiet = mix(0.5)
  expect(quiet.tapLeft).toEqual(quiet.left)
  expect(quiet.tapRight).toEqual(quiet.right)
  expect(Math.max(...quiet.left)).toBeGreaterThan(0.1)
  const loud = mix(2)
  expect(Math.max(...loud.left)).toBeLessThan(0.967)
  expect(Math.max(...loud.tapLeft)).toBeGreaterThan(1.2)
  loud.tapLeft.slice(0, 1500).forEach((sample, i) => expect(sample).toBeCloseTo(quiet.tapLeft[i] * 4, 5))
})
