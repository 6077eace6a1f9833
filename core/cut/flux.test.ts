import { seeded } from '../kit/builders'
import { FLUX_PER_SECOND, spectralFlux } from './flux'
import { FLUX_SIGNS, fluxSigns } from './flux-signs'
import { quantile } from './strength'

/** Seconds of a quiet room with a burst of damped noise at each of the given times. */
function room(seconds: number, strikes: readonly number[], rateHz = 48000, gain = 1): Float32Array {
  const random = seeded(7)
  const samples = Float32Array.from({ length: Math.round(seconds * rateHz) }, () => 0.001 * gain * (2 * random() - 1))
  for (const at of strikes)
    for (let i = 0; i < 0.2 * rateHz; i++)
      samples[Math.round(at * rateHz) + i]! += 0.5 * gain * Math.exp(-i / (0.03 * rateHz)) * (2 * random() - 1)
  return samples
}

const highestAt = (flux: Float32Array) => flux.indexOf(Math.max(...flux)) / FLUX_PER_SECOND

test.each([8000, 11025, 22050, 32000, 44100, 48000, 96000])('at %i Hz it is highest where something is struck', (rateHz) => {
  for (const at of [0.53, 1.1, 1.617]) {
    const flux = spectralFlux(room(2.2, [at], rateHz), rateHz)
    expect(flux).toHaveLength(220)
    expect(Math.abs(highestAt(flux) - at)).toBeLessThan(0.025)
    expect(Math.max(...flux)).toBeGreaterThan(10 * quantile(flux, 0.5))
  }
})

test('how loud a recording was made says nothing', () => {
  const [whole, soft] = [1, 0.02].map((gain) => spectralFlux(room(2, [0.5, 1.2], 48000, gain), 48000))
  whole!.forEach((value, i) => expect(soft![i]).toBeCloseTo(value, 3))
})

test('what wavers by a quarter tone hardly rises; what is struck does', () => {
  const rateHz = 48000
  let phase = 0
  const wavering = Float32Array.from({ length: 2 * rateHz }, (_, i) => {
    phase += (2 * Math.PI * 880 * (1 + 0.012 * Math.sin((2 * Math.PI * 6 * i) / rateHz))) / rateHz
    return 0.3 * Math.sin(phase)
  })
  const [quiet, struck] = [[], [1]].map((strikes) => room(2, strikes, rateHz).map((sample, i) => sample + wavering[i]!))
  const inside = (flux: Float32Array) => Math.max(...flux.slice(0.5 * FLUX_PER_SECOND, 1.5 * FLUX_PER_SECOND))
  expect(inside(spectralFlux(struck!, rateHz))).toBeGreaterThan(8 * inside(spectralFlux(quiet!, rateHz)))
})

test('nothing, silence and a single sample have no rise and no number that is none', () => {
  expect(spectralFlux(new Float32Array(0), 48000)).toHaveLength(0)
  expect([...spectralFlux(new Float32Array(48000), 48000)].every((value) => value === 0)).toBe(true)
  for (const length of [1, 2, 479, 480, 481, 961]) expect([...spectralFlux(new Float32Array(length).fill(0.5), 48000)].every(Number.isFinite)).toBe(true)
}) // prettier-ignore

test('signs of a rise: beside the usual peak, over what is about it, and what is higher before and after', () => {
  const flux = new Float32Array(100)
  flux[30] = 20
  flux[36] = 40
  flux[70] = 40
  const signs = fluxSigns(flux)
  const [lone, first] = [signs(70 / FLUX_PER_SECOND), signs(30 / FLUX_PER_SECOND)]
  expect(lone).toHaveLength(FLUX_SIGNS)
  expect(lone[0]).toBeCloseTo(0, 2)
  expect(first[0]).toBeCloseTo(Math.log(0.5), 1)
  expect(lone[2]).toBeCloseTo(Math.log(40), 1)
  // Nothing near the lone one; 60 ms after the first stands one twice as high.
  expect(lone.slice(4, 6).every((sign) => sign === -4)).toBe(true)
  expect(first[9]).toBeCloseTo(Math.log(2), 1)
  expect(signs(5).every(Number.isFinite)).toBe(true)
})
