import fc from 'fast-check'

import { envelopeSchema } from '../kit'
import type { Envelope } from '../kit'
import {
  backToFront,
  bendThrough,
  copyPoints,
  envelopeAt,
  envelopeStarts,
  fitTo,
  MOST_POINTS,
  movePoints,
  pastePoints,
  removePoints,
  scaleAmount,
  stretchTime,
  upsideDown,
} from '.'
import type { Layer } from '.'

const layers = ['level', 'pitch', 'filter1', 'filter2'] as const
const valueOf = (layer: Layer) =>
  layer === 'pitch' ? fc.integer({ min: -4800, max: 4800 }) : fc.integer({ min: 0, max: 100 }).map((n) => n / 100)
/** Envelopes as hands leave them: points in order, apart, now and then with a waiting point or a round. */
const envelopeOf = (layer: Layer): fc.Arbitrary<Envelope> =>
  fc
    .array(fc.record({ gap: fc.integer({ min: 1, max: 400 }), value: valueOf(layer), bend: fc.integer({ min: -10, max: 10 }) }), { minLength: 1, maxLength: 12 })
    .chain((steps) => {
      let at = 0
      const points = steps.map(({ gap, value, bend }, i) => ({ seconds: (at += i === 0 ? 0 : gap) / 1000, value, bend: bend / 10 }))
      const place = fc.nat(points.length - 1)
      return fc.oneof(
        fc.constant({ points }),
        place.map((sustain) => ({ points, sustain })),
        fc.tuple(place, place).map(([a, b]) => (a === b ? { points } : { points, loop: { from: Math.min(a, b), to: Math.max(a, b) } })),
      )
    }) // prettier-ignore
const work = fc
  .constantFrom(...layers)
  .chain((layer) =>
    fc.record({ layer: fc.constant<Layer>(layer), envelope: envelopeOf(layer), chosen: fc.uniqueArray(fc.nat(11), { maxLength: 6 }) }),
  )
  .map(({ chosen, ...rest }) => ({ ...rest, chosen: chosen.filter((place) => place < rest.envelope.points.length) }))

function whole(envelope: Envelope, layer: Layer): void {
  expect(envelopeSchema.safeParse(envelope).success).toBe(true)
  const places = envelope.points.map(({ seconds }) => seconds)
  expect(places.slice(1).every((seconds, i) => seconds - places[i]! > 0.00005)).toBe(true)
  if (layer !== 'pitch') expect(envelope.points.every(({ value }) => value >= 0 && value <= 1)).toBe(true)
  const most = envelope.points.length - 1
  for (const place of [envelope.sustain, envelope.loop?.from, envelope.loop?.to]) if (place !== undefined) expect(place).toBeLessThanOrEqual(most)
} // prettier-ignore

test('whatever is done to several points, the envelope stays one that the document takes', () => {
  const act = fc.record({
    kind: fc.nat(7),
    amount: fc.double({ min: 0.05, max: 8, noNaN: true }),
    by: fc.double({ min: -1, max: 1, noNaN: true }),
  })
  fc.assert(
    fc.property(work, fc.array(act, { maxLength: 8 }), ({ layer, envelope, chosen }, acts) => {
      let now = envelope
      for (const { kind, amount, by } of acts) {
        const some = chosen.filter((place) => place < now.points.length)
        const next = [
          () => movePoints(now, some, by, by * (layer === 'pitch' ? 2400 : 1), layer),
          () => removePoints(now, some),
          () => stretchTime(now, some, amount),
          () => scaleAmount(now, some, amount, layer),
          () => backToFront(now, some),
          () => upsideDown(now, some, layer),
          () => pastePoints(now, copyPoints(now, some, layer), Math.max(0, by), layer) ?? now,
          () => fitTo(now, amount),
        ][kind]!()
        whole(next, layer)
        expect(next.points.length).toBeGreaterThan(0)
        now = next
      }
    }),
    { numRuns: 400 },
  )
})

test('back to front, the curve is read backward; done twice it is as before', () => {
  fc.assert(
    fc.property(work, fc.double({ min: 0, max: 1, noNaN: true }), ({ envelope }, share) => {
      const last = envelope.points[envelope.points.length - 1]!.seconds
      const turned = backToFront(envelope, [])
      const at = share * last
      const far = Math.abs(envelopeAt(turned, last - at) - envelopeAt(envelope, at))
      expect(far).toBeLessThan(1e-6 * Math.max(1, ...envelope.points.map(({ value }) => Math.abs(value))))
      const again = backToFront(turned, [])
      expect(again.points.map(({ seconds, value }) => [seconds.toFixed(5), value])).toEqual(envelope.points.map(({ seconds, value }) => [seconds.toFixed(5), value])) // prettier-ignore
      expect([again.sustain, again.loop]).toEqual([envelope.sustain, envelope.loop])
    }),
  )
})

