import { aTone } from '../kit/builders'
import { createGate } from './gate'
import { measure } from './measure'
import { MID_WARNING_DB, readStereo } from './stereo'

test('left and right are compared, and what cancels in the middle is told', () => {
  const { channels, sampleRateHz } = aTone(4800)
  const [tone] = channels
  const quarter = aTone(4800 + 27).channels[0].subarray(27) // 440 Hz, about a quarter of a period later
  const stereo = (right: Float32Array) => readStereo({ sampleRateHz, channels: [tone, right] })!
  expect(stereo(tone).correlation).toBeCloseTo(1)
  expect(stereo(tone).midLossDb).toBeCloseTo(0)
  expect(stereo(tone.map((x) => -x))).toEqual({ correlation: expect.closeTo(-1, 5), midLossDb: -120 })
  expect(stereo(quarter).correlation).toBeCloseTo(0, 1)
  expect(stereo(quarter).midLossDb).toBeCloseTo(-3, 0)
  expect(stereo(tone.map((x) => -0.5 * x)).midLossDb).toBeLessThan(MID_WARNING_DB)
  expect(stereo(new Float32Array(4800))).toEqual({ correlation: 0, midLossDb: expect.closeTo(-3.01, 1) })
  expect(readStereo({ sampleRateHz, channels: [tone] })).toBeUndefined()
  expect(measure({ sampleRateHz, channels: [new Float32Array(10)] })).toEqual({ peakDb: -200, loudnessDb: -200, windowSeconds: 0.1 })
})

test('the gate opens at its threshold and closes only after staying under the lower one', () => {
  const gate = createGate({ openDb: -20, closeDb: -40, holdSeconds: 0.1 }, 1000)
  const states = [0.05, 0.09, 0.11, 0.05, 0.02, 0.005, 0.02, 0.005, 0.005, 0.5].map((peak) => gate.take(peak, 50))
  expect(states).toEqual(['waiting', 'waiting', 'open', 'open', 'open', 'open', 'open', 'open', 'ended', 'ended'])
})
