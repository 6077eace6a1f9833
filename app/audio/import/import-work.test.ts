/** @jest-environment node */
import 'fake-indexeddb/auto'

import { writeWav } from '@heliaster/core/audio'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'

import { localDb } from '../../sync/local-db'
import { work } from './import-work'
import type { TakenFile } from './import-work'

const fixture = (ending: string) =>
  new Blob([readFileSync(join(__dirname, '../../../core/decode/fixtures', `strike.${ending}`)) as Uint8Array<ArrayBuffer>])

async function taken(bytes: Blob, name: string): Promise<TakenFile> {
  const result = await work.take(bytes, name)
  if (!result.ok) throw new Error(result.reason)
  return result
}

const storedNames = async () => (await (await localDb()).getAll('audio')).map(({ name }) => name)

test('a file is kept as it came, under the hash of its bytes, with its picture and what was measured', async () => {
  const { hash, info, measured, family } = await taken(fixture('wav'), 'strike.wav')
  expect(hash).toMatch(/^[0-9a-f]{64}$/)
  expect(info).toMatchObject({ name: 'strike.wav', sampleRateHz: 48000, channels: 2 })
  expect(info.derivedFrom).toBeUndefined()
  expect(measured.loudnessDb).toBeLessThan(0)
  expect(family).not.toBe('')
  const db = await localDb()
  const kept = await db.get('audio', hash)
  expect([kept?.name, kept?.uploaded]).toEqual(['strike.wav', 0])
  expect((await db.get('pictures', hash))?.low).toHaveLength(64)
})

test('what hosts may decode differently is decoded once; the original stays beside its samples', async () => {
  const { hash, info, notes } = await taken(fixture('webm'), 'strike.webm')
  expect(info.name).toBe('strike.wav')
  expect(info.derivedFrom).toMatch(/^[0-9a-f]{64}$/)
  expect(info.derivedFrom).not.toBe(hash)
  expect(notes.join()).toContain('decoded once, from ')
  expect(await storedNames()).toEqual(expect.arrayContaining(['strike.webm', 'strike.wav']))
})

test('a name that says another format than the bytes is told, and nothing is refused for it', async () => {
  const { notes } = await taken(fixture('flac'), 'strike.xyz')
  expect(notes).toContain('This is FLAC, whatever its name says.')
})

test('what a file says of its tempo is told', async () => {
  const bytes = readFileSync(join(__dirname, '../../../core/decode/fixtures/tempo.wav')) as Uint8Array<ArrayBuffer>
  const { told, notes } = await taken(new Blob([bytes]), 'tempo.wav')
  expect(told.tempoBpm).toBeGreaterThan(0)
  expect(notes.join()).toContain(`${told.tempoBpm} beats a minute`)
})

test('a recording of many things has no family, a hit has one', async () => {
  const audio = (seconds: number) => ({
    sampleRateHz: 8000,
    channels: [Float32Array.from({ length: 8000 * seconds }, (_, i) => Math.sin(i) * Math.exp(-i / 800))],
  })
  const blob = (seconds: number) => new Blob([writeWav(audio(seconds), { bits: 16 })])
  expect((await taken(blob(7), 'walk.wav')).family).toBe('other')
  const one = await taken(blob(1), 'one kick.wav')
  expect([one.info.frames, one.family]).toEqual([8000, 'kick'])
})

test('what is no audio, or can no longer be read, says so and leaves nothing behind', async () => {
  const before = (await storedNames()).length
  const none = await work.take(new Blob(['these are words']), 'notes.txt')
  expect(none).toEqual({ ok: false, reason: expect.stringMatching(/\w+\.$/) })
  const gone = { arrayBuffer: () => Promise.reject(new Error('gone')) } as unknown as Blob
  expect(await work.take(gone, 'gone.wav')).toEqual({ ok: false, reason: expect.stringContaining('Choose it again') })
  expect(await storedNames()).toHaveLength(before)
})