test('upside down twice, and stretched there and back, is as before; a copied whole is pasted as it was', () => {
  fc.assert(
    fc.property(work, ({ envelope, layer, chosen }) => {
      const twice = upsideDown(upsideDown(envelope, chosen, layer), chosen, layer)
      twice.points.forEach(({ value }, i) => expect(value).toBeCloseTo(envelope.points[i]!.value, 6))
      const back = stretchTime(stretchTime(envelope, chosen, 4), chosen, 0.25)
      back.points.forEach(({ seconds }, i) => expect(seconds).toBeCloseTo(envelope.points[i]!.seconds, 3))
      const copied = copyPoints(envelope, [], layer)
      expect(pastePoints({ points: [{ seconds: 0, value: 0, bend: 0 }] }, copied, 0.3, layer)).toEqual(envelope)
    }),
  )
})

test('points that are moved together keep their distances, and stop where the first of them must', () => {
  fc.assert(
    fc.property(work, fc.double({ min: -2, max: 2, noNaN: true }), ({ envelope, layer, chosen }, by) => {
      const moved = movePoints(envelope, chosen, by, 0, layer)
      const shifts = chosen.map((place) => moved.points[place]!.seconds - envelope.points[place]!.seconds)
      for (const shift of shifts) expect(Math.abs(shift - shifts[0]!)).toBeLessThan(2.1e-5)
      envelope.points.forEach((point, place) => chosen.includes(place) || expect(moved.points[place]).toEqual(point))
    }),
  )
})

test('what is left of many points keeps its waiting point and its round; one point stays', () => {
  const points = [0, 0.1, 0.2, 0.3].map((seconds) => ({ seconds, value: 0.5, bend: 0 }))
  expect(removePoints({ points, sustain: 3 }, [0, 1]).sustain).toBe(1)
  expect(removePoints({ points, loop: { from: 1, to: 3 } }, [0, 2]).loop).toEqual({ from: 0, to: 1 })
  expect(removePoints({ points }, [0, 1, 2, 3]).points).toEqual([points[0]])
})

test('a way is bent so that it passes where the finger is', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.12, max: 0.88, noNaN: true }), fc.double({ min: 0.12, max: 0.88, noNaN: true }), (share, level) => {
      const falling = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.5, value: 0, bend: 0 }] } // prettier-ignore
      expect(envelopeAt(bendThrough(falling, 1, share * 0.5, level), share * 0.5)).toBeCloseTo(level, 2)
    }),
  )
  const level = { points: [{ seconds: 0, value: 1, bend: 0.3 }, { seconds: 0.5, value: 1, bend: 0.3 }] } // prettier-ignore
  expect(bendThrough(level, 1, 0.2, 0.4)).toBe(level)
  expect(bendThrough(level, 0, 0.2, 0.4)).toBe(level)
})

test('a stretch takes the place of what it lies on, and too many points are refused', () => {
  const at = (places: number[]) => ({ points: places.map((seconds) => ({ seconds, value: seconds, bend: 0 })) })
  const copied = copyPoints(at([0, 0.1, 0.2, 0.3]), [1, 2], 'level')
  expect(pastePoints(at([0, 0.5, 0.55, 0.9]), copied, 0.5, 'level')!.points.map(({ seconds }) => seconds)).toEqual([0, 0.5, 0.6, 0.9])
  const full = at(Array.from({ length: MOST_POINTS }, (_, i) => i / 10))
  expect(pastePoints(full, copied, 0.11, 'level')).toBeUndefined()
})

test('laid from a level onto the pitch and back, all of it is an octave', () => {
  const level: Envelope = { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.1, value: 0.5, bend: 0.2 }] } // prettier-ignore
  const pitch = pastePoints({ points: [] }, copyPoints(level, [], 'level'), 0, 'pitch')!
  expect(pitch.points.map(({ value }) => value)).toEqual([1200, 600])
  expect(pastePoints({ points: [] }, copyPoints(pitch, [], 'pitch'), 0, 'filter1')).toEqual(level)
})

test('every start is an envelope that fits its layer, for the shortest and the longest hit', () => {
  for (const layer of layers)
    for (const { name, make } of envelopeStarts(layer))
      for (const seconds of [0.02, 0.3, 8]) {
        const made = make(seconds)
        whole(made, layer)
        expect([name, made.points[made.points.length - 1]!.seconds <= seconds + 0.005]).toEqual([name, true])
      }
})
