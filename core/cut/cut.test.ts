import { seeded, testIds } from '../kit/builders'
import { applySourceEdit, createSource } from '../kit/source'
import type { Source } from '../kit/source'
import { cutRecording } from './cut'
import { describeHit } from './describe'
import { keptMarker, liveMarkers } from './markers'
import { findOnsets, pickPeaks } from './onsets'
import { pitchOf } from './pitch'
import { strengthCurve } from './strength'

const RATE = 48000

/** Noise of a quiet room with damped tones struck into it; each strike begins on the very frame given. */
function recording(strikes: { seconds: number; level: number; hz: number }[], seconds: number, noise = 0.0008): Float32Array {
  const random = seeded(5)
  const samples = Float32Array.from({ length: seconds * RATE }, () => noise * (random() * 2 - 1))
  for (const { seconds: at, level, hz } of strikes)
    for (let i = 0; i < 0.3 * RATE; i++) {
      const frame = Math.round(at * RATE) + i
      if (frame < samples.length) samples[frame] += level * Math.exp(-i / (0.04 * RATE)) * Math.cos((2 * Math.PI * hz * i) / RATE)
    }
  return samples
}

const strikes = [0.31, 0.55, 0.67, 1.2, 1.9].map((seconds, i) => ({ seconds, level: [0.6, 0.05, 0.4, 0.02, 0.8][i], hz: 200 + 170 * i }))

test('strikes loud and soft are found within a quarter of a millisecond of their first frame', () => {
  const mono = recording(strikes, 3)
  const onsets = findOnsets(mono, RATE, strengthCurve(mono, RATE), 0.3, 0.06)
  expect(onsets).toHaveLength(strikes.length)
  onsets.forEach((onset, i) => expect(Math.abs(onset.frame - strikes[i].seconds * RATE)).toBeLessThan(12))
})

test('silence and steady noise hold no strikes', () => {
  expect(pickPeaks(strengthCurve(new Float32Array(RATE), RATE), 0.05, 100)).toEqual([])
  const hiss = recording([], 2, 0.2)
  expect(findOnsets(hiss, RATE, strengthCurve(hiss, RATE), 0.3, 0.06)).toEqual([])
})

test('raising the water line only ever takes hits away', () => {
  const mono = recording(strikes, 3)
  const curve = strengthCurve(mono, RATE)
  let before = new Set(pickPeaks(curve, 0.02, 0).map((peak) => peak.hop))
  for (let line = 0.05; line <= 1; line += 0.05) {
    const now = pickPeaks(curve, line, 0).map((peak) => peak.hop)
    expect(now.every((hop) => before.has(hop))).toBe(true)
    before = new Set(now)
  }
})

test('a hit ends where it has died away, or where the next begins, and says what it is like', () => {
  const hits = cutRecording({ sampleRateHz: RATE, channels: [recording(strikes, 3)] }, 0.3, 0.06)
  expect(hits[0].endFrame).toBeLessThanOrEqual(hits[1].startFrame)
  expect(hits[1].endFrame).toBe(hits[2].startFrame)
  expect(hits[4].endFrame / RATE).toBeLessThan(2.4)
  expect(hits[4].pitch?.hz).toBeCloseTo(880, -1)
  expect(hits[4].peakDb).toBeCloseTo(20 * Math.log10(0.8), 0)
})

test('warnings name what is wrong with a hit', () => {
  const of = (samples: Float32Array, noiseDb = -70) => describeHit({ sampleRateHz: RATE, channels: [samples] }, noiseDb).warnings
  const clean = recording([{ seconds: 0, level: 0.6, hz: 300 }], 0.5, 0)
  expect(of(clean)).toEqual([])
  expect(of(clean, -20)).toEqual(['nearNoise'])
  expect(of(clean.subarray(0, 2000))).toContain('cutShort')
  expect(of(clean.map((sample) => Math.max(-1, Math.min(1, sample * 4))))).toContain('clipped')
  const two = [0, 0.1].map((seconds) => ({ seconds, level: 0.5, hz: 300 }))
  expect(of(recording(two, 0.6, 0))).toContain('secondHit')
})

test('pitch of a plain tone is read to a few cents, and noise has none', () => {
  for (const hz of [55, 110, 432, 990]) {
    const tone = Float32Array.from({ length: RATE / 2 }, (_, i) => Math.sin((2 * Math.PI * hz * i) / RATE))
    expect(Math.abs(1200 * Math.log2(pitchOf(tone, RATE)!.hz / hz))).toBeLessThan(8)
  }
  const random = seeded(1)
  expect(
    pitchOf(
      Float32Array.from({ length: RATE / 2 }, () => random() * 2 - 1),
      RATE,
    ),
  ).toBeUndefined()
})

test('touched markers stay whatever the water does, and a removed one stays removed', () => {
  const info = { name: 'r.wav', sampleRateHz: RATE, frames: 3 * RATE, channels: 1 }
  let source: Source = createSource(testIds(), 'a'.repeat(64) as never, info, 'r')
  const mono = recording(strikes, 3)
  const curve = strengthCurve(mono, RATE)
  const at = (line: number) => liveMarkers(source, findOnsets(mono, RATE, curve, line, 0.06))
  const [first, second] = at(0.3)
  const markers = [keptMarker(first, { pinned: true }), keptMarker(second, { removed: true })]
  source = applySourceEdit(source, { type: 'putMarkers', markers })
  expect(at(0.3)).toHaveLength(4)
  expect(at(1).map((marker) => [marker.frame, marker.pinned])).toContainEqual([first.frame, true])
  expect(at(0.05).some((marker) => Math.abs(marker.frame - second.frame) < 200)).toBe(false)
})
