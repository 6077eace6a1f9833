import fc from 'fast-check'

import { seeded, testIds } from '../kit/builders'
import { applySourceEdit, createSource } from '../kit/source'
import type { Source } from '../kit/source'
import { cutRecording, hitsAt } from './cut'
import { describeHit } from './describe'
import type { Surroundings } from './describe'
import { keptMarker, liveMarkers } from './markers'
import { findOnsets, pickPeaks } from './onsets'
import { pitchOf } from './pitch'
import { strengthCurve } from './strength'
import type { StrengthCurve } from './strength'

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

/** The rule by itself: a peak is higher than what is before it and no lower than what follows; the strongest stays, then what is far enough from all that stay. */
function plainPeaks(strength: readonly number[], waterLine: number, gapHops: number): number[] {
  const peaks = strength.flatMap((here, hop) =>
    here >= waterLine && here > (strength[hop - 1] ?? 0) && here >= (strength[hop + 1] ?? 0) ? [hop] : [],
  )
  const kept: number[] = []
  for (const hop of peaks.sort((a, b) => strength[b] - strength[a] || a - b))
    if (kept.every((other) => Math.abs(hop - other) > gapHops)) kept.push(hop)
  return kept.sort((a, b) => a - b)
}

test('peaks are those of the rule by itself, on any curve, with levels that stand still and peaks at the very gap', () => {
  const curves = fc.array(fc.nat(4).map((level) => level / 4), { minLength: 1, maxLength: 40 }) // prettier-ignore
  fc.assert(
    fc.property(curves, fc.nat(4), fc.nat(6), fc.boolean(), (levels, line, gap, isBetween) => {
      const gapHops = gap + (isBetween ? 0.5 : 0)
      const curve = { strength: Float32Array.from(levels), hopFrames: 32 } as StrengthCurve
      const found = pickPeaks(curve, line / 4, gapHops * 32).map(({ hop }) => hop)
      expect(found).toEqual(plainPeaks(levels, line / 4, gapHops))
    }),
    { numRuns: 500 },
  )
})

test('a file that is hardly longer than a click is one strike from its first loud sample on, were it the very first; a longer one is not', () => {
  const flat = { strength: new Float32Array(10), hopFrames: 32 } as StrengthCurve
  const click = (at: number, length: number, level = 0.5) => new Float32Array(length).fill(level, at, at + 1)
  const found = (mono: Float32Array) => findOnsets(mono, RATE, flat, 0.3, 0.06).map(({ frame }) => frame)
  expect([found(click(0, 4800)), found(click(77, 7200)), found(click(77, 7201)), found(click(77, 4800, 0.0005))]).toEqual([
    [0],
    [77],
    [],
    [],
  ])
})

test('a hit ends where it has died away, or where the next begins, and says what it is like', () => {
  const hits = cutRecording({ sampleRateHz: RATE, channels: [recording(strikes, 3)] }, { waterLine: 0.3, minGapSeconds: 0.06 })
  expect(hits[0].endFrame).toBeLessThanOrEqual(hits[1].startFrame)
  expect(hits[1].endFrame).toBe(hits[2].startFrame)
  expect(hits[4].endFrame / RATE).toBeLessThan(2.4)
  expect(hits[4].pitch?.hz).toBeCloseTo(880, -1)
  expect(hits[4].peakDb).toBeCloseTo(20 * Math.log10(0.8), 0)
})

test('warnings name what is wrong with a hit', () => {
  const of = (samples: Float32Array, around: Partial<Surroundings> = {}) =>
    describeHit({ sampleRateHz: RATE, channels: [samples] }, { noiseDb: -70, dc: 0, hasSecond: false, ...around }).warnings
  const clean = recording([{ seconds: 0, level: 0.6, hz: 300 }], 0.5, 0)
  expect(of(clean)).toEqual([])
  expect(of(clean, { noiseDb: -20 })).toEqual(['nearNoise'])
  expect(of(clean, { dc: 0.02 })).toEqual(['dc'])
  expect(of(clean.subarray(0, 2000))).toContain('cutShort')
  expect(of(clean.map((sample) => Math.max(-1, Math.min(1, sample * 4))))).toContain('clipped')
})

