import fc from 'fast-check'

import { readWav } from './wav-read'
import { writeWav } from './wav-write'

const audio = (channels: number[][], sampleRateHz = 44100) => ({ sampleRateHz, channels: channels.map((c) => Float32Array.from(c)) })
const read = (bytes: Uint8Array) => {
  const result = readWav(bytes)
  if (!result.ok) throw new Error(result.message)
  return result.file
}
const message = (bytes: Uint8Array) => {
  const result = readWav(bytes)
  return result.ok ? undefined : result.message
}

/** A WAV of any format, laid out by hand. */
function rawWav(tag: number, bits: number, channels: number, data: number[], extensible = false, before: number[] = []): Uint8Array {
  const u16 = (n: number) => [n & 255, (n >> 8) & 255]
  const u32 = (n: number) => [...u16(n & 0xffff), ...u16(n >>> 16)]
  const text = (s: string) => [...s].map((c) => c.charCodeAt(0))
  const head = [...u16(extensible ? 0xfffe : tag), ...u16(channels), ...u32(48000), ...u32(0), ...u16((channels * bits) / 8), ...u16(bits)]
  const fmt = extensible ? [...head, ...u16(22), ...u16(bits), ...u32(3), ...u16(tag), ...new Array<number>(14).fill(0)] : head
  const body = [...text('WAVEfmt '), ...u32(fmt.length), ...fmt, ...before, ...text('data'), ...u32(data.length), ...data]
  return Uint8Array.from([...text('RIFF'), ...u32(body.length), ...body])
}

test('32-bit float comes back bit for bit; integers to within half a step', () => {
  const samples = fc.array(fc.float({ min: -1, max: 1, noNaN: true }), { minLength: 1, maxLength: 40 })
  fc.assert(
    fc.property(samples, fc.constantFrom(16, 24, 32), (values, bits) => {
      const back = read(writeWav(audio([values, values]), { bits: bits as 16 | 24 | 32 })).audio
      const step = bits === 32 ? 0 : 1 / 2 ** (bits - 1)
      expect(back.channels).toHaveLength(2)
      back.channels[1].forEach((sample, i) => expect(Math.abs(sample - Math.fround(values[i]))).toBeLessThanOrEqual(step))
    }),
  )
})

test('integers of every width, float and double are read, plain and extensible', () => {
  const double = [...new Uint8Array(Float64Array.of(0.25, -0.5).buffer)]
  expect([...read(rawWav(1, 8, 1, [128, 192, 0])).audio.channels[0]]).toEqual([0, 0.5, -1])
  expect([...read(rawWav(1, 16, 1, [0, 0x40, 0, 0x80])).audio.channels[0]]).toEqual([0.5, -1])
  expect([...read(rawWav(1, 24, 1, [0, 0, 0x40, 0, 0, 0xc0], true)).audio.channels[0]]).toEqual([0.5, -0.5])
  expect([...read(rawWav(1, 32, 2, [0, 0, 0, 0x40, 0, 0, 0, 0xc0])).audio.channels.map((c) => c[0])]).toEqual([0.5, -0.5])
  expect([...read(rawWav(3, 64, 1, double, true)).audio.channels[0]]).toEqual([0.25, -0.5])
})

test('chunks of odd size are stepped over, with or without their padding byte', () => {
  const odd = [...'note'].map((c) => c.charCodeAt(0)).concat([3, 0, 0, 0, 1, 2, 3])
  expect([...read(rawWav(1, 16, 1, [0, 0x40], false, [...odd, 0])).audio.channels[0]]).toEqual([0.5])
  expect([...read(rawWav(1, 16, 1, [0, 0x40], false, odd)).audio.channels[0]]).toEqual([0.5])
})

test('markers, root note and loop are written and read', () => {
  const file = read(
    writeWav(audio([new Array<number>(100).fill(0.1)]), {
      bits: 16,
      cueFrames: [70, 5],
      rootNote: 48,
      loop: { startFrame: 10, endFrame: 90 },
    }),
  )
  expect(file.cues).toEqual([{ frame: 5 }, { frame: 70 }])
  expect(file.rootNote).toBe(48)
  expect(file.loops).toEqual([{ startFrame: 10, endFrame: 90 }])
})

test('what cannot be read says why, in a sentence', () => {
  const wav = writeWav(audio([[0.1, 0.2, 0.3, 0.4]]), { bits: 16 })
  expect(message(new Uint8Array())).toBe('This file is empty (0 bytes).')
  expect(message(Uint8Array.from([0x66, 0x4c, 0x61, 0x43, 0, 0, 0, 0, 0, 0, 0, 0]))).toContain('not a WAV file')
  expect(message(writeWav(audio([[]]), { bits: 16 }))).toContain('0 frames')
  expect(message(wav.subarray(0, 30))).toContain('no usable format')
  expect(message(rawWav(2, 16, 1, [0, 0]))).toContain('compressed')
  const cut = read(wav.subarray(0, wav.length - 3))
  expect(cut.audio.channels[0].length).toBe(2)
  expect(cut.notes[0]).toContain('ends early')
})

