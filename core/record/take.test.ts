import fc from 'fast-check'

import { readWav } from '../audio/wav-read'
import { createTake } from './take'
import type { TakeSettings } from './take'
import { encodeFrames, firstSide, HEADER_BYTES, sidesAlike, wavHeader, wholeFrames } from './wav-stream'
import type { WavForm } from './wav-stream'

const RATE = 1000
const plain: TakeSettings = { sampleRateHz: RATE, channels: 'mono', bits: 32, preRollSeconds: 0.1 }

/** A sink that is the file as the disk would have it. */
function aFile() {
  let form: WavForm | undefined
  const parts: Uint8Array[] = []
  const sink = { open: (given: WavForm) => void (form = given), write: (bytes: Uint8Array) => void parts.push(bytes) }
  const bytes = (frames: number, cutBytes = 0) => {
    const all = Uint8Array.from([...wavHeader(form!, frames), ...parts.flatMap((part) => [...part])])
    return all.subarray(0, all.length - cutBytes)
  }
  const samples = (channel = 0) => {
    const result = readWav(bytes(0))
    return result.ok ? [...result.file.audio.channels[channel]] : []
  }
  return { sink, bytes, samples, form: () => form }
}

/** Frame n holds the number n / 2^20, so that every frame can be told from every other. */
const numbered = (from: number, count: number) => Float32Array.from({ length: count }, (_, i) => (from + i) / 1048576)
const numbers = (from: number, count: number) => [...numbered(from, count)]

test('whatever the pieces, every frame from the pre-roll on is there once and in its place', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 90 }), { minLength: 4, maxLength: 30 }), fc.nat(400), (sizes, press) => {
      const file = aFile()
      const take = createTake(plain, file.sink)
      let at = 7
      let begun = false
      for (const size of sizes) {
        if (!begun && at >= press) {
          take.begin(at)
          begun = true
        }
        take.piece(at, [numbered(at, size)])
        at += size
      }
      if (!begun) return
      const written = file.samples()
      const first = Math.round(written[0] * 1048576)
      expect(written).toEqual(numbers(first, at - first))
      expect([take.frames, take.lostFrames, take.startFrame]).toEqual([at - first, 0, first])
      expect(first).toBeLessThanOrEqual(Math.max(7, press))
    }),
  )
})

test('the second before the press is kept to the frame, or as much of it as was heard', () => {
  const press = (heardFrom: number, at: number) => {
    const file = aFile()
    const take = createTake(plain, file.sink)
    for (let frame = heardFrom; frame < at; frame += 32) take.piece(frame, [numbered(frame, 32)])
    expect(take.startFrame).toBeUndefined()
    take.begin(at)
    expect(take.startFrame).toBe(Math.round(file.samples()[0] * 1048576))
    return file.samples()
  }
  expect(press(0, 320)).toEqual(numbers(220, 100))
  expect(press(256, 320)).toEqual(numbers(256, 64))
})

test('what never arrived is silence, counted, and what follows keeps its place', () => {
  const file = aFile()
  const take = createTake(plain, file.sink)
  take.begin(0)
  take.piece(0, [numbered(0, 10)])
  take.piece(15, [numbered(15, 5)])
  take.piece(18, [numbered(18, 4)]) // two of these were there already
  expect(file.samples()).toEqual([...numbers(0, 10), 0, 0, 0, 0, 0, ...numbers(15, 7)])
  expect(take.lostFrames).toBe(5)
})

test('channels: mean, one side, both; a microphone that loses a channel keeps the form of the file', () => {
  const [left, right] = [numbered(0, 8), numbered(100, 8)]
  const record = (channels: TakeSettings['channels'], pieces: Float32Array[][]) => {
    const file = aFile()
    const take = createTake({ ...plain, channels }, file.sink)
    take.begin(0)
    pieces.forEach((piece, i) => take.piece(i * 8, piece))
    return file
  }
  expect(record('mono', [[left, right]]).samples()).toEqual(numbers(50, 8))
  expect(record('right', [[left, right]]).samples()).toEqual([...right])
  expect(record('right', [[left]]).samples()).toEqual([...left])
  const both = record('stereo', [[left, right], [left]])
  expect(both.form()?.channels).toBe(2)
  expect(both.samples(1)).toEqual([...right, ...left])
})

test('it waits for sound with its pre-roll, and ends after silence', () => {
  const file = aFile()
  const gate = { openDb: -20, closeDb: -30, holdSeconds: 0.1 }
  const take = createTake({ ...plain, gate }, file.sink)
  take.begin(0)
  const level = (value: number) => new Float32Array(50).fill(value)
  const states = [0.01, 0.02, 0.03, 0.5, 0.01, 0.2, 0.01, 0.01, 0.3].map((value, i) => {
    take.piece(i * 50, [level(value)])
    return take.state
  })
  expect(states).toEqual(['waiting', 'waiting', 'waiting', 'running', 'running', 'running', 'running', 'ended', 'ended'])
  expect(file.samples().filter((_, i) => i % 50 === 0)).toEqual([0.03, 0.5, 0.01, 0.2, 0.01, 0.01].map(Math.fround))
})

test('a file cut off anywhere still reads, up to its last whole frame', () => {
  const file = aFile()
  const take = createTake({ ...plain, channels: 'stereo', bits: 24 }, file.sink)
  take.begin(0)
  take.piece(0, [numbered(0, 50), numbered(100, 50)])
  for (const cut of [0, 1, 5, 6, 100]) {
    const bytes = file.bytes(0, cut)
    const result = readWav(bytes)
    const frames = wholeFrames(file.form()!, bytes.length)
    expect(frames).toBe(Math.floor((300 - cut) / 6))
    expect(result.ok && result.file.audio.channels[1].length).toBe(frames)
  }
  expect(HEADER_BYTES).toBe(wavHeader(file.form()!, 3).length)
})

test('two equal channels are seen to be one', () => {
  const [left, right] = [numbered(0, 8), numbered(100, 8)]
  for (const bits of [24, 32] as const) {
    const form = { sampleRateHz: RATE, channels: 2, bits }
    expect(sidesAlike(encodeFrames([left, right], bits), form)).toBe(false)
    expect(sidesAlike(encodeFrames([left, left], bits), form)).toBe(true)
    expect(firstSide(encodeFrames([left, right], bits), form)).toEqual(encodeFrames([left], bits))
  }
})