test('a flam is one hit that keeps its second stroke as a mark, and a copy and a stranger among takes are pointed at', () => {
  const takes = [0, 1, 2, 3, 4, 5].map((i) => ({ seconds: 0.5 + i, level: 0.3 + 0.05 * i, hz: 290 + 7 * i }))
  takes[4].hz = 1900 // another thing
  const mono = recording([...takes, { seconds: 1.545, level: 0.3, hz: 297 }], 7)
  mono.copyWithin(Math.round(3.45 * RATE), Math.round(0.45 * RATE), Math.round(1.2 * RATE)) // the fourth is the first again
  const hits = cutRecording({ sampleRateHz: RATE, channels: [mono] }, { waterLine: 0.3, minGapSeconds: 0.1 })
  expect(hits).toHaveLength(6)
  const those = (warning: string) => hits.flatMap((hit, i) => (hit.warnings.includes(warning as never) ? [i] : []))
  expect(those('secondHit')).toEqual([])
  expect(hits.map(({ secondFrames }) => secondFrames.length)).toEqual([0, 1, 0, 0, 0, 0])
  expect(Math.abs(hits[1].secondFrames[0] - 1.545 * RATE)).toBeLessThan(RATE / 1000)
  expect(those('alike')).toEqual([0, 3])
  expect(those('odd')).toEqual([4])
})

test('a strike is found under the ringing of a louder one, and a room that answers 45 dB down is not taken for strikes', () => {
  const mono = recording([{ seconds: 0.5, level: 0.7, hz: 130 }], 3, 0.0003)
  for (let i = 0; i < 0.1 * RATE; i++) {
    const tick = 0.02 * Math.exp(-i / (0.006 * RATE)) * Math.cos((2 * Math.PI * 6100 * i) / RATE)
    mono[Math.round(0.62 * RATE) + i] += tick // 30 dB under the ring it comes into
  }
  const echoed = mono.slice()
  for (let i = Math.round(0.19 * RATE); i < echoed.length; i++) echoed[i] += 0.005 * mono[i - Math.round(0.19 * RATE)]
  const found = findOnsets(echoed, RATE, strengthCurve(echoed, RATE), 0.3, 0.06).map((onset) => onset.frame / RATE)
  expect(found).toHaveLength(2)
  expect(found[0]).toBeCloseTo(0.5, 3)
  expect(found[1]).toBeCloseTo(0.62, 2)
})

test('slices of a grid begin on their frames, reach to the next and are not blamed for it', () => {
  const mono = recording(strikes, 3)
  const audio = { sampleRateHz: RATE, channels: [mono] }
  const frames = [0, 0.6, 1.2, 1.8].map((seconds) => Math.round(seconds * RATE))
  const slices = hitsAt(audio, mono, frames, [], undefined, { snap: 'none', ends: 'next' })
  expect(slices.map((hit) => [hit.startFrame, hit.endFrame])).toEqual(frames.map((frame, i) => [frame, frames[i + 1] ?? mono.length]))
  expect(slices.flatMap((hit) => hit.warnings)).not.toEqual(expect.arrayContaining(['secondHit']))
  expect(hitsAt(audio, mono, frames, [], undefined, { snap: 'none', ends: 'tail' })[0].endFrame).toBeLessThanOrEqual(frames[1])
  expect(hitsAt(audio, mono, frames, [frames[1]]).flatMap((hit) => hit.warnings)).toContain('secondHit')
})

test('a hit that was passed ends no tail before it, unless that is asked for', () => {
  const mono = recording([{ seconds: 0.5, level: 0.7, hz: 130 }, { seconds: 1.5, level: 0.5, hz: 180 }], 2.5) // prettier-ignore
  const audio = { sampleRateHz: RATE, channels: [mono] }
  const frames = [0.5, 0.57, 1.5].map((seconds) => Math.round(seconds * RATE))
  const places = { snap: 'attack' as const, ends: 'tail' as const }
  const ends = (over: number[]) => hitsAt(audio, mono, frames, [], undefined, { ...places, over }).map(({ endFrame }) => endFrame)
  expect(ends([])[0] / RATE).toBeCloseTo(0.57, 2)
  const alone = hitsAt(audio, mono, [frames[0], frames[2]], [], undefined, places)[0].endFrame
  expect(ends([frames[1]])[0]).toBe(alone)
  expect(alone / RATE).toBeGreaterThan(0.7)
  const slices = hitsAt(audio, mono, frames, [], undefined, { snap: 'none', ends: 'next', over: [frames[1]] })
  expect(slices[0].endFrame).toBe(frames[2]) // no hole where a slice was passed
})

