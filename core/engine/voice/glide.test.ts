import { aKit } from '../../kit/builders'
import type { Kit, OwnSettings, Ray } from '../../kit/kit'
import { createOffline, renderOffline, toScore } from '../offline'
import { controlNumbers, EventType } from '../program/codes'

const RATE = 48000
/** A ramp: how far a voice has read is what it sounds. */
const ramp = Float32Array.from({ length: 60000 }, (_, i) => i / 120000)

interface Move {
  readonly frame: number
  readonly note?: number
  readonly velocity?: number
  readonly bend?: number
  readonly wheel?: number
}

function played(
  own: OwnSettings,
  ray: Partial<Ray>,
  moves: readonly Move[],
  frames: number,
  samples = ramp,
  more: Partial<Kit> = {},
): Float32Array {
  // prettier-ignore
  const rig = aKit([{ own: { maxStrikes: 1, ...own }, bands: [[{ sampleRateHz: RATE, channels: [samples] }]] }])
  const [pad] = rig.kit.pads
  const kit: Kit = { ...rig.kit, ...more, pads: [{ ...pad, rays: [{ ...pad.rays[0], ...ray }] }] }
  const { engine, loader } = createOffline(kit, RATE, (hash) => rig.audio.get(hash))
  const padSlot = loader.slotOf(pad.id)
  const events = moves.map(({ frame, note = -1, velocity = 127, bend, wheel }) => {
    if (bend === undefined && wheel === undefined) return { frame, type: EventType.strike, padSlot, velocity, note }
    return { frame, type: EventType.controller, padSlot: 0, note: wheel === undefined ? controlNumbers.bend : controlNumbers.wheel, velocity: bend ?? wheel } // prettier-ignore
  })
  return renderOffline(engine, toScore(events), frames)[0]
}

const rateAt = (sound: Float32Array, frame: number) => ((sound[frame + 40] - sound[frame]) * 120000) / 40

test('a pad that glides comes from the note before to its own, straight in cents, by the share that its ray follows', () => {
  const own = { rootNote: 60, values: { glideSeconds: 0.1 } }
  for (const keyTrack of [1, 0.5]) {
    const sound = played(own, { values: { keyTrack } }, [{ frame: 0, note: 72 }, { frame: 12000, note: 60 }], 24000) // prettier-ignore
    expect(rateAt(sound, 6000)).toBeCloseTo(2 ** keyTrack, 3)
    // The old strike has faded 200 frames after the new one began.
    for (const passed of [400, 1500, 3000, 4500]) {
      const cents = 1200 * keyTrack * (1 - (passed + 20) / 4800)
      expect(1200 * Math.log2(rateAt(sound, 12000 + passed))).toBeCloseTo(cents, -0.5)
    }
    expect(rateAt(sound, 12000 + 4900)).toBeCloseTo(1, 3)
  }
})

test('without a glide, at a first strike and on the same note nothing glides', () => {
  const own = { rootNote: 60, values: { glideSeconds: 0.1 } }
  expect(rateAt(played(own, { values: { keyTrack: 1 } }, [{ frame: 0, note: 72 }], 4000), 100)).toBeCloseTo(2, 3)
  const again = played(own, { values: { keyTrack: 1 } }, [{ frame: 0, note: 72 }, { frame: 6000, note: 72 }], 9000) // prettier-ignore
  expect(rateAt(again, 6500)).toBeCloseTo(2, 3)
})

test('a ray follows the bend by its share, two semitones each way, and no other does', () => {
  for (const bendTrack of [0, 0.5, 1]) {
    const sound = played({}, { values: { bendTrack } }, [{ frame: 0 }, { frame: 2000, bend: 1 }, { frame: 14000, bend: -1 }], 26000) // prettier-ignore
    expect(1200 * Math.log2(rateAt(sound, 12000))).toBeCloseTo(200 * bendTrack, 0)
    expect(1200 * Math.log2(rateAt(sound, 24000))).toBeCloseTo(-200 * bendTrack, 0)
  }
})

test('what moves the share of the bend is heard while the bend is held, and what is settled with the strike as well', () => {
  const moved = (from: 'wheel' | 'velocity', amount: number) => [
    { id: 'follows', draw: 30, from: { kind: from }, to: [{ param: 'bendTrack' as const }], amount, bypass: false },
  ]
  const cents = (sound: Float32Array, frame: number) => 1200 * Math.log2(rateAt(sound, frame))
  const bent = { frame: 100, bend: 1 }
  const byWheel = played({ responses: moved('wheel', 1) }, { values: { bendTrack: 0.25 } }, [{ frame: 0 }, bent, { frame: 9000, wheel: 64 }, { frame: 20000, wheel: 127 }], 32000) // prettier-ignore
  expect(cents(byWheel, 8000)).toBeCloseTo(50, 0)
  expect(cents(byWheel, 18000)).toBeCloseTo(200 * (0.25 + 64 / 127), 0)
  expect(cents(byWheel, 30000)).toBeCloseTo(200, 0) // it follows all the way, and no farther
  const soft = played({ responses: moved('velocity', 1) }, { values: { bendTrack: 1 } }, [{ frame: 0, velocity: 32 }, bent], 12000)
  expect(cents(soft, 9000)).toBeCloseTo((200 * 32) / 127, 0)
})

