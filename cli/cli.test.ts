import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { readWav, writeWav } from '@heliaster/core/audio'
import type { Kit } from '@heliaster/core/kit'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { writeMidi } from 'midi-file'
import { strikeSound, tarpSlaps, things } from '@heliaster/demo'

import { main } from './main'

const bin = join(__dirname, 'bin/heliaster.mjs')
let dir: string
let slaps: ReturnType<typeof tarpSlaps>

beforeAll(() => {
  dir = mkdtempSync(join(tmpdir(), 'heliaster-cli-'))
  process.chdir(dir)
  slaps = tarpSlaps()
  writeFileSync(join(dir, 'slaps.wav'), writeWav({ sampleRateHz: 48000, channels: [slaps.samples] }, { bits: 16 }))
  for (let i = 1; i <= 3; i++) {
    const sound = strikeSound(things.oarLow, 0.3 * i, i)
    writeFileSync(join(dir, `oar ${i * 5}.wav`), writeWav({ sampleRateHz: 48000, channels: [sound] }, { bits: 24 }))
  }
})
afterAll(() => {
  process.chdir(__dirname)
  rmSync(dir, { recursive: true })
})

/** What plays sounds loads the engine as it is built, which is not done among tests: it is called as a person calls it. */
const APART = ['render', 'stems']

/** What a call says, and how it ends. */
async function call(...words: string[]): Promise<{ status: number | null; out: string; line: string }> {
  if (APART.includes(words[0])) {
    const { status, stdout, stderr } = spawnSync(process.execPath, [bin, ...words], { cwd: dir, encoding: 'utf8' })
    return { status, out: stdout, line: stderr.split('\n')[0] }
  }
  const [out, error] = (['log', 'error'] as const).map((way) => jest.spyOn(console, way).mockReturnValue(undefined))
  const status = await main(words)
  const said = [out, error].map(({ mock }) => mock.calls.map(([text]) => `${text}\n`).join(''))
  for (const one of [out, error]) one.mockRestore()
  return { status, out: said[0], line: said[1].split('\n')[0] }
}
async function run(...words: string[]): Promise<string> {
  const { status, out, line } = await call(...words)
  if (status !== 0) throw new Error(line)
  return out
}
async function fails(...words: string[]) {
  const { status, line } = await call(...words)
  return { status, line }
}

test('cut finds the forty slaps and writes each as a file', async () => {
  const { sampleRate, hits } = JSON.parse(await run('cut', 'slaps.wav', '--json', '--out', 'hits')) as {
    sampleRate: number
    hits: { onsetFrame: number; startFrame: number; endFrame: number; pitchHz: number | null; family: string; warnings: string[] }[]
  }
  expect(sampleRate).toBe(48000)
  expect(hits).toHaveLength(40)
  hits.forEach((hit, i) => expect(Math.abs(hit.onsetFrame - slaps.strikes[i].frame)).toBeLessThan(240))
  expect(readdirSync(join(dir, 'hits'))).toHaveLength(40)
  const listed = (await run('cut', 'slaps.wav', '--in-time')).trim().split('\n')
  expect(listed.map((line) => Number.parseInt(line, 10))).toEqual(slaps.strikes.map((_, i) => i + 1))
  const first = readWav(new Uint8Array(readFileSync(join(dir, 'hits', 'slaps-01.wav'))))
  expect(first.ok && first.file.audio.channels[0].length).toBe(hits[0].endFrame - hits[0].startFrame)
})

