import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'

import { hashAudio } from '../audio/hash'
import { readWav } from '../audio/wav-read'
import { writeWav } from '../audio/wav-write'
import { aKit, anImpulse, aTone } from '../kit/builders'
import type { AudioHash } from '../kit/ids'
import type { Kit } from '../kit/kit'
import { createBus, createKit, createPad } from '../kit/make'
import { testIds } from '../kit/testing'
import { bundleFiles, readAll, readBundle, writeBundle } from './bundle'
import { checkKit } from './check'
import { writeOneShots } from './one-shots'
import { writeSfz } from './sfz/write-sfz'
import { zipFiles } from './zip'

/** A kit of two tied pads over one real file. */
function shipRig() {
  const tone = aTone(2000, 0.5)
  const bytes = writeWav(tone, { bits: 32 })
  const hash = hashAudio(bytes)
  const rig = aKit([
    { own: { name: 'Hull: thump/low', pick: 'cycle', values: { gainDb: -3 } }, bands: [[tone, tone], [tone]] },
    { own: { name: 'Hull: thump/low' }, bands: [[tone]] },
  ])
  const text = JSON.stringify(rig.kit).replace(/"audio":"[0-9a-f]{64}"/g, `"audio":"${hash}"`)
  const kit: Kit = { ...(JSON.parse(text) as Kit), audio: { [hash]: { name: 'tone.wav', sampleRateHz: 48000, frames: 2000, channels: 1 } } }
  kit.ties = [{ kind: 'chokeGroup', id: 'tie' as never, name: 'hull', pads: kit.pads.map((pad) => pad.id), fadeSeconds: 0.004 }]
  const audioOf = (wanted: AudioHash) => (wanted === hash ? tone : undefined)
  return { kit, hash, bytes, audioOf, tone }
}

test('a bundle opens again as it was, audio bytes and all, and the same kit gives the same bytes', () => {
  const { kit, hash, bytes } = shipRig()
  const zip = writeBundle(kit, () => bytes)
  expect(writeBundle(kit, () => bytes)).toEqual(zip)
  const opened = readBundle(zip)
  if (!opened.ok) throw new Error(opened.message)
  expect(opened.bundle.kit).toEqual(kit)
  expect(opened.bundle.hashes).toEqual([hash])
  expect(opened.bundle.read(hash)).toEqual(bytes)
  expect(readAll(opened.bundle).missing).toEqual([])
})

test('what was decoded once goes into the bundle with its original beside it, and opens without it', () => {
  const { kit, hash, bytes } = shipRig()
  const original = strToU8('....ftyp as a telephone wrote it')
  const from = hashAudio(original)
  const decoded: Kit = { ...kit, audio: { ...kit.audio, [hash]: { ...kit.audio[hash], derivedFrom: from } } }
  const opened = readBundle(writeBundle(decoded, (wanted) => (wanted === from ? original : bytes)))
  if (!opened.ok) throw new Error(opened.message)
  expect([opened.bundle.hashes, opened.bundle.read(from)]).toEqual([[hash, from], original])
  const without = readBundle(writeBundle(decoded, (wanted) => (wanted === from ? undefined : bytes)))
  expect(without.ok && readAll(without.bundle).missing).toEqual([])
})

test('a bundle with missing or damaged audio still opens and names what is gone', () => {
  const { kit, hash, bytes } = shipRig()
  const without = readBundle(writeBundle(kit, () => undefined))
  const damaged = readBundle(zipSync({ 'kit.json': strToU8(JSON.stringify(kit)), [`audio/${hash}.wav`]: bytes.slice(0, -1) }))
  if (!without.ok || !damaged.ok) throw new Error('not opened')
  expect(readAll(without.bundle).missing).toEqual([expect.stringContaining('"tone.wav" is missing')])
  expect(readAll(damaged.bundle)).toEqual({ audio: new Map(), missing: [expect.stringContaining('damaged')] })
})

test('what is listed is what the zip holds, and a page in it says what that is', () => {
  const { kit, hash, bytes, audioOf } = shipRig()
  const forms = [bundleFiles(kit, () => bytes), writeSfz(kit, audioOf).files, writeOneShots(kit, audioOf).files]
  for (const files of forms) {
    const held = unzipSync(zipFiles(files))
    expect(Object.keys(held)).toEqual(files.map(({ path }) => path))
    const page = strFromU8(held['README.txt'])
    for (const { path } of files) if (path !== 'README.txt') expect(page).toContain(path)
    expect(page).toContain('36  Hull: thump/low: 2 bands, 3 turns, 1 ray')
  }
  expect(forms[0][1]).toMatchObject({ path: `audio/${hash}.wav`, name: 'tone.wav' })
})

test('a zip that would unpack to far more than it is, or holds a name twice, is refused before it is unpacked', () => {
  const { kit, bytes } = shipRig()
  const zip = writeBundle(kit, () => bytes)
  const refused = (changed: Uint8Array) => {
    const result = readBundle(changed)
    return result.ok ? 'opened' : result.message
  }
  // The list at its end says 1.9 GB of its first entry; nothing of that size is there.
  const bomb = zip.slice()
  new DataView(bomb.buffer).setUint32(lastIndexOf(bomb, [0x50, 0x4b, 1, 2], 0) + 24, 1.9e9, true)
  expect(refused(bomb)).toMatch(/would unpack to 1\.9 GB/)
  const twice = zip.slice()
  const names = [...allIndexesOf(twice, [0x50, 0x4b, 1, 2])].map((at) => at + 46)
  twice.set(strToU8('kit.json'), names[1]) // two names of the list begin alike; their lengths are made alike too
  new DataView(twice.buffer).setUint16(names[1] - 46 + 28, 8, true)
  new DataView(twice.buffer).setUint16(names[1] - 46 + 30, strToU8(`audio/${'0'.repeat(64)}.wav`).length - 8, true)
  expect(refused(twice)).toMatch(/holds "kit.json" twice/)
})