test('a wave that moves the share of the bend sways the pitch by as much as the bend stands, and not at all without one', () => {
  const wave = {
    id: 'wave',
    name: 'Wave',
    wave: 'sine' as const,
    rate: { unit: 'Hz' as const, value: 2 },
    runs: 'strike' as const,
    phase: 0,
  }
  const responses = [{ id: 'sways', draw: 30, from: { kind: 'oscillator' as const, id: 'wave' }, to: [{ param: 'bendTrack' as const }], amount: 0.4, bypass: false }] // prettier-ignore
  const swayed = (moves: readonly Move[]) => played({ responses }, { values: { bendTrack: 0.5 } }, moves, 30000, ramp, { oscillators: [wave] }) // prettier-ignore
  const cents = (sound: Float32Array, frame: number) => 1200 * Math.log2(rateAt(sound, frame))
  const bent = swayed([{ frame: 0, bend: -1 }, { frame: 10 }])
  for (const frame of [6000, 12000, 18000, 24000]) {
    const share = 0.5 + 0.4 * Math.sin((2 * Math.PI * 2 * (frame + 10)) / RATE)
    expect(cents(bent, frame)).toBeCloseTo(-200 * share, -0.3)
  }
  expect(cents(swayed([{ frame: 0 }]), 6000)).toBeCloseTo(0, 1)
})

test('envelopes count by their share, which velocity may move: softer strikes fall less', () => {
  const pitch = { points: [{ seconds: 0, value: 1200, bend: 0 }, { seconds: 1, value: 1200, bend: 0 }] } // prettier-ignore
  const deeper = {
    id: 'deeper',
    draw: 0,
    from: { kind: 'velocity' as const },
    to: [{ param: 'pitchEnvelope' as const }],
    amount: 1,
    bypass: false,
  }
  const at = (velocity: number) => rateAt(played({ envelopes: { pitch }, responses: [deeper] }, {}, [{ frame: 0, velocity }], 3000), 500)
  expect(1200 * Math.log2(at(127))).toBeCloseTo(1200, 0)
  expect(1200 * Math.log2(at(32))).toBeCloseTo((1200 * 32) / 127, 0)
  const level = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.1, value: 0, bend: 0 }] } // prettier-ignore
  const steady = new Float32Array(9000).fill(0.5)
  // What a wheel may open again does not end with its envelope.
  const byWheel = { ...deeper, from: { kind: 'wheel' as const }, to: [{ param: 'levelEnvelope' as const }], amount: -1 }
  const opened = played({ envelopes: { level }, responses: [byWheel] }, {}, [{ frame: 0 }, { frame: 100, wheel: 127 }], 8000, steady)
  expect(opened[7000]).toBeCloseTo(0.5, 5)
  expect(played({ envelopes: { level }, responses: [byWheel] }, {}, [{ frame: 0 }], 8000, steady)[7000]).toBe(0)
  const half = played({ envelopes: { level }, values: { levelEnvelope: 0.4 } }, {}, [{ frame: 0 }], 8000, steady)
  expect(half[2400]).toBeCloseTo(0.5 * (1 - 0.4 * 0.5), 5)
  expect(half[7000]).toBeCloseTo(0.5 * 0.6, 5)
})

test('how long it glides, how far it follows the note and how late it begins are moved as they are set', () => {
  const moves = [{ frame: 0, wheel: 127 }, { frame: 10, note: 72 }, { frame: 12000, note: 60 }] // prettier-ignore
  const by = (param: 'glideSeconds' | 'keyTrack' | 'delaySeconds', amount: number) => ({ id: param, draw: 0, from: { kind: 'wheel' as const }, to: [{ param }], amount, bypass: false }) // prettier-ignore
  const sound = (values: OwnSettings['values'], keyTrack: number, responses: OwnSettings['responses']) =>
    played({ rootNote: 60, values, responses }, { values: { keyTrack } }, moves, 24000)
  const set = sound({ glideSeconds: 0.1, delaySeconds: 0.02 }, 0.75, [])
  const moved = sound({ glideSeconds: 0.04 }, 0.25, [by('glideSeconds', 0.06), by('keyTrack', 0.5), by('delaySeconds', 0.02)])
  let most = 0
  for (let i = 0; i < set.length; i++) most = Math.max(most, Math.abs(set[i]! - moved[i]!))
  expect(most).toBeLessThan(1e-6)
  expect(set.findIndex((sample) => sample !== 0)).toBeGreaterThanOrEqual(10 + 960)
  // Nothing begins before its strike, and no share is above the whole.
  const early = sound({ delaySeconds: 0.01 }, 1, [by('delaySeconds', -0.5), by('keyTrack', 1)])
  expect(early).toEqual(sound({}, 1, []))
})

test('by chance each strike begins a little later, none alike', () => {
  const late = (amount: number) => {
    const response = { id: 'r', draw: 28, from: { kind: 'chance' as const }, to: [{ param: 'delaySeconds' as const }], amount, bypass: false } // prettier-ignore
    const sound = played({ values: { delaySeconds: 0.02 }, responses: [response], maxStrikes: 1 }, {}, [0, 1, 2, 3, 4].map((i) => ({ frame: 6000 * i })), 30000, new Float32Array(100).fill(0.5)) // prettier-ignore
    return [0, 1, 2, 3, 4].map((i) => sound.slice(6000 * i, 6000 * (i + 1)).findIndex((sample) => sample !== 0))
  }
  expect(late(0)).toEqual([960, 960, 960, 960, 960])
  const drawn = late(0.015)
  expect(new Set(drawn).size).toBe(5)
  for (const frame of drawn) expect(Math.abs(frame - 960)).toBeLessThanOrEqual(720)
})
