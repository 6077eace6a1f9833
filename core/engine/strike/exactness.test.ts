import { createBus } from '../../kit/make'
import { aKit, seeded } from '../../kit/builders'
import type { Rig } from '../../kit/builders'
import type { Band, Kit, Pad, Ray } from '../../kit/kit'
import { createOffline, renderOffline, toScore } from '../offline'
import type { ScoreEvent } from '../offline'
import type { StrikeRecord } from '../strike-record'
import { EventType } from '../program/codes'

const RATE = 48000

function play({ kit, audio }: Rig, events: ScoreEvent[], frames: number) {
  const { engine } = createOffline(kit, RATE, (hash) => audio.get(hash))
  const records: StrikeRecord[] = []
  const [left, right] = renderOffline(engine, toScore(events), frames, 512, (record) => records.push(record))
  return { left, right, records }
}

const strike = (frame: number, velocity = 127, padSlot = 0): ScoreEvent => ({ frame, type: EventType.strike, padSlot, velocity })
/** One frame that names its clip: a level nobody can mistake, far below the limiter. */
const naming = (number: number) => ({ sampleRateHz: RATE, channels: [Float32Array.of(number / 4096)] })
const named = (sample: number) => Math.round(sample * 4096)

function withPad({ kit, audio }: Rig, change: (pad: Pad) => Pad): Rig {
  return { audio, kit: { ...kit, pads: [change(kit.pads[0]), ...kit.pads.slice(1)] } }
}

test('every velocity 1..127 sounds exactly the cells it should, with hard and with blended edges', () => {
  const edges = [1, 20, 21, 64, 100]
  const set = (pad: Pad, blends: number[]): Pad => ({
    ...pad,
    bands: pad.bands.map((band, i) => ({ ...band, fromVelocity: edges[i], blendVelocities: blends[i] })),
  })
  const rig = aKit([{ bands: [1, 2, 3, 4, 5].map((number) => [naming(100 * number)]) }])
  const all = Array.from({ length: 127 }, (_, i) => strike(10 * i, i + 1))
  const bandAt = (velocity: number) => edges.findLastIndex((edge) => edge <= velocity)
  const hard = play(withPad(rig, (pad) => set(pad, [0, 0, 0, 0, 0])), all, 1300) // prettier-ignore
  hard.records.forEach(({ band, aboveBand, velocity }, i) => {
    expect([band, aboveBand]).toEqual([bandAt(velocity), -1])
    expect(named(hard.left[10 * i])).toBe(100 * (bandAt(velocity) + 1))
  })
  const blends = [0, 10, 1, 30, 50] // wider than a band is no wider than the band
  const soft = play(withPad(rig, (pad) => set(pad, blends)), all, 1300) // prettier-ignore
  soft.records.forEach(({ band, aboveBand, velocity }, i) => {
    const width = band < 4 ? Math.min(blends[band + 1], edges[band + 1] - edges[band]) : 0
    const share = width > 0 ? Math.max(0, (velocity - edges[band + 1] + width) / width) : 0
    expect([band, aboveBand]).toEqual([bandAt(velocity), share > 0 ? band + 1 : -1])
    const expected = (100 * (band + 1) * Math.sqrt(1 - share) + 100 * (band + 2) * Math.sqrt(share)) / 4096
    expect(soft.left[10 * i]).toBeCloseTo(expected, 6)
  })
})

test('random turns pass a chi-square test and are the same again for the same seed', () => {
  const rig = aKit([{ own: { pick: 'random' }, bands: [[naming(1)]] }])
  const six = withPad(rig, (pad) => ({ ...pad, bands: [{ ...pad.bands[0], turns: Array.from({ length: 6 }, (_, i) => ({ ...pad.bands[0].turns[0], id: `turn-${i}` as never })) }] })) // prettier-ignore
  const strikes = Array.from({ length: 6000 }, (_, i) => strike(4 * i))
  const turnsOf = (seed: number) => play({ ...six, kit: { ...six.kit, seed } }, strikes, 24010).records.map(({ turn }) => turn)
  for (const seed of [1, 2, 77]) {
    const counts = [0, 0, 0, 0, 0, 0]
    const pairs = new Array<number>(36).fill(0)
    const turns = turnsOf(seed)
    turns.forEach((turn, i) => {
      counts[turn]++
      if (i > 0) pairs[6 * turns[i - 1] + turn]++
    })
    const chiSquare = (found: number[], expected: number) => found.reduce((sum, count) => sum + (count - expected) ** 2 / expected, 0)
    expect(chiSquare(counts, 1000)).toBeLessThan(20.5) // 5 degrees of freedom, p = 0.001
    expect(chiSquare(pairs, 5999 / 36)).toBeLessThan(66.6) // 35 degrees, p = 0.001: no turn follows another by habit
  }
  expect(turnsOf(5)).toEqual(turnsOf(5))
})