test('a recording that begins with silence, exact or with the hiss of a room, has no hit before its first strike', () => {
  const random = seeded(3)
  for (const lead of [0.2, 1])
    for (const hush of [0, 1e-5, 3e-4, 3e-3])
      for (const lean of [0.4, 0.1, 0.03, 0.01]) {
        const samples = new Float32Array((lead + 2) * RATE)
        for (let i = 0; i < samples.length; i++) samples[i] = hush * (random() - 0.5)
        // Strikes that push to one side, as real ones do more or less, so that the mean of all is off the middle.
        for (const at of [lead + 0.01, lead + 0.7, lead + 1.4])
          for (let i = 0; i < 0.3 * RATE; i++)
            samples[Math.round(at * RATE) + i] += 0.5 * Math.exp(-i / (0.03 * RATE)) * (lean + (random() * 2 - 1))
        const hits = cutRecording({ sampleRateHz: RATE, channels: [samples] }, { waterLine: 0.3, minGapSeconds: 0.06 })
        expect([lead, hush, lean, hits.length, hits[0].onsetFrame > lead * RATE]).toEqual([lead, hush, lean, 3, true])
      }
})

test('a sound that is cut off is one strike, not two', () => {
  for (const noise of [0, 0.0005])
    for (const hz of [200, 1000, 5000]) {
      const mono = recording([], 4, noise)
      for (let beep = 0; beep < 4; beep++)
        for (let i = 0; i < 0.07 * RATE; i++)
          mono[Math.round((0.2 + beep) * RATE) + i] += 0.4 * Math.sin((2 * Math.PI * hz * i) / RATE + 0.5)
      expect(findOnsets(mono, RATE, strengthCurve(mono, RATE), 0.3, 0.06)).toHaveLength(4)
    }
})

test('silence, noise, a tone, a dead end or a very low rate give hits or none, never a fault', () => {
  const tone = Float32Array.from({ length: RATE }, (_, i) => 0.4 * Math.sin((2 * Math.PI * 220 * i) / RATE))
  const of = (samples: Float32Array, sampleRateHz = RATE) =>
    cutRecording({ sampleRateHz, channels: [samples] }, { waterLine: 0.3, minGapSeconds: 0.06 })
  expect(of(new Float32Array(0))).toEqual([])
  expect(of(new Float32Array(7))).toEqual([])
  expect(of(tone)).toEqual([]) // it starts in the midst of sound, and nothing is struck
  expect(of(tone.map((sample) => sample + 0.2))).toEqual([])
  expect(of(recording(strikes, 3).subarray(Math.round(0.31 * RATE), Math.round(0.5 * RATE)))).toHaveLength(1) // it starts with its strike
  expect(of(recording(strikes, 3).subarray(0, Math.round(0.32 * RATE)))).toHaveLength(1) // it ends in the midst of a strike
  const slow = recording(strikes, 3)
  expect(
    of(
      Float32Array.from({ length: slow.length / 6 }, (_, i) => slow[i * 6]),
      8000,
    ),
  ).toHaveLength(5)
})