test('files become a kit in natural order, the kit renders the same for the same seed, and says what it decided', async () => {
  await run('kit', 'oar 15.wav', 'oar 5.wav', 'oar 10.wav', '--out', 'oars.zip')
  writeFileSync(
    join(dir, 'notes.json'),
    JSON.stringify([
      { ms: 0, note: 36, velocity: 127 },
      { ms: 100, note: 38, velocity: 90, lengthMs: 20 },
      { ms: 50, controller: 4, value: 9 },
    ]),
  )
  const events = (await run('render', 'oars.zip', '--notes', 'notes.json', '--out', 'a.wav', '--events'))
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as { frame: number; band: number; rays: string[] })
  expect(events.map(({ frame, band, rays }) => [frame, band, rays.length])).toEqual([
    [0, 0, 1],
    [4800, 0, 1],
  ])
  await run('render', 'oars.zip', '--notes', 'notes.json', '--out', 'b.wav')
  expect(readFileSync(join(dir, 'a.wav'))).toEqual(readFileSync(join(dir, 'b.wav')))
  const rendered = readWav(new Uint8Array(readFileSync(join(dir, 'a.wav'))))
  const source = readWav(new Uint8Array(readFileSync(join(dir, 'oar 15.wav'))))
  if (!rendered.ok || !source.ok) throw new Error('not read')
  expect(rendered.file.audio.channels[0].slice(0, 4000)).toEqual(source.file.audio.channels[0].slice(0, 4000))
})

test('a MIDI file plays as its notes would, and stems lie beside each other that add up to the mix', async () => {
  await run('kit', 'oar 15.wav', 'oar 5.wav', 'oar 10.wav', '--out', 'mixed.zip')
  const files = unzipSync(new Uint8Array(readFileSync(join(dir, 'mixed.zip'))))
  const [name] = Object.keys(files).filter((path) => path.endsWith('.json'))
  const kit = JSON.parse(strFromU8(files[name])) as Kit
  const bus = (id: string, more: object) => ({ id, name: id, values: { gainDb: -6 }, mute: false, isReturn: false, inserts: [], sends: [], ...more }) // prettier-ignore
  const buses = [bus('oars', { out: 'all' }), bus('all', { sends: [{ busId: 'hall', values: { gainDb: -9 }, tap: 'pre' }] }), bus('hall', { isReturn: true })] // prettier-ignore
  const pads = kit.pads.map((pad, i) => ({
    ...pad,
    own: { ...pad.own, ...(i === 2 ? {} : { bus: i === 0 ? 'oars' : 'all' }), responses: [] },
  }))
  const changed = { ...kit, buses, pads, values: {} }
  writeFileSync(join(dir, 'mixed.zip'), zipSync({ ...files, [name]: strToU8(JSON.stringify(changed)) }))
  const events = [
    { deltaTime: 0, meta: true as const, type: 'setTempo' as const, microsecondsPerBeat: 250000 },
    ...[36, 37, 38].flatMap((noteNumber) => [
      { deltaTime: 480, type: 'noteOn' as const, channel: 9, noteNumber, velocity: 100 },
      { deltaTime: 48, type: 'noteOff' as const, channel: 9, noteNumber, velocity: 0 },
    ]),
    { deltaTime: 10, type: 'pitchBend' as const, channel: 9, value: -8192 },
    { deltaTime: 0, meta: true as const, type: 'endOfTrack' as const },
  ]
  writeFileSync(
    join(dir, 'part.mid'),
    Uint8Array.from(writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 480 }, tracks: [events] })),
  )
  const lines = (await run('render', 'mixed.zip', '--notes', 'part.mid', '--out', 'mix.wav', '--stems', 'stems', '--events'))
    .trim()
    .split('\n')
  expect(lines.map((line) => (JSON.parse(line) as { frame: number }).frame)).toEqual([12000, 25200, 38400])
  expect(readdirSync(join(dir, 'stems')).sort()).toEqual(['all.wav', 'hall.wav', 'inside all', 'without a bus.wav'])
  const left = (path: string) => {
    const read = readWav(new Uint8Array(readFileSync(join(dir, path))))
    if (!read.ok) throw new Error(path)
    return read.file.audio.channels[0]
  }
  const mix = left('mix.wav')
  const stems = ['all', 'hall', 'without a bus'].map((stem) => left(`stems/${stem}.wav`))
  const error = mix.reduce((sum, sample, i) => sum + (sample - stems.reduce((total, stem) => total + stem[i], 0)) ** 2, 0)
  const power = mix.reduce((sum, sample) => sum + sample ** 2, 0)
  expect(stems.every((stem) => stem.some((sample) => Math.abs(sample) > 0.001))).toBe(true)
  expect(10 * Math.log10(error / power + 1e-30)).toBeLessThan(-120)
  writeFileSync(join(dir, 'broken.mid'), 'MThd and nothing that follows')
  expect((await fails('render', 'mixed.zip', '--notes', 'broken.mid', '--out', 'x.wav'))).toMatchObject({ status: 1, line: expect.stringContaining('MIDI file is damaged') }) // prettier-ignore
})