function* allIndexesOf(bytes: Uint8Array, wanted: readonly number[]): Generator<number> {
  for (let at = 0; at < bytes.length; at++) if (wanted.every((byte, i) => bytes[at + i] === byte)) yield at
}

function lastIndexOf(bytes: Uint8Array, wanted: readonly number[], which: number): number {
  return [...allIndexesOf(bytes, wanted)][which]
}

test('what is not a bundle says so', () => {
  const { kit, bytes } = shipRig()
  const reason = (zip: Uint8Array) => {
    const result = readBundle(zip)
    return result.ok ? undefined : result.message
  }
  expect(reason(strToU8('hello'))).toContain('not a zip')
  expect(reason(zipSync({ 'x.txt': strToU8('x') }))).toContain('holds no kit')
  expect(reason(zipSync({ 'kit.json': strToU8('{') }))).toContain('damaged')
  expect(reason(zipSync({ 'kit.json': strToU8(JSON.stringify({ ...kit, pads: 3 })) }))).toContain('damaged at pads')
  expect(reason(writeBundle(kit, () => bytes).slice(0, 300))).toContain('cannot be opened')
})

test('SFZ says bands, turns, levels and chokes, and its samples are the clips', () => {
  const { kit, audioOf, tone } = shipRig()
  const { files, notes } = writeSfz(kit, audioOf)
  const sfz = new TextDecoder().decode(files[0].bytes)
  expect(files[0].path).toBe('Test.sfz')
  const regions = sfz.split('<region>').slice(1)
  expect(regions).toHaveLength(6) // four that sound, and one with which each pad silences the other
  expect(regions[0]).toContain('lovel=1\nhivel=64\nseq_length=2\nseq_position=1')
  expect(regions[2]).toContain('lovel=65\nhivel=127')
  expect(regions[0]).toContain('volume=-3')
  expect(sfz.match(/off_mode=time\noff_time=0.004/g)).toHaveLength(2)
  const paths = [...sfz.matchAll(/sample=(.*)/g)].map((match) => `samples/${match[1]}`)
  expect(new Set([...paths, 'README.txt'])).toEqual(new Set(files.slice(1).map((file) => file.path)))
  expect(paths[3]).toContain('Hull thump low 2/')
  const first = readWav(files[1].bytes)
  expect(first.ok && first.file.audio.channels[0][500]).toBeCloseTo(tone.channels[0][500], 6)
  expect(notes).toEqual([])
})

test('a shaped hit leaves as it sounds', () => {
  const { kit, audioOf } = shipRig()
  const point = (seconds: number, value: number) => ({ seconds, value, bend: 0 })
  kit.pads[1].own.envelopes = { level: { points: [point(0, 1), point(0.01, 0)] } }
  const baked = readWav(writeSfz(kit, audioOf).files.find(({ path }) => path.includes('low 2/'))!.bytes)
  if (!baked.ok) throw new Error(baked.message)
  const samples = baked.file.audio.channels[0]
  expect(samples.length).toBeLessThanOrEqual(481)
  const dry = aTone(2000, 0.5).channels[0]
  expect(samples[240]).toBeCloseTo(dry[240] * 0.5, 4)
})

test('the check names missing audio, silent pads and shared notes', () => {
  const { kit } = shipRig()
  kit.pads[1] = { ...kit.pads[1], bands: [], notes: kit.pads[0].notes }
  const messages = checkKit(kit, () => false).map((finding) => finding.message)
  expect(messages.join(' ')).toMatch(/"tone.wav" is missing.*no clips.*both answer this note/)
  expect(unzipSync(writeBundle(kit, () => undefined))['kit.json'].length).toBeGreaterThan(100)
})

test('the check names a room without an impulse, where it stands, and none that is off or has one', () => {
  const { kit } = aKit([{ bands: [[anImpulse()]] }])
  const room = { id: 'r' as never, kind: 'room' as const, values: {}, choices: {}, bypass: false }
  const said = (inserts: Kit['inserts']) => checkKit({ ...kit, buses: [{ ...createBus('b' as never, 'Shed'), inserts }] }, () => true).filter(({ message }) => message.includes('impulse')).map(({ where }) => where) // prettier-ignore
  expect(said([room])).toEqual(['Shed'])
  expect(said([{ ...room, bypass: true }])).toEqual([])
  expect(said([{ ...room, audio: 'a'.repeat(64) as never }])).toEqual([])
})

test('a groove of more beads than sound says how many are silent; one of as many as sound says nothing', () => {
  const pads = Array.from({ length: 17 }, (_, i) => createPad(testIds(i + 40), { name: `Rib ${i}` }))
  const strings = pads.map(({ id }) => ({ padId: id, beads: Array.from({ length: 1024 }, (_, step) => ({ id: `${id}.${step}` as never, step, velocity: 90 })) })) // prettier-ignore
  const groove = { id: 'g' as never, name: 'Tide', lengthSteps: 1024, stepsPerBeat: 4, swing: 0.5, strings }
  const said = (of: typeof strings) => checkKit({ ...createKit(testIds(1), 'Ribs'), pads, grooves: [{ ...groove, strings: of }] }, () => true).filter(({ message }) => message.includes('beads sound')) // prettier-ignore
  expect(said(strings).map(({ where, message }) => [where, /\d+ of its \d+/.exec(message)![0]])).toEqual([['Tide', '1025 of its 17408']])
  const fitting = strings.slice(0, 16).map((one, i) => (i === 0 ? { ...one, beads: one.beads.slice(1) } : one))
  expect(said(fitting)).toEqual([])
})
