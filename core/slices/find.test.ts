import { seeded } from '../kit/builders'
import { alikeStretches, strikesWithin } from './find'

const RATE = 44100

/** A loop of two drums and a tick of noise, in a file with silence before it; returns where each begins. */
function aLoop(seed: number) {
  const random = seeded(seed)
  const samples = new Float32Array(4 * RATE)
  const drums = [
    (t: number) => Math.exp(-t / 0.09) * Math.sin(2 * Math.PI * (55 * t + 8 * (1 - Math.exp(-t / 0.02)))),
    (t: number) => Math.exp(-t / 0.05) * (0.5 * Math.sin(2 * Math.PI * 210 * t) + 0.7 * (random() - 0.5)),
    (t: number) => 0.5 * Math.exp(-t / 0.015) * (random() - 0.5),
  ]
  const played = [0, 2, 1, 2, 0, 0, 1, 2].map((drum, i) => ({ drum, frame: RATE + Math.round((0.25 * i + 0.01 * random()) * RATE) }))
  for (const { drum, frame } of played) {
    const level = 0.5 + 0.3 * random()
    for (let i = 0; i < 0.24 * RATE; i++) samples[frame + i] += level * drums[drum](i / RATE)
  }
  for (let i = 0; i < samples.length; i++) samples[i] += 0.0004 * (random() - 0.5)
  return { audio: { sampleRateHz: RATE, channels: [samples] }, played }
}

test('slices begin at the strikes of a stretch, a little before each, and nowhere else', () => {
  for (const seed of [2, 9, 31]) {
    const { audio, played } = aLoop(seed)
    const found = strikesWithin(audio, { startFrame: RATE - 200, endFrame: 3.2 * RATE })
    expect(found).toHaveLength(played.length)
    found.forEach((frame, i) => {
      expect(frame).toBeLessThanOrEqual(played[i].frame)
      expect(played[i].frame - frame).toBeLessThan(0.004 * RATE)
    })
  }
})

test('slices that sound alike are one group, whatever their level', () => {
  for (const seed of [4, 12, 40]) {
    const { audio, played } = aLoop(seed)
    const stretches = played.map(({ frame }, i) => ({ startFrame: frame, endFrame: played[i + 1]?.frame ?? frame + 0.25 * RATE }))
    const groups = alikeStretches(audio, stretches)
    const truth = [0, 2, 1].map((drum) => played.flatMap((one, i) => (one.drum === drum ? [i] : [])))
    expect(groups.map((group) => group.join()).sort()).toEqual(truth.map((group) => group.join()).sort())
  }
})