test('by loudness the slaps become one pad, and the kit leaves as SFZ whose check is clean', async () => {
  await run('cut', 'slaps.wav', '--out', 'hits')
  await run('kit', 'hits', '--out', 'slaps.zip', '--by', 'loudness')
  expect(await run('check', 'slaps.zip')).toContain('nothing found')
  await run('ship', 'slaps.zip', '--as', 'sfz', '--out', 'sfz')
  const sfz = readFileSync(join(dir, 'sfz', 'slaps.sfz'), 'utf8')
  expect(sfz.match(/<region>/g)).toHaveLength(40)
  expect(new Set([...sfz.matchAll(/lovel=(\d+)/g)].map((match) => match[1])).size).toBeGreaterThan(3)
})

test('by names a folder becomes a pad of bands, turns and microphones that sound together', async () => {
  mkdirSync(join(dir, 'hull'))
  for (const [mic, gain] of [
    ['close', 1],
    ['room', 0.5],
  ] as const)
    for (const level of [1, 2])
      for (const take of [1, 2, 3]) {
        if (mic === 'room' && level === 2 && take === 3) continue
        const sound = strikeSound(things.hullThump, 0.3 * level, 10 * level + take).map((sample) => sample * gain)
        writeFileSync(
          join(dir, 'hull', `hull_C3_${mic}_v${level}_rr${take}.wav`),
          writeWav({ sampleRateHz: 48000, channels: [sound] }, { bits: 24 }),
        )
      }
  const { stderr } = spawnSync(process.execPath, [bin, 'kit', 'hull', '--by', 'names', '--out', 'hull.zip'], { cwd: dir, encoding: 'utf8' })
  expect(stderr).toBe('Hull: no file for room, band 2, take 3.\n')
  const strikes = Array.from({ length: 6 }, (_, i) => ({ ms: 500 * i, note: 48, velocity: i % 2 === 0 ? 30 : 120 }))
  writeFileSync(join(dir, 'hull.json'), JSON.stringify(strikes))
  const events = (await run('render', 'hull.zip', '--notes', 'hull.json', '--out', 'hull.wav', '--events'))
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as { band: number; turn: number; rays: string[] })
  expect(events.map(({ band }) => band)).toEqual([0, 1, 0, 1, 0, 1])
  for (const band of [0, 1]) expect(events.filter((one) => one.band === band).map(({ turn }) => turn).sort()).toEqual([0, 1, 2]) // prettier-ignore
  expect(events.map(({ band, turn, rays }) => rays.length === (band === 1 && turn === 2 ? 1 : 2))).toEqual(Array(6).fill(true))
})