test('in a shuffle turns that weigh less come more seldom, as often as they should, and none comes twice running', () => {
  const rig = aKit([{ own: { pick: 'shuffle' }, bands: [[1, 2, 3, 4, 5].map(naming)] }])
  const weights = [1, 0.25, 1, 0.5, 1]
  const weighed = (of: readonly number[]) =>
    withPad(rig, (pad) => ({ ...pad, bands: [{ ...pad.bands[0], turns: pad.bands[0].turns.map((turn, i) => ({ ...turn, weight: of[i] })) }] })) // prettier-ignore
  const strikes = Array.from({ length: 60 * 15 }, (_, i) => strike(4 * i))
  const turns = play(weighed(weights), strikes, 3700).records.map(({ turn }) => turn)
  expect(turns.some((turn, i) => turn === turns[i - 1])).toBe(false)
  for (let run = 0; run < 60; run++) {
    const counts = [0, 0, 0, 0, 0]
    for (const turn of turns.slice(15 * run, 15 * run + 15)) counts[turn]++
    expect(counts).toEqual([4, 1, 4, 2, 4])
  }
  const never = play(weighed([1, 0, 1, 1, 1]), strikes, 3700).records.map(({ turn }) => turn)
  expect([never.includes(1), never.some((turn, i) => turn === never[i - 1])]).toEqual([false, false])
  const alike = play(weighed([2, 2, 2, 2, 2]), strikes, 3700).records.map(({ turn }) => turn)
  expect(alike).toEqual(play(rig, strikes, 3700).records.map(({ turn }) => turn))
})

/** A pad of three microphones, five bands and six turns; some clips are missing, one on purpose. */
function microphones(): Rig {
  const rig = aKit([{ own: { pick: 'shuffle' }, bands: [0, 1, 2, 3, 4].map((band) => [0, 1, 2, 3, 4, 5].map((turn) => naming(6 * band + turn + 1))) }]) // prettier-ignore
  return withPad(rig, (pad) => {
    const ray = (name: string, pan: number, more: Partial<Ray> = {}): Ray => ({ ...pad.rays[0], id: `ray-${name}` as never, name, microphone: true, ...more, values: { pan, ...more.values } }) // prettier-ignore
    const rays = [ray('close', -1), ray('far', 1), ray('room', 1, { values: { delaySeconds: 1 / RATE } })]
    const bands = pad.bands.map((band, b): Band => ({
      ...band,
      blendVelocities: 0,
      turns: band.turns.map((turn, t) => {
        const [clip] = Object.values(turn.clips)
        const clips = { 'ray-close': clip, 'ray-far': clip, 'ray-room': clip }
        if ((b + t) % 4 === 0) return { ...turn, clips: { 'ray-close': clip, 'ray-room': clip } }
        if ((b + t) % 7 === 3) return { ...turn, clips: { ...clips, 'ray-close': 'intendedSilence' } }
        return { ...turn, clips }
      }),
    }))
    return { ...pad, rays, bands }
  })
}

test('in each of 10,000 random strikes all microphones share band and turn, whatever is missing', () => {
  const rig = microphones()
  const random = seeded(11)
  const strikes = Array.from({ length: 10_000 }, (_, i) => strike(4 * i, 1 + Math.floor(127 * random())))
  const { left, right, records } = play(rig, strikes, 40_010)
  const [pad] = rig.kit.pads
  let missing = 0
  records.forEach(({ band, turn, rays, velocity }, i) => {
    const cell = pad.bands[band].turns[turn]
    const has = (name: string) => typeof cell.clips[`ray-${name}`] === 'object'
    const number = 6 * band + turn + 1
    const heard = [left[4 * i], right[4 * i], right[4 * i + 1]].map((sample) => named(sample / Math.SQRT2))
    const expected = ['close', 'far', 'room'].map((name) => (has(name) ? number : 0))
    if (heard.some((one, ray) => one !== expected[ray])) throw new Error(`strike ${i} at ${velocity}: ${heard.join()} for ${expected.join()}`) // prettier-ignore
    expect(rays).toEqual([0, 1, 2].filter((ray) => expected[ray] > 0))
    if (expected.includes(0)) missing++
  })
  expect(missing).toBeGreaterThan(1000)
})

