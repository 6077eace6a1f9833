import { readFileSync } from 'node:fs'
import { join } from 'node:path'

import { writeWav } from '../audio/wav-write'
import { formatOf } from './index'
import { readAnyFile as readAudioFile } from './read-any-file'
import { memoryLimitBytes } from './compressed'

const fixture = (ending: string) => new Uint8Array(readFileSync(join(__dirname, 'fixtures', `strike.${ending}`)))
const endings = ['wav', 'aiff', 'flac', 'oga', 'mp3', 'ogg', 'opus', 'webm']
const read = async (bytes: Uint8Array) => {
  const result = await readAudioFile(bytes)
  if (!result.ok) throw new Error(result.message)
  return result.file
}

/** A seeded source of whole numbers below `below`. */
function numbers(seed: number): (below: number) => number {
  let state = seed >>> 0
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return Math.floor((state / 2 ** 32) * below)
  }
}

function damaged(bytes: Uint8Array, seed: number): Uint8Array {
  const next = numbers(seed)
  const copy = bytes.slice(0, next(4) === 0 ? next(bytes.length) : bytes.length)
  // Half of the changes hit the head, where sizes and counts stand.
  for (let i = next(8); i >= 0 && copy.length > 0; i--)
    copy[next(next(2) === 0 ? Math.min(96, copy.length) : copy.length)] = next(4) === 0 ? 255 : next(256)
  return copy
}

test('one strike in eight formats is the same strike', async () => {
  const truth = (await read(fixture('wav'))).audio
  for (const ending of endings) {
    const { audio, format } = await read(fixture(ending))
    const isLossless = ['wav', 'aiff', 'flac', 'oga'].includes(ending)
    expect([ending, audio.sampleRateHz, audio.channels.length]).toEqual([ending, 48000, ending === 'aiff' ? 1 : 2])
    if (isLossless) audio.channels.forEach((channel, i) => expect(channel).toEqual(truth.channels[i]))
    else {
      expect(format).toMatch(/MP3|Vorbis|Opus|WebM/)
      let product = 0
      let energy = 0
      let own = 0
      truth.channels[0].forEach((sample, i) => {
        product += sample * audio.channels[0][i]
        energy += sample ** 2
        own += audio.channels[0][i] ** 2
      })
      expect(product / Math.sqrt(energy * own)).toBeGreaterThan(0.95) // in place and alike: encoder delay is taken off
    }
  }
})

test.each(endings)(
  'no damage to a %s file makes reading throw, hang or fill the memory; there is always a sentence',
  async (ending) => {
    const bytes = fixture(ending)
    const trials = formatOf(bytes) === 'WAV' || formatOf(bytes) === 'AIFF' ? 2500 : 250 // starting a decoder takes its time
    for (let seed = 0; seed < trials; seed++) {
      const file = damaged(bytes, seed)
      const result = await readAudioFile(file)
      if (!result.ok) expect(result.message).toMatch(/^This .{10,}\.$/)
      else {
        const held = result.file.audio.channels.reduce((sum, channel) => sum + channel.byteLength, 0)
        expect(held).toBeLessThanOrEqual(memoryLimitBytes(file.length) * 2)
        expect(result.file.audio.channels.every((channel) => channel.every(Number.isFinite))).toBe(true)
      }
    }
  },
  120_000,
)

test('a size of 4 GB in the head of a file of 1 kB is not believed', async () => {
  const wav = writeWav({ sampleRateHz: 48000, channels: [new Float32Array(480).fill(0.1)] }, { bits: 16 })
  const aiff = fixture('aiff').slice(0, 1000)
  for (const at of [4, 40]) new DataView(wav.buffer).setUint32(at, 0xffffffff, true)
  for (const at of [4, 22]) new DataView(aiff.buffer).setUint32(at, 0xffffffff, false)
  expect((await read(wav)).audio.channels[0].length).toBe(480)
  const { audio, notes } = await read(aiff)
  expect(audio.channels[0].length).toBeLessThan(334)
  expect(notes[0]).toContain('ends early')
})