test('a pattern says what the parts of names are; what is made otherwise stays out and is told', async () => {
  mkdirSync(join(dir, 'oars'))
  const sound = strikeSound(things.oarLow, 0.3, 4)
  for (const name of ['2x1 oar', '2x2 oar', '1x1 oar', '1x2 oar', 'oar extra'])
    writeFileSync(join(dir, 'oars', `${name}.wav`), writeWav({ sampleRateHz: 48000, channels: [sound.map((sample) => sample * name.charCodeAt(0) / 200)] }, { bits: 24 })) // prettier-ignore
  const made = spawnSync(process.execPath, [bin, 'kit', 'oars', '--by', 'names', '--pattern', '{take}x{level} {drum}', '--out', 'oars.zip'], { cwd: dir, encoding: 'utf8' }) // prettier-ignore
  expect([made.status, made.stderr]).toEqual([0, 'oar extra: Its name is not made like the pattern.\n'])
  writeFileSync(join(dir, 'oars.json'), JSON.stringify([{ ms: 0, note: 36, velocity: 20 }, { ms: 400, note: 36, velocity: 20 }, { ms: 800, note: 36, velocity: 120 }])) // prettier-ignore
  const events = (await run('render', 'oars.zip', '--notes', 'oars.json', '--out', 'oars.wav', '--events')).trim().split('\n')
  expect(events.map((line) => (JSON.parse(line) as { band: number }).band)).toEqual([0, 0, 1])
  expect((await fails('kit', 'oars', '--by', 'names', '--pattern', '{take}_{who}', '--out', 'x.zip'))).toMatchObject({ status: 2, line: expect.stringContaining('{who} stands for nothing') }) // prettier-ignore
})

test('a pad and a ray are shaped by words, said again as they were said, heard in what is rendered, and wrong words are told', async () => {
  await run('kit', 'oar 15.wav', 'oar 5.wav', '--out', 'plain.zip')
  const pad = 'oar 15'
  const words = ['driveDb=18', 'driveKind=folded', 'filter1Kind=lowPass', 'filter1CutoffHz=900', 'level=0:1,0.05:0.4:-0.5*,0.2:0', 'order=filter1,drive,transient,crush,filter2'] // prettier-ignore
  expect(await run('shape', 'plain.zip', '--pad', pad, ...words, '--out', 'shaped.zip')).toBe('6 set, written to shaped.zip\n')
  expect((await run('shape', 'shaped.zip', '--pad', pad)).trim().split('\n').sort()).toEqual([...words].sort())
  await run('shape', 'shaped.zip', '--pad', pad, '--ray', 'Body', 'lowCutHz=300', 'pitch=0:1200,0.1:0', '--out', 'both.zip')
  expect((await run('shape', 'both.zip', '--pad', pad, '--ray', 'Body')).trim().split('\n')).toEqual(['lowCutHz=300', 'pitch=0:1200,0.1:0'])
  await run('shape', 'both.zip', '--pad', pad, 'level=none', '--out', 'both.zip')
  writeFileSync(join(dir, 'one.json'), JSON.stringify([{ ms: 0, note: 36, velocity: 127 }]))
  const heard = new Set<string>()
  for (const name of ['plain', 'shaped', 'both']) {
    await run('render', `${name}.zip`, '--notes', 'one.json', '--out', `${name}.wav`)
    heard.add(readFileSync(join(dir, `${name}.wav`)).toString('base64'))
  }
  expect(heard.size).toBe(3)
  const said = (...rest: string[]) => fails('shape', 'plain.zip', '--pad', pad, ...rest)
  expect(await said('driveDb=90', '--out', 'x.zip')).toEqual({ status: 2, line: 'driveDb takes a number from 0 to 60 (dB), not "90".' })
  expect((await said('driveKind=loud', '--out', 'x.zip')).line).toBe('driveKind is one of soft, hard, folded, uneven, not "loud".')
  expect((await said('level=0:3', '--out', 'x.zip')).line).toMatch(/^"0:3" is no point of level/)
  expect((await said('wobble=3', '--out', 'x.zip')).line).toMatch(/^A pad has no "wobble". It has gainDb, /)
  expect((await said('order=drive', '--out', 'x.zip')).line).toMatch(/^order names each of transient, drive/)
  expect((await said('driveDb=3')).line).toBe('--out is missing.')
  expect((await fails('shape', 'plain.zip', '--pad', 'sail')).line).toMatch(/^No pad is named "sail". There are "oar 15"/)
})

