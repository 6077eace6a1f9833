/** @jest-environment node */
import { hashAudio, readWav, writeWav } from '@heliaster/core/audio'
import { createGroove, withBead } from '@heliaster/core/groove'
import type { AudioHash, Kit } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'

import { aKitOf, aPad } from '../../testing/a-kit'
import { work } from './ship-work'

jest.mock('comlink', () => ({ transfer: (value: unknown) => value }))
const samples = Float32Array.from({ length: 4800 }, (_, i) => 0.5 * Math.sin(i / 9) * Math.exp(-i / 900))
const bytes = writeWav({ sampleRateHz: 48000, channels: [samples] }, { bits: 24 })
const hash = hashAudio(bytes)

function aKit(): Kit {
  const pad = aPad(2)
  const bands = JSON.parse(JSON.stringify(pad.bands).replaceAll('b'.repeat(64), hash)) as typeof pad.bands
  const kit = aKitOf({ ...pad, bands })
  return { ...kit, name: 'Low Tide', audio: { [hash]: { name: 'oar.wav', sampleRateHz: 48000, frames: 4800, channels: 1 } } }
}
const given = () => new Map<AudioHash, ArrayBuffer>([[hash, bytes.slice().buffer]])

test.each(['sfz', 'wav', 'bundle'] as const)('%s: every file is listed with its size, and the zip holds them', async (form) => {
  const { zip, files, isTooLoud } = await work.write(aKit(), form, given(), 'together')
  expect(files.length).toBeGreaterThan(0)
  expect(files.every(({ path, bytes }) => path.length > 0 && bytes > 0)).toBe(true)
  expect(new Set(files.map(({ path }) => path)).size).toBe(files.length)
  expect(zip.byteLength).toBeGreaterThan(100)
  expect(isTooLoud).toBe(false)
})

test('a groove leaves as stems: the mix and each pad that sounds in it', async () => {
  const kit = aKit()
  const groove = withBead(createGroove(testIds(3), 'Ebb'), kit.pads[0]!.id, 0, 110)
  const options = { by: 'pad', withEffects: true, what: groove.id, laps: 1, sampleRateHz: 48000 } as const
  const { files, zip } = await work.stems({ ...kit, grooves: [groove] }, options, given())
  expect(files.map(({ path }) => path)[0]).toBe('The mix.wav')
  expect(files).toHaveLength(3) // with its pad and what it is
  expect(zip.byteLength).toBeGreaterThan(1000)
})

test('a bundle opens again as it was, its audio to the byte, once only what was asked for', async () => {
  const kit = aKit()
  const { zip } = await work.write(kit, 'bundle', given(), 'together')
  const opened = work.open(zip)
  if (!opened.ok) throw new Error(opened.message)
  expect(opened.kit).toEqual(kit)
  expect(opened.hashes).toEqual([hash])
  expect(new Uint8Array(work.take(hash)!)).toEqual(bytes)
  expect(work.take('c'.repeat(64) as AudioHash)).toBeUndefined()
  work.close()
  expect(work.take(hash)).toBeUndefined()
})

test('a bundle cut anywhere says so or says what is damaged, and never gives other bytes', async () => {
  const { zip } = await work.write(aKit(), 'bundle', given(), 'together')
  for (let part = 1; part < 12; part++) {
    const opened = work.open(zip.slice(0, Math.floor((zip.byteLength * part) / 12)))
    if (!opened.ok) expect(opened.message).toMatch(/^[A-Z].*[.]$/)
    else {
      const taken = work.take(hash)
      if (taken) expect(hashAudio(new Uint8Array(taken))).toBe(hash)
    }
  }
  work.close()
})

test('a hit leaves as it sounds: the WAV of a turn is the clip’s own samples', async () => {
  const { zip, files } = await work.write(aKit(), 'wav', given(), 'together')
  const wavs = files.filter(({ path }) => path.endsWith('.wav'))
  expect(wavs.length).toBeGreaterThanOrEqual(2)
  expect(zip.byteLength).toBeGreaterThan(wavs.reduce((sum, file) => sum + file.bytes, 0) / 20)
  const read = readWav(bytes)
  expect(read.ok && read.file.audio.channels[0].length).toBe(4800)
})

test('audio that is not there leaves the rest, and files that cannot be read stop nothing', async () => {
  const damaged = new Map<AudioHash, ArrayBuffer>([[hash, new ArrayBuffer(9)]])
  for (const audio of [new Map<AudioHash, ArrayBuffer>(), damaged]) {
    const { files } = await work.write(aKit(), 'sfz', audio, 'together')
    expect(files.some(({ path }) => path.endsWith('.sfz'))).toBe(true)
    expect(files.some(({ path }) => path.endsWith('.wav'))).toBe(false)
  }
})
