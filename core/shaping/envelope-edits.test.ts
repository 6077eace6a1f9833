import type { Envelope } from '../kit'
import { seeded } from '../kit/testing'

import { addPoint, clipEndSeconds, movePoint, newEnvelope, removePoint, typeTime, typeValue } from '.'

const point = (seconds: number, value: number) => ({ seconds, value, bend: 0 })
const envelope: Envelope = { points: [point(0, 1), point(0.07, 0.5), point(0.2, 0)] }
const times = ({ points }: Envelope) => points.map(({ seconds }) => seconds)

test('a round stays between its points when others come and go, and ends with either of them', () => {
  const points = [0, 0.1, 0.2, 0.3].map((seconds) => ({ seconds, value: 0.5, bend: 0 }))
  const envelope = { points, loop: { from: 1, to: 3 } }
  expect(addPoint(envelope, 0.05, 1, 'level')[0].loop).toEqual({ from: 2, to: 4 })
  expect(removePoint(envelope, 0).loop).toEqual({ from: 0, to: 2 })
  expect(removePoint(envelope, 2).loop).toEqual({ from: 1, to: 2 })
  expect(removePoint(envelope, 3).loop).toBeUndefined()
})

test('a typed time is taken as it is and moves the points after it along', () => {
  expect(typeTime(envelope, 1, 3.5)).toEqual({ envelope: { points: [point(0, 1), point(3.5, 0.5), point(3.63, 0)] } })
  expect(times(typeTime(envelope, 1, 0.02).envelope)).toEqual([0, 0.02, 0.15])
  expect(times(typeTime(envelope, 2, 0.5).envelope)).toEqual([0, 0.07, 0.5])
})

test('what cannot be taken as typed is said', () => {
  const early = typeTime(envelope, 2, 0.01)
  expect(times(early.envelope)).toEqual([0, 0.07, 0.0701])
  expect(early.words).toMatch(/Point 2 is at 70 ms; point 3 stands just behind it/)
  expect(typeTime(envelope, 0, -1).words).toMatch(/begins with its strike/)
  expect(typeTime(envelope, 2, 9999).words).toMatch(/an hour at most/)
  expect(typeValue(envelope, 1, 2, 'level')).toMatchObject({ words: expect.stringMatching(/0 to 100 %, so it stands at 100 %/) as string })
  expect(typeValue(envelope, 1, 0.8, 'level').words).toBeUndefined()
  expect(typeValue({ points: [point(0, 0)] }, 0, 20000, 'pitch').words).toMatch(/ten octaves/)
})

test('whatever is dragged, added and typed, points run forward and none stands on another', () => {
  const random = seeded(5)
  let now = envelope
  for (let i = 0; i < 400; i++) {
    const index = Math.floor(random() * now.points.length)
    const what = random()
    if (what < 0.4) now = movePoint(now, index, random() * 2, random(), 'level')
    else if (what < 0.7) now = typeTime(now, index, random() * 3 - 0.5).envelope
    else if (what < 0.9 || now.points.length > 30) now = typeValue(now, index, random() * 3 - 1, 'level').envelope
    else [now] = addPoint(now, random() * 2, random(), 'level')
    const gaps = times(now).slice(1).map((seconds, k) => seconds - now.points[k].seconds) // prettier-ignore
    expect([i, gaps.every((gap) => gap > 0.00005)]).toEqual([i, true])
    expect(now.points.every(({ seconds, value }) => seconds >= 0 && seconds <= 3600 && value >= 0 && value <= 1)).toBe(true)
  }
})

test('a clip ends earlier when it is read faster, by tuning or by its pitch envelope', () => {
  const none = { points: [] }
  expect(clipEndSeconds(none, 0.2, 0, 1.2)).toBeCloseTo(1)
  expect(clipEndSeconds(none, 0, 1200, 1)).toBeCloseTo(0.5)
  expect(clipEndSeconds({ points: [point(0, 1200), point(5, 1200)] }, 0, 0, 1)).toBeCloseTo(0.5, 2)
  expect(clipEndSeconds({ points: [point(0, 1200), point(0.25, 0)] }, 0, 0, 1)).toBeGreaterThan(0.6)
})

test('a new envelope spans the hit, its points keep their order in time, and sustain follows its point', () => {
  const envelope = newEnvelope('level', 0.48)
  expect(envelope.points[2].seconds).toBeCloseTo(0.48)
  expect(movePoint(envelope, 1, 9, 4, 'level').points[1]).toMatchObject({ seconds: envelope.points[2].seconds - 0.0001, value: 1 }) // just before the next, which can still be taken
  const [grown, index] = addPoint({ ...envelope, sustain: 1 }, 0.01, 0.9, 'level')
  expect([index, grown.sustain]).toEqual([1, 2])
  expect(removePoint(grown, 1).sustain).toBe(1)
  expect(removePoint(grown, 2).sustain).toBeUndefined()
})