test('faulty input is exit 1 with one clear line, wrong words are exit 2', async () => {
  writeFileSync(join(dir, 'no.wav'), 'hello')
  expect(await fails('cut', 'no.wav')).toEqual({ status: 1, line: expect.stringContaining('not an audio file') })
  expect(await fails('cut', 'gone.wav')).toEqual({ status: 1, line: 'gone.wav: There is no such file.' })
  expect(await fails('render', 'no.wav', '--notes', 'n.json', '--out', 'x.wav')).toEqual({
    status: 1,
    line: expect.stringContaining('not a zip'),
  })
  expect((await fails('check', 'no.wav')).status).toBe(1)
  writeFileSync(join(dir, 'still.wav'), writeWav({ sampleRateHz: 48000, channels: [new Float32Array(48000)] }, { bits: 16 }))
  expect(await fails('cut', 'still.wav')).toEqual({ status: 0, line: 'still.wav: It is silent from end to end, so there is no hit in it.' })
  writeFileSync(join(dir, 'torn.wav'), readFileSync(join(dir, 'slaps.wav')).subarray(0, 400_001))
  expect(await fails('cut', 'torn.wav')).toEqual({ status: 0, line: expect.stringMatching(/^torn[.]wav: The file ends early: /) })
  expect(await fails('cut', 'slaps.wav', '--sensitivity', '7')).toEqual({ status: 2, line: expect.stringContaining('0 to 1') })
  expect((await fails('sing')).status).toBe(2)
  expect(spawnSync(process.execPath, [bin, 'cut', 'gone.wav'], { cwd: dir }).status).toBe(1)
})

test('grooves are listed, written as MIDI and JSON, put into a kit, and said strike by strike; wrong words are told', async () => {
  await run('kit', 'oar 15.wav', 'oar 5.wav', '--out', 'rowing.zip')
  expect(await run('groove', 'rowing.zip')).toBe('The kit has no groove.\n')
  const notes = [[0, 36], [240, 37], [240, 36], [720, 90]] as const // prettier-ignore
  const track = notes.flatMap(([deltaTime, noteNumber]) => [
    { type: 'noteOn' as const, deltaTime, channel: 9, noteNumber, velocity: 100 },
    { type: 'noteOff' as const, deltaTime: 0, channel: 9, noteNumber, velocity: 0 },
  ])
  const midi = writeMidi({
    header: { format: 0, numTracks: 1, ticksPerBeat: 480 },
    tracks: [[...track, { type: 'endOfTrack', deltaTime: 0 }]],
  })
  writeFileSync(join(dir, 'stroke.mid'), Uint8Array.from(midi))
  const put = spawnSync(process.execPath, [bin, 'groove', 'rowing.zip', '--put', 'stroke.mid', '--out', 'rowed.zip'], { cwd: dir, encoding: 'utf8' }) // prettier-ignore
  expect([put.stdout, put.stderr]).toEqual(['stroke: 3 strikes on 2 pads, written to rowed.zip\n', 'stroke.mid: no pad answers 90: left out.\n']) // prettier-ignore
  expect(await run('groove', 'rowed.zip')).toBe('stroke: 16 steps, 4 to a beat, swing 50 %, 3 beads\n')
  expect((await run('groove', 'rowed.zip', '--strikes')).trim().split('\n').map((line) => line.split('\t')[0])).toEqual(['0.0000', '0.5000', '1.0000']) // prettier-ignore
  expect(await run('groove', 'rowed.zip', '--laps', '2', '--out', 'two.mid')).toBe('stroke, 8 beats, written to two.mid\n')
  await run('groove', 'rowed.zip', '--out', 'stroke.json')
  await run('groove', 'rowed.zip', '--put', 'stroke.json', '--out', 'twice.zip')
  expect((await run('groove', 'twice.zip')).split('\n').map((line) => line.split(':')[0])).toEqual(['stroke', 'stroke 2', '']) // prettier-ignore
  expect(await run('stems', 'rowed.zip', '--laps', '2', '--rate', '24000', '--out', 'parts')).toBe('4 files in parts\n')
  expect(readdirSync(join(dir, 'parts')).sort()).toEqual(['README.txt', 'The mix.wav', 'oar 15.wav', 'oar 5.wav'])
  const [mix, one, other] = ['The mix', 'oar 15', 'oar 5'].map((name) => {
    const wav = readWav(readFileSync(join(dir, 'parts', `${name}.wav`)))
    return wav.ok ? wav.file.audio.channels[0]! : new Float32Array(0)
  })
  expect(mix!.length).toBeGreaterThan(24000 * 3)
  expect(mix!.every((sample, i) => Math.abs(sample - one![i]! - other![i]!) < 1e-6)).toBe(true)
  expect((await fails('stems', 'rowed.zip', '--by', 'star', '--out', 'x'))).toMatchObject({ status: 2, line: expect.stringContaining('--by') as string }) // prettier-ignore
  expect(await fails('groove', 'twice.zip', '--strikes')).toEqual({
    status: 2,
    line: expect.stringContaining('name one with --groove') as string,
  })
  expect((await fails('groove', 'rowed.zip', '--put', 'slaps.wav', '--out', 'x.zip'))).toMatchObject({ status: 1, line: expect.stringContaining('This is no MIDI file') as string }) // prettier-ignore
  expect((await fails('groove', 'rowed.zip', '--song', '--out', 'x.mid'))).toMatchObject({ status: 1, line: expect.stringContaining('no song') as string }) // prettier-ignore
})