test('markers, root note and loop of an AIFF file are read', async () => {
  const text = (s: string) => [...s].map((c) => c.charCodeAt(0))
  const u16 = (n: number) => [(n >> 8) & 255, n & 255]
  const u32 = (n: number) => [...u16(n >>> 16), ...u16(n & 0xffff)]
  const chunk = (id: string, body: number[]) => [...text(id), ...u32(body.length), ...body, ...(body.length % 2 ? [0] : [])]
  const mark = (id: number, frame: number, name: string) => [
    ...u16(id),
    ...u32(frame),
    name.length,
    ...text(name),
    ...(name.length % 2 ? [] : [0]),
  ]
  const body = [
    ...text('AIFC'),
    ...chunk('COMM', [...u16(1), ...u32(4), ...u16(16), 0x40, 0x0e, 0xac, 0x44, 0, 0, 0, 0, 0, 0, ...text('sowt'), 0, 0]),
    ...chunk('MARK', [...u16(2), ...mark(1, 1, 'buoy'), ...mark(2, 3, 'out')]),
    ...chunk('INST', [38, 0, 0, 127, 1, 127, 0, 0, 0, 1, ...u16(1), ...u16(2), ...new Array<number>(6).fill(0)]),
    ...chunk('SSND', [...u32(0), ...u32(0), 0, 0x40, 0, 0xc0, 0, 0, 0, 0]),
  ]
  const file = await read(Uint8Array.from([...text('FORM'), ...u32(body.length), ...body]))
  expect(file.audio).toEqual({ sampleRateHz: 44100, channels: [Float32Array.of(0.5, -0.5, 0, 0)] })
  expect(file.cues).toEqual([
    { frame: 1, label: 'buoy' },
    { frame: 3, label: 'out' },
  ])
  expect(file.rootNote).toBe(38)
  expect(file.loops).toEqual([{ startFrame: 1, endFrame: 3 }])
})

test('what is no audio says what it is', async () => {
  const head = (bytes: number[]) => readAudioFile(Uint8Array.from([...bytes, ...new Array<number>(40).fill(0)]))
  for (const [bytes, word] of [
    [[0, 0, 0, 24, 0x66, 0x74, 0x79, 0x70], 'MPEG-4'],
    [[0x50, 0x4b, 3, 4], 'zip'],
    [[0x4d, 0x54, 0x68, 0x64], 'MIDI'],
    [[1, 2, 3, 4], 'not an audio file'],
  ] as const) {
    const result = await head([...bytes])
    expect(!result.ok && result.message).toContain(word)
  }
  expect(formatOf(new Uint8Array())).toBeUndefined()
})

test('a tempo that is written in a file is read, whatever the manner, and nothing is made up', async () => {
  const told = async (name: string) => {
    const result = await readAudioFile(new Uint8Array(readFileSync(join(__dirname, 'fixtures', name))))
    return result.ok ? result.file.told : result.message
  }
  for (const ending of ['mp3', 'flac', 'ogg', 'opus', 'wav'])
    expect([ending, await told(`tempo.${ending}`)]).toEqual([ending, { tempoBpm: 97 }])
  for (const ending of endings) expect([ending, await told(`strike.${ending}`)]).toEqual([ending, {}])
})

test('tempo, beats and root note of a WAV file are read from its chunks; a hit has no tempo', async () => {
  const plain = writeWav(
    { sampleRateHz: 48000, channels: [Float32Array.from({ length: 4800 }, (_, i) => Math.sin(i / 9) / 2)] },
    { bits: 16 },
  )
  const withChunk = (flags: number, root: number, beats: number, tempo: number) => {
    const chunk = new Uint8Array(32)
    const view = new DataView(chunk.buffer)
    chunk.set([...'acid'].map((letter) => letter.charCodeAt(0)))
    view.setUint32(4, 24, true)
    view.setUint32(8, flags, true)
    view.setUint16(12, root, true)
    view.setUint32(20, beats, true)
    view.setFloat32(28, tempo, true)
    return new Uint8Array([...plain, ...chunk])
  }
  const told = async (bytes: Uint8Array) => (await read(bytes)).told
  expect(await told(plain)).toEqual({})
  expect(await told(withChunk(0, 0, 16, 95.5))).toEqual({ tempoBpm: 95.5, beats: 16 })
  expect(await told(withChunk(2, 57, 8, 120))).toEqual({ tempoBpm: 120, beats: 8, rootNote: 57 })
  expect(await told(withChunk(3, 57, 8, 120))).toEqual({ rootNote: 57 })
  expect(await told(withChunk(0, 0, 1e9, 1e9))).toEqual({})
  expect(await told(writeWav({ sampleRateHz: 48000, channels: [new Float32Array(100).fill(0.1)] }, { bits: 16, rootNote: 62 }))).toEqual({
    rootNote: 62,
  })
})

test('where AAC cannot be decoded it is said, and what to do', async () => {
  const result = await readAudioFile(fixture('m4a'))
  expect(result).toEqual({ ok: false, message: expect.stringMatching(/holds AAC, which the command line does not decode\. Import it in the application.*or convert it to WAV/) as string }) // prettier-ignore
})
