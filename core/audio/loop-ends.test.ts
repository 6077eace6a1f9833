import { seeded } from '../kit/builders'
import { matchLoop, snapLoop } from './loop-ends'

const RATE = 48000
const sine = (hz: number, frames: number) => Float32Array.from({ length: frames }, (_, i) => Math.sin((2 * Math.PI * hz * i) / RATE + 0.3))

test('both ends come to rest where the sound rises through zero, the nearest one; where there is none they stay', () => {
  const samples = sine(437, 20000)
  const random = seeded(31)
  for (let i = 0; i < 50; i++) {
    const given = { startFrame: 500 + Math.floor(5000 * random()), endFrame: 8000 + Math.floor(9000 * random()) }
    const { startFrame, endFrame } = snapLoop([samples], given, 200)
    for (const [at, was] of [
      [startFrame, given.startFrame],
      [endFrame, given.endFrame],
    ]) {
      // prettier-ignore
      expect(samples[at - 1] < 0 && samples[at] >= 0).toBe(true)
      expect(Math.abs(at - was)).toBeLessThanOrEqual(RATE / 437 / 2 + 1)
    }
  }
  expect(snapLoop([new Float32Array(900)], { startFrame: 100, endFrame: 700 }, 50)).toEqual({ startFrame: 100, endFrame: 700 })
})

test('the end is found where the sound comes again, in noise that repeats and in two tones at once', () => {
  const random = seeded(32)
  const part = Float32Array.from({ length: 3217 }, () => random() - 0.5)
  const repeated = new Float32Array(4 * part.length).map((_, i) => part[i % part.length])
  expect(matchLoop([repeated], { startFrame: 1500, endFrame: 1500 + 3217 - 150 }, 400, 300)).toEqual({ startFrame: 1500, endFrame: 4717 })
  const [low, high] = [sine(120, 30000), sine(310, 30000)]
  const both = low.map((sample, i) => sample + 0.5 * high[i])
  const { startFrame, endFrame } = matchLoop([both], { startFrame: 2000, endFrame: 12300 }, 3000, 480)
  expect(((endFrame - startFrame) * 10) / RATE).toBeCloseTo(Math.round(((endFrame - startFrame) * 10) / RATE), 2) // 120 and 310 Hz meet ten times a second
})