test('matter works files and folders of hits: lengths, pitches, parts; what cannot be worked is told and the rest goes on', async () => {
  mkdirSync(join(dir, 'struck oars'), { recursive: true })
  const oar = strikeSound(things.oarLow, 0.8, 9)
  for (const n of [1, 2])
    writeFileSync(join(dir, `struck oars/oar ${n}.wav`), writeWav({ sampleRateHz: 48000, channels: [oar] }, { bits: 24 }))
  writeFileSync(join(dir, 'quiet.wav'), writeWav({ sampleRateHz: 48000, channels: [new Float32Array(4800)] }, { bits: 16 }))
  const samples = (path: string) => {
    const read = readWav(readFileSync(join(dir, path)))
    if (!read.ok) throw new Error(read.message)
    return read.file.audio.channels[0]!
  }
  expect(await run('matter', 'struck oars', '--length', '250', '--pitch', '-7', '--out', 'long')).toBe('2 files in long\n')
  expect(samples('long/oar 1.wav')).toHaveLength(Math.round(2.5 * oar.length))
  expect(await run('matter', 'struck oars/oar 1.wav', '--part', '--divide', '200', '--out', 'parts of oar')).toBe(
    '2 files in parts of oar\n',
  )
  const [ringing, noise] = [samples('parts of oar/oar 1 ringing.wav'), samples('parts of oar/oar 1 noise.wav')]
  const source = samples('struck oars/oar 1.wav')
  expect(Math.max(...source.map((sample, i) => Math.abs(sample - ringing[i]! - noise[i]!)))).toBeLessThan(1e-5)
  const { status, stderr, stdout } = spawnSync(process.execPath, [bin, 'matter', 'quiet.wav', 'struck oars/oar 2.wav', '--beats', '1', '--tempo', '100', '--out', 'beats'], { cwd: dir, encoding: 'utf8' }) // prettier-ignore
  expect([status, stdout]).toEqual([1, '1 file in beats\n'])
  expect(stderr).toMatch(/quiet\.wav: This is silent.*\n1 file was not worked/)
  expect(samples('beats/oar 2.wav')).toHaveLength(28800)
  expect(await fails('matter', 'struck oars', '--out', 'x')).toMatchObject({
    status: 2,
    line: expect.stringContaining('Say what is to be done') as string,
  })
  expect((await fails('matter', 'struck oars', '--length', '5', '--out', 'x'))).toMatchObject({ status: 2, line: expect.stringContaining('--length takes a number from 10 to 1000') as string }) // prettier-ignore
  expect((await fails('matter', 'struck oars', '--speed', 'fast', '--out', 'x'))).toMatchObject({ status: 2, line: expect.stringContaining('--speed takes points') as string }) // prettier-ignore
})