test('turns begin anew after a silence or with the groove, where the pad says so', () => {
  const turns = [naming(1), naming(2), naming(3)]
  const played = (startAgain: 'never' | 'groove' | number, counter: 'pad' | 'band') => {
    const strikes = [0, 100, 20_000, 20_100, 40_000].map((frame) => strike(frame))
    const groove: ScoreEvent = { frame: 30_000, type: EventType.groove, padSlot: 0 }
    return play(aKit([{ own: { startAgain, counter }, bands: [turns] }]), [...strikes, groove], 41_000).records.map(({ turn }) => turn)
  }
  for (const counter of ['pad', 'band'] as const) {
    expect(played('never', counter)).toEqual([0, 1, 2, 0, 1])
    expect(played(0.2, counter)).toEqual([0, 1, 0, 1, 0])
    expect(played('groove', counter)).toEqual([0, 1, 2, 0, 0])
  }
})

test('a ray sounds through its bus or its pad’s, and is silent where ray, pad or bus is muted', () => {
  const rig = aKit([{ bands: [[naming(1000)]] }])
  const bus = { ...createBus('bus-a' as never, 'Room'), values: { gainDb: -6 } }
  const first = (change: (kit: Kit) => Kit) => play({ ...rig, kit: change(rig.kit) }, [strike(0)], 4).left[0] * 4.096
  const onPad = (own: Partial<Pad['own']>) => (kit: Kit) => ({ ...kit, pads: [{ ...kit.pads[0], own: { ...kit.pads[0].own, ...own } }] })
  expect(first((kit) => kit)).toBeCloseTo(1, 5)
  expect(first((kit) => onPad({ bus: bus.id })({ ...kit, buses: [bus] }))).toBeCloseTo(10 ** -0.3, 5)
  expect(first((kit) => onPad({ bus: bus.id })({ ...kit, buses: [{ ...bus, mute: true }] }))).toBe(0)
  expect(first(onPad({ mute: true }))).toBe(0)
  expect(first((kit) => ({ ...kit, pads: [{ ...kit.pads[0], rays: [{ ...kit.pads[0].rays[0], mute: true }] }] }))).toBe(0)
})

test('of strikes that began together the softest is stopped first', () => {
  const steady = (level: number) => ({ sampleRateHz: RATE, channels: [new Float32Array(9000).fill(level)] })
  const rig = aKit([{ own: { maxStrikes: 2 }, bands: [[steady(0.1)], [steady(0.2)], [steady(0.4)]] }])
  const { left } = play(rig, [strike(0, 120), strike(0, 20), strike(1000, 60)], 3000)
  expect(left[2900]).toBeCloseTo(0.6, 5) // the loud one and the new one
})

test('a loop goes round without a seam until it is let go, or until it is struck again', () => {
  const wave = { sampleRateHz: RATE, channels: [Float32Array.from({ length: 480 }, (_, i) => 0.3 * Math.sin((2 * Math.PI * i) / 48))] }
  const once = play(aKit([{ own: { mode: 'loopUntilLetGo' }, bands: [[wave]] }]), [{ ...strike(0), key: 7 }, { frame: 2000, type: EventType.release, padSlot: 0, key: 7 }], 4000) // prettier-ignore
  for (let i = 0; i < 2000; i++) expect(once.left[i]).toBeCloseTo(wave.channels[0][i % 480], 6)
  expect(once.left.slice(2200).every((sample) => sample === 0)).toBe(true)
  const again = play(aKit([{ own: { mode: 'loopUntilStruckAgain', values: { tuneCents: 700 } }, bands: [[wave]] }]), [strike(0), strike(3000), strike(5000)], 6000) // prettier-ignore
  const steepest = (samples: Float32Array) =>
    samples.reduce((most, sample, i) => Math.max(most, Math.abs(sample - (samples[i - 1] ?? sample))), 0)
  expect(steepest(again.left.slice(0, 3000))).toBeLessThan(0.3 * ((2 * Math.PI) / 48) * 2 ** (7 / 12) * 1.02) // no click where it goes round
  expect(again.left.slice(3200, 5000).every((sample) => sample === 0)).toBe(true)
  expect(Math.abs(again.left[5400])).toBeGreaterThan(0.01)
})
