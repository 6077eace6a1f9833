/** @jest-environment node */
import 'fake-indexeddb/auto'

import { hashAudio, readWav } from '@heliaster/core/audio'
import { encodeFrames, wavHeader } from '@heliaster/core/record'
import { seeded } from '@heliaster/core/kit/testing'

import { localDb } from '../../sync/local-db'
import { keepJournal } from './keep-journal'

const chance = seeded(11)
const noise = (frames: number) => Float32Array.from({ length: frames }, () => chance() * 1.9 - 0.95)

/** A journal as it lies on the disk when its page goes away: a head that counts nothing, frames, and a part of one. */
function journal(channels: readonly Float32Array[], bits: 24 | 32, torn = 0): Blob {
  const form = { sampleRateHz: 44100, channels: channels.length, bits }
  return new Blob([wavHeader(form, 0), encodeFrames(channels, bits), new Uint8Array(torn)])
}

async function stored(hash: string): Promise<Uint8Array<ArrayBuffer>> {
  const kept = await (await localDb()).get('audio', hash)
  return new Uint8Array(await (kept!.bytes as Blob).arrayBuffer())
}

test.each([24, 32] as const)('%d bits: frames come out as they went in, a torn frame is left off, the hash is that of the bytes', async (bits) => {
  for (let round = 0; round < 8; round++) {
    const frames = 1 + Math.floor(chance() * 3000)
    const channels = Array.from({ length: 1 + (round % 2) }, () => noise(frames))
    const torn = Math.floor(chance() * ((channels.length * bits) / 8))
    const { hash, info } = await keepJournal(journal(channels, bits, torn), 'quay.wav')
    expect(info).toEqual({ name: 'quay.wav', sampleRateHz: 44100, frames, channels: channels.length })
    const bytes = await stored(hash)
    expect(hashAudio(bytes)).toBe(hash)
    const read = readWav(bytes)
    if (!read.ok) throw new Error(read.message)
    read.file.audio.channels.forEach((channel, side) => {
      expect(channel).toHaveLength(frames)
      for (let i = 0; i < frames; i += 97) expect(channel[i]).toBeCloseTo(channels[side][i], bits === 24 ? 6 : 7)
    })
  }
}) // prettier-ignore

test('two sides that never differ become one, whatever the length; a single differing frame keeps both', async () => {
  const side = noise((1 << 19) + 500) // longer than one piece is read
  const same = await keepJournal(journal([side, side], 24), 'one.wav')
  expect(same.info.channels).toBe(1)
  const other = side.slice()
  other[other.length - 3] += 0.01
  const both = await keepJournal(journal([side, other], 24), 'two.wav')
  expect([both.info.channels, both.info.frames]).toEqual([2, side.length])
  expect(both.hash).not.toBe(same.hash)
})

test('a file without a head is refused in a sentence and nothing is stored', async () => {
  const count = async () => (await (await localDb()).getAllKeys('audio')).length
  const before = await count()
  await expect(keepJournal(new Blob([new Uint8Array(200)]), 'x.wav')).rejects.toThrow('no readable head')
  expect(await count()).toBe(before)
})
