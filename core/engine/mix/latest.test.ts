import { aKit, seeded } from '../../kit/builders'
import type { BusId } from '../../kit/ids'
import type { Kit } from '../../kit/kit'
import { createBus } from '../../kit/make'
import type { KitResponse, Response } from '../../kit/shape'
import { createOffline, renderOffline, toScore } from '../offline'
import type { ScoreEvent } from '../offline'
import { controlNumbers, EventType } from '../program/codes'

const RATE = 48000
const steady = { sampleRateHz: RATE, channels: [new Float32Array(60_000).fill(0.001)] }
const turns = [steady, steady, steady]
const rig = aKit([{ own: { maxStrikes: 1, rootNote: 60, responses: [] }, bands: [turns] }, { own: { maxStrikes: 1, responses: [] }, bands: [[steady]] }]) // prettier-ignore
const to: KitResponse['to'] = [{ scope: 'bus', id: 'b', param: 'gainDb' }]
const by = (kind: Response['from']['kind'], amount: number, more: Partial<KitResponse> = {}): KitResponse => ({ id: `${kind}${amount}`, draw: 0, from: { kind }, to, amount, bypass: false, ...more }) // prettier-ignore

function played(responses: readonly KitResponse[], events: readonly ScoreEvent[], frames: number, block?: number): Float32Array {
  const pads = rig.kit.pads.map((pad) => ({ ...pad, rays: pad.rays.map((ray) => ({ ...ray, bus: 'b' as BusId })) }))
  const kit = { ...rig.kit, pads, buses: [createBus('b' as BusId, 'Lee')], responses } as Kit
  const { engine } = createOffline(kit, RATE, (hash) => rig.audio.get(hash))
  return renderOffline(engine, toScore([...events]), frames, block)[0]
}

const strikeAt = (frame: number, velocity = 127, more: Partial<ScoreEvent> = {}): ScoreEvent => ({ frame, type: EventType.strike, padSlot: 0, velocity, ...more }) // prettier-ignore
/** When what was moved has come where it is led, and the strike before is gone. */
const SETTLED = 2900

/** By how many dB the bus is moved at each of these frames. */
function movedDb(responses: readonly KitResponse[], events: readonly ScoreEvent[], at: readonly number[], block?: number): number[] {
  const frames = Math.max(...at) + 1
  const [moved, plain] = [played(responses, events, frames, block), played([], events, frames, block)]
  return at.map((frame) => 20 * Math.log10(moved[frame] / plain[frame]))
}

test('velocity, note, turn and how fast strikes come lead a bus as the latest strike had them', () => {
  const random = seeded(4)
  for (let round = 0; round < 12; round++) {
    const amounts = [12, 3, 9, 6].map((most) => most * (2 * random() - 1))
    const responses = [by('velocity', amounts[0]), by('note', amounts[1]), by('turn', amounts[2], { max: 4 }), by('strikeRate', amounts[3])]
    let frame = 0
    const strikes = Array.from({ length: 6 }, () => ({ frame: (frame += 3000 + Math.floor(9000 * random())), velocity: 1 + Math.floor(127 * random()), note: 40 + Math.floor(40 * random()) })) // prettier-ignore
    const heard = movedDb(responses, strikes.map(({ frame, velocity, note }) => strikeAt(frame, velocity, { note })), strikes.map((one) => one.frame + SETTLED)) // prettier-ignore
    strikes.forEach(({ frame, velocity, note }, i) => {
      const rate = i === 0 ? 0 : Math.min(1, RATE / 16 / (frame - strikes[i - 1].frame))
      const turn = Math.min(4, (amounts[2] * (i % 3)) / 2)
      const expected = amounts[0] * (velocity / 127 - 1) + (amounts[1] * (note - 60)) / 12 + turn + amounts[3] * rate
      expect(heard[i]).toBeCloseTo(expected, 3)
    })
  }
})

test('chance draws anew with each strike, between its bounds, alike for one draw and in blocks of any size', () => {
  const strikes = Array.from({ length: 12 }, (_, i) => strikeAt(3000 * i, 127, { padSlot: i % 2 }))
  const at = strikes.map(({ frame }) => frame + SETTLED)
  const drawn = movedDb([by('chance', 6, { draw: 3 })], strikes, at)
  expect(drawn.every((db) => Math.abs(db) <= 6 + 1e-6)).toBe(true)
  expect(new Set(drawn.map((db) => db.toFixed(3))).size).toBe(12)
  const twice = movedDb([by('chance', 6, { draw: 3 }), by('chance', 3, { draw: 3, id: 'half' })], strikes, at, 37)
  twice.forEach((db, i) => expect(db).toBeCloseTo(1.5 * drawn[i], 3))
  const other = movedDb([by('chance', 6, { draw: 4 })], strikes, at)
  expect(other.some((db, i) => Math.abs(db - drawn[i]) > 0.5)).toBe(true)
})

test('pressure on the key of the pad that was struck last counts, that of any other pad does not', () => {
  const press = (frame: number, padSlot: number, value: number): ScoreEvent => ({ frame, type: EventType.controller, padSlot: 0, note: controlNumbers.keyPressure + padSlot, velocity: value }) // prettier-ignore
  expect(movedDb([by('keyPressure', 8)], [press(0, 0, 1), strikeAt(0)], [SETTLED])[0]).toBeCloseTo(8, 3)
  const events = [strikeAt(0), press(3000, 1, 1), strikeAt(9000, 127, { padSlot: 1 }), press(14_000, 1, 0.5)]
  const heard = movedDb([by('keyPressure', 8)], events, [8900, 13_900, 18_900])
  ;[0, 8, 4].forEach((db, i) => expect(heard[i]).toBeCloseTo(db, 3))
})

test('before the first strike nothing is moved, and what is let in later goes by the strike before', () => {
  const before = movedDb([by('velocity', 20), by('chance', 9)], [strikeAt(0, 127)], [SETTLED])
  expect(Math.abs(before[0])).toBeLessThanOrEqual(9)
  const quiet = movedDb([by('velocity', 20)], [strikeAt(2000, 127)], [4000])
  expect(quiet[0]).toBeCloseTo(0, 6)
  expect(movedDb([by('velocity', 20, { bypass: true })], [strikeAt(0, 30)], [SETTLED])[0]).toBeCloseTo(0, 6)
})