test('pitch of a plain tone is read to a few cents, and noise has none', () => {
  for (const hz of [55, 110, 432, 990]) {
    const tone = Float32Array.from({ length: RATE / 2 }, (_, i) => Math.sin((2 * Math.PI * hz * i) / RATE))
    expect(Math.abs(1200 * Math.log2(pitchOf(tone, RATE)!.hz / hz))).toBeLessThan(8)
  }
  for (const [hz, fall] of [
    [62, 0.4],
    [181, 0.1],
    [640, 0.02],
  ]) {
    const struck = Float32Array.from({ length: RATE / 2 }, () => 0)
    for (const [ratio, level] of [
      [1, 0.5],
      [1.59, 0.3],
      [2.31, 0.25],
    ]) {
      let phase = ratio
      for (let i = 0; i < struck.length; i++) {
        phase += (2 * Math.PI * hz * ratio * (1 + fall * Math.exp(-i / (0.02 * RATE)))) / RATE
        struck[i] += level * Math.exp((-i * ratio) / (0.08 * RATE)) * Math.sin(phase)
      }
    }
    expect(Math.abs(1200 * Math.log2(pitchOf(struck, RATE)!.hz / hz))).toBeLessThan(10)
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

test('a tick of a few milliseconds is a strike, alone and beside others', () => {
  const mono = recording(strikes, 4)
  const random = seeded(8)
  const ticks = [0.1, 0.9, 2.4, 3.1, 3.2]
  for (const at of ticks)
    for (let i = 0; i < 0.012 * RATE; i++) mono[Math.round(at * RATE) + i] += 0.1 * Math.exp(-i / (0.002 * RATE)) * (2 * random() - 1)
  const found = findOnsets(mono, RATE, strengthCurve(mono, RATE), 0.3, 0.06).map((onset) => onset.frame / RATE)
  expect(found).toHaveLength(strikes.length + ticks.length)
  for (const at of ticks) expect(found.some((seconds) => Math.abs(seconds - at) < 0.0005)).toBe(true)
})

test('a strike under a louder one that still rings begins on its own first frame', () => {
  for (const [hz, level] of [
    [1900, 0.05],
    [700, 0.1],
    [3100, 0.03],
  ]) {
    // prettier-ignore
    const mono = recording([{ seconds: 0.5, level: 0.7, hz: 110 }, { seconds: 0.56, level, hz }], 2, 0.0003) // prettier-ignore
    const found = findOnsets(mono, RATE, strengthCurve(mono, RATE), 0.3, 0.04)
    expect(found).toHaveLength(2)
    expect(Math.abs(found[1].frame - 0.56 * RATE)).toBeLessThan(0.0004 * RATE)
  }
})

test('a tail is kept into the noise of the room, and where strikes ring into each other, up to the next one', () => {
  const noise = 0.001
  const seconds = 0.08 * Math.log(0.5 / noise) // until the tail is under the noise
  const tail = (mono: Float32Array, at: number) => {
    for (let i = 0; i < 2 * RATE && at * RATE + i < mono.length; i++)
      mono[Math.round(at * RATE) + i] += 0.5 * Math.exp(-i / (0.08 * RATE)) * Math.sin((2 * Math.PI * 90 * i) / RATE)
  }
  const alone = recording([], 6, noise)
  for (const at of [1, 3]) tail(alone, at)
  const settings = { waterLine: 0.3, minGapSeconds: 0.06 }
  for (const hit of cutRecording({ sampleRateHz: RATE, channels: [alone] }, settings)) {
    expect((hit.endFrame - hit.onsetFrame) / RATE).toBeGreaterThan(seconds)
    // Its own band holds a hundredth of the noise, and a little of the room is left behind it.
    expect((hit.endFrame - hit.onsetFrame) / RATE).toBeLessThan(seconds + 0.08 * Math.log(10) + 0.13)
  }
  const ringing = recording([], 8, noise)
  for (let at = 0.3; at < 7.5; at += 0.35) tail(ringing, at)
  const hits = cutRecording({ sampleRateHz: RATE, channels: [ringing] }, settings)
  expect(hits).toHaveLength(21)
  hits.slice(0, -1).forEach((hit, i) => expect(hit.endFrame).toBe(hits[i + 1].startFrame))
})

test('DC, one dead channel, channels that cancel and a file that is all strike give the hits that are heard', () => {
  const mono = recording(strikes, 3)
  const frames = (channels: Float32Array[]) =>
    cutRecording({ sampleRateHz: RATE, channels }, { waterLine: 0.3, minGapSeconds: 0.06 }).map(({ onsetFrame }) => onsetFrame)
  const found = frames([mono])
  expect(found).toHaveLength(strikes.length)
  expect(frames([mono.map((sample) => sample + 0.25)])).toEqual(found)
  expect(frames([new Float32Array(mono.length), mono])).toEqual(found)
  expect(frames([mono, mono.map((sample) => -sample)])).toEqual(found)
  const tick = mono.subarray(Math.round(strikes[0].seconds * RATE)).subarray(0, 400)
  expect(frames([tick])).toEqual([0])
  expect(cutRecording({ sampleRateHz: RATE, channels: [tick] }, { waterLine: 0.3, minGapSeconds: 0.06 })[0].warnings).toEqual(['cutShort'])
  const offset = cutRecording({ sampleRateHz: RATE, channels: [mono.map((sample) => sample + 0.25)] }, { waterLine: 0.3, minGapSeconds: 0.06 }) // prettier-ignore
  expect(offset.map(({ warnings }) => warnings.filter((one) => one === 'dc' || one === 'cutShort'))).toEqual(offset.map(() => ['dc'])) // prettier-ignore
})