test('sizes of 64 bits are read, and where none is said everything up to the end is', () => {
  const plain = rawWav(1, 16, 1, [0, 0x40, 0, 0xc0])
  const ds64 = [...'ds64']
    .map((c) => c.charCodeAt(0))
    .concat([28, 0, 0, 0, ...new Array<number>(8).fill(0), 4, ...new Array<number>(19).fill(0)])
  const open = (bytes: Uint8Array, head: string, before: number[]) => {
    const made = Uint8Array.from([...bytes.subarray(0, 12), ...before, ...bytes.subarray(12)])
    made.set([...head].map((c) => c.charCodeAt(0)))
    made.fill(0xff, made.length - 8, made.length - 4)
    return Uint8Array.from([...made, 0, 0]) // what follows the data is none of it
  }
  for (const head of ['RF64', 'BW64']) {
    const file = read(open(plain, head, ds64))
    expect([[...file.audio.channels[0]], file.notes]).toEqual([[0.5, -0.5], []])
  }
  const endless = read(open(plain, 'RIFF', []))
  expect([...endless.audio.channels[0]]).toEqual([0.5, -0.5, 0])
  expect(endless.notes[0]).toContain('does not say')
})

test('names of markers are read as UTF-8, or a byte a character where they are not', () => {
  const chunk = (id: string, body: number[]) => [...[...id].map((c) => c.charCodeAt(0)), body.length, 0, 0, 0, ...body]
  const named = (name: number[]) => {
    const cue = chunk('cue ', [1, 0, 0, 0, 7, 0, 0, 0, ...new Array<number>(20).fill(0)])
    const list = chunk('LIST', [...[...'adtl'].map((c) => c.charCodeAt(0)), ...chunk('labl', [7, 0, 0, 0, ...name, 0])])
    return read(rawWav(1, 16, 1, [0, 0x40], false, [...cue, ...list])).cues[0]!.label
  }
  expect(named([...Buffer.from('Bö')])).toBe('Bö')
  expect(named([...Buffer.from('Bö', 'latin1')])).toBe('Bö')
})

test('no damage makes the reader throw, hang or believe a size that is not there', () => {
  const wav = writeWav(audio([new Array<number>(64).fill(0.2)]), { bits: 24, cueFrames: [3], rootNote: 40 })
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(wav.length - 1), fc.nat(255)), { maxLength: 6 }), fc.nat(wav.length), (changes, length) => {
      const damaged = wav.slice(0, length)
      for (const [at, value] of changes) if (at < length) damaged[at] = value
      const result = readWav(damaged)
      if (result.ok) expect(result.file.audio.channels.length * result.file.audio.channels[0].length).toBeLessThanOrEqual(length)
      else expect(result.message).toMatch(/^This .*\.$/)
    }),
    { numRuns: 3000 },
  )
})

test('a broadcast chunk stands before the format, field for field where EBU Tech 3285 puts it, and says when the file begins', () => {
  const audio = { sampleRateHz: 48000, channels: [Float32Array.of(0.5, -0.25, 0.125)] }
  const startFrame = 2 ** 32 + 48000 * 3600
  const bytes = writeWav(audio, {
    bits: 32,
    cueFrames: [1],
    broadcast: { description: 'Slipway, Låg', startFrame, madeAt: new Date(2026, 10, 5, 9, 7, 3) },
  })
  const view = new DataView(bytes.buffer)
  const text = (at: number, length: number) => String.fromCharCode(...bytes.subarray(at, at + length)).replace(/\0+$/, '')
  expect([text(12, 4), view.getUint32(16, true), text(20, 256), text(276, 32), text(340, 10), text(350, 8)]).toEqual(['bext', 602, 'Slipway, L?g', 'Heliaster', '2026-11-05', '09:07:03']) // prettier-ignore
  expect([view.getUint32(358, true), view.getUint32(362, true), view.getUint16(366, true)]).toEqual([48000 * 3600, 1, 1])
  expect(view.getUint32(4, true)).toBe(bytes.length - 8)
  const read = readWav(bytes)
  expect(read.ok && [read.file.startFrame, read.file.cues, [...read.file.audio.channels[0]!]]).toEqual([
    startFrame,
    [{ frame: 1 }],
    [0.5, -0.25, 0.125],
  ])
  const plain = readWav(writeWav(audio, { bits: 32 }))
  expect(plain.ok && plain.file.startFrame).toBeUndefined()
})
