import { createMixMeter } from '@heliaster/core/audio'
import type { Audio } from '@heliaster/core/audio'
import { createBand, createBus, createIds, createKit, createPad, createTurn, wholeClip } from '@heliaster/core/kit'
import type { AudioHash, BusId, Insert, InsertId, Kit } from '@heliaster/core/kit'
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { loadEngine } from './engine-file'
import type { Engine } from './engine-file'
import { median, spreadOf } from './figure'
import type { Figure } from './figure'

const RATE = 48000
const SECONDS = 40
const RUNS = Number(process.env.BENCH_RUNS ?? 5)
const IMPULSE = 'f'.repeat(64) as AudioHash

const insert = (kind: Insert['kind'], values: Insert['values'] = {}, more: Partial<Insert> = {}): Insert => ({ id: `${kind}${Math.random()}` as InsertId, kind, values, choices: {}, bypass: false, ...more }) // prettier-ignore

function seededFrom(seed: number): () => number {
  let state = seed
  return () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296
}

function noise(frames: number, fade: number): Float32Array {
  const random = seededFrom(7 + frames)
  return Float32Array.from({ length: frames }, (_, i) => (2 * random() - 1) * 0.3 * Math.exp(-i / fade))
}

const impulse: Audio = { sampleRateHz: RATE, channels: [noise(2 * RATE, 20000), noise(2 * RATE + 1, 20000).slice(1)] }

/** One effect, and the same job by another program: a filter of ffmpeg, or effects of sox. */
interface Job {
  readonly inserts: readonly Insert[]
  readonly ffmpeg?: string
  readonly sox?: readonly string[]
}

const bands = [60, 160, 500, 1500, 4000, 10000]
const jobs: Record<string, Job> = {
  equaliser: {
    inserts: [insert('equaliser', Object.fromEntries(bands.map((_, i) => [`band${i + 1}Db`, 4])))],
    ffmpeg: bands.map((hz) => `equalizer=f=${hz}:t=q:w=1:g=4`).join(','),
  },
  compressor: { inserts: [insert('compressor', { threshold1Db: -30, ratio1: 4 })], ffmpeg: 'acompressor=threshold=0.03:ratio=4' },
  gate: { inserts: [insert('gate', { thresholdDb: -30 })], ffmpeg: 'agate=threshold=0.03' },
  limiter: { inserts: [insert('limiter', { ceiling1Db: -12 })], ffmpeg: 'alimiter=limit=0.25:level=0' },
  drive: { inserts: [insert('drive', { driveDb: 12 })], ffmpeg: 'asoftclip=type=tanh:oversample=4' },
  crush: { inserts: [insert('crush')], ffmpeg: 'acrusher=bits=8:samples=4' },
  width: { inserts: [insert('width', { width: 1.5 })], ffmpeg: 'extrastereo=m=1.5' },
  echo: { inserts: [insert('echo', { seconds: 0.25 })], ffmpeg: 'aecho=0.8:0.9:250:0.3' },
  reverb: { inserts: [insert('reverb')], sox: ['reverb', '50', '50', '100'] },
  room: { inserts: [insert('room', {}, { audio: IMPULSE })], ffmpeg: 'afir' },
}

/** A bus with effects over noise without end. */
function oneBus(inserts: readonly Insert[]) {
  const makeId = createIds(seededFrom(3))
  const hash = 'a'.repeat(64) as AudioHash
  const sound: Audio = { sampleRateHz: RATE, channels: [noise(SECONDS * RATE, 1e9), noise(SECONDS * RATE, 1e9)] }
  const info = { frames: SECONDS * RATE, channels: 2 }
  const pad = createPad(makeId, {}, 36)
  const bus = { ...createBus('own' as BusId, 'Own'), inserts: [...inserts] }
  const turn = createTurn(makeId, { [pad.rays[0]!.id]: wholeClip(hash, info) })
  const rays = pad.rays.map((ray) => ({ ...ray, bus: bus.id }))
  const kit: Kit = { ...createKit(makeId, 'Bench'), buses: [bus], pads: [{ ...pad, rays, bands: [createBand(makeId, 1, [turn])] }] }
  return { kit, audio: new Map([[hash, sound], [IMPULSE, impulse]]) } // prettier-ignore
}

function secondsOf(engine: Engine, { kit, audio }: ReturnType<typeof oneBus>, strikes: readonly { frame: number; padSlot: number }[]) {
  const { engine: state } = engine.createOffline(kit, RATE, (hash) => audio.get(hash))
  const events = strikes.map((one) => ({ ...one, type: 1, velocity: 127 }))
  const from = process.cpuUsage()
  engine.renderOffline(state, engine.toScore(events), SECONDS * RATE, 128)
  const { user, system } = process.cpuUsage(from)
  return (user + system) / 1e6
}

/** Whether a program is there: without it there is nothing to compare with, and no figure. */
function isThere(command: string): boolean {
  return spawnSync('/bin/bash', ['-c', `command -v ${command}`]).status === 0
}

/** CPU seconds that a program takes. */
function cpuOf(command: string, args: readonly string[]): number {
  const done = spawnSync('/bin/bash', [
    '-c',
    `TIMEFORMAT='%U %S'; time ${[command, ...args].map((part) => `'${part}'`).join(' ')} > /dev/null 2>&1`,
  ])
  const [user = NaN, system = NaN] = done.stderr.toString().trim().split(' ').map(Number)
  return user + system
}

function peerSeconds(folder: string, job: Job): number {
  const raw = ['-f', 'f32le', '-ar', String(RATE), '-ac', '2', '-i', join(folder, 'sound.raw')]
  if (job.sox) {
    const file = ['-t', 'f32', '-r', String(RATE), '-c', '2', join(folder, 'sound.raw'), '-n']
    return cpuOf('sox', [...file, ...job.sox]) - cpuOf('sox', file)
  }
  const room = job.ffmpeg === 'afir' ? ['-f', 'f32le', '-ar', String(RATE), '-ac', '2', '-i', join(folder, 'impulse.raw')] : []
  const filter = job.ffmpeg === 'afir' ? ['-filter_complex', '[0][1]afir'] : ['-af', job.ffmpeg!]
  return (
    cpuOf('ffmpeg', ['-threads', '1', ...raw, ...room, ...filter, '-f', 'null', '-']) -
    cpuOf('ffmpeg', ['-threads', '1', ...raw, '-f', 'null', '-'])
  )
}

function interleaved(sides: readonly Float32Array[], frames: number): Buffer {
  const out = new Float32Array(2 * frames)
  for (let i = 0; i < frames; i++) for (let side = 0; side < 2; side++) out[2 * i + side] = sides[side]![i] ?? 0
  return Buffer.from(out.buffer)
}

/** The mix that is promised: 32 pads, 64 voices at once, 8 buses, 2 reverbs among 16 effects. */
function wholeMix() {
  const makeId = createIds(seededFrom(3))
  const audio = new Map<AudioHash, Audio>([[IMPULSE, impulse]])
  const chains: Insert[][] = [
    [insert('equaliser', { band1Db: 3, band5Db: -4 }), insert('compressor', { threshold1Db: -24 })],
    [insert('equaliser', { band2Db: 2 }), insert('gate', { thresholdDb: -60 })],
    [insert('compressor', { threshold1Db: -30 }, { choices: { ranges: '3' } }), insert('drive', { driveDb: 9 })],
    [insert('transient', { attackDb: 4 }), insert('width', { width: 1.3, monoBelowHz: 120 })],
    [insert('echo', { seconds: 0.3 }), insert('equaliser', { band6Db: -6 })],
    [insert('reverb', { mix: 1 })],
    [insert('reverb', { mix: 1 }, { choices: { kind: 'hall' } }), insert('equaliser', { band1Db: -6 })],
    [insert('resonator')],
  ]
  const buses = chains.map((inserts, i) => ({ ...createBus(`bus-${i}` as BusId, `Bus ${i}`), inserts, isReturn: i === 5 || i === 6 }))
  const sends = [5, 6].map((i) => ({ busId: `bus-${i}` as BusId, values: { gainDb: -12 }, tap: 'post' as const }))
  const pads = Array.from({ length: 32 }, (_, i) => {
    const hash = i.toString(16).padStart(64, '0') as AudioHash
    audio.set(hash, { sampleRateHz: RATE, channels: [noise(RATE, 30000), noise(RATE, 30000)] })
    const pad = createPad(makeId, {}, 36 + i)
    const turn = createTurn(makeId, { [pad.rays[0]!.id]: wholeClip(hash, { frames: RATE, channels: 2 }) })
    const rays = pad.rays.map((ray) => ({ ...ray, bus: `bus-${i % 5}` as BusId, sends }))
    return { ...pad, rays, own: { ...pad.own, values: { gainDb: -24 } }, bands: [createBand(makeId, 1, [turn])] }
  })
  const kit: Kit = { ...createKit(makeId, 'Bench'), pads, buses, inserts: [insert('compressor', { threshold1Db: -18 }), insert('limiter')] }
  // A strike a second for each pad, twice: 64 sound at any time.
  const strikes = Array.from({ length: SECONDS * 64 }, (_, i) => ({ frame: i * (RATE / 64), padSlot: i % 32 }))
  return { rig: { kit, audio }, strikes }
}

/** What the meter of the mix reads of music that comes and goes, against ffmpeg's of the same. */
function figuresOfMeter(folder: string): Record<string, Figure> {
  let [loudness, peak] = [0, 0]
  const rounds = 6
  for (let round = 0; round < rounds; round++) {
    const random = seededFrom(50 + round)
    const hits = Array.from({ length: 40 }, () => ({ at: random() * 10, hz: 40 * 200 ** random(), level: random() ** 2, fade: 0.05 + random(), place: random() })) // prettier-ignore
    const sides = [0, 1].map((side) =>
      Float32Array.from({ length: 12 * RATE }, (_, i) => {
        const t = i / RATE
        let sum = 0
        for (const { at, hz, level, fade, place } of hits) if (t > at) sum += level * (side === 0 ? 1 - place : place) * Math.sin(2 * Math.PI * hz * (t - at)) * Math.exp(-(t - at) / fade) // prettier-ignore
        return 0.5 * sum
      }),
    )
    writeFileSync(join(folder, 'music.raw'), interleaved(sides, 12 * RATE))
    const args = ['-nostats', '-f', 'f32le', '-ar', String(RATE), '-ac', '2', '-i', join(folder, 'music.raw'), '-filter:a', 'ebur128=peak=true', '-f', 'null', '-'] // prettier-ignore
    const said = spawnSync('ffmpeg', args, { encoding: 'utf8' }).stderr
    const summary = said.slice(said.lastIndexOf('Summary:'))
    const meter = createMixMeter(RATE)
    meter.add(sides[0]!, sides[1]!, 12 * RATE)
    const { integrated, truePeakDb } = meter.read()
    loudness = Math.max(loudness, Math.abs(integrated - Number(/I:\s+(-?[\d.]+)/.exec(summary)?.[1])))
    peak = Math.max(peak, Math.abs(truePeakDb - Number(/Peak:\s+(-?[\d.]+)/.exec(summary)?.[1])))
  }
  const unit = `dB at most over ${rounds} pieces, read to 0.1`
  const peer = "ffmpeg's ebur128"
  return { 'mix.meter.integrated': { value: loudness, unit, peer }, 'mix.meter.truePeak': { value: peak, unit, peer } }
}

/** What effects cost: each beside the same job of another program, and a whole mix in parts of one core's time. */
export async function figuresOfMix(): Promise<Record<string, Figure>> {
  const engine = await loadEngine()
  const folder = mkdtempSync(join(tmpdir(), 'bench-mix-'))
  const figures: Record<string, Figure> = {}
  const sides = oneBus([]).audio.get('a'.repeat(64) as AudioHash)!.channels
  writeFileSync(join(folder, 'sound.raw'), interleaved(sides, SECONDS * RATE))
  writeFileSync(join(folder, 'impulse.raw'), interleaved(impulse.channels, 2 * RATE))
  for (const [name, job] of Object.entries(jobs)) {
    const program = job.sox ? 'sox' : 'ffmpeg'
    if (!isThere(program)) {
      console.error(`mix.${name} is left out: ${program} is not installed.`)
      continue
    }
    const ratios = Array.from({ length: RUNS }, () => {
      const own =
        secondsOf(engine, oneBus(job.inserts), [{ frame: 0, padSlot: 0 }]) - secondsOf(engine, oneBus([]), [{ frame: 0, padSlot: 0 }])
      return peerSeconds(folder, job) / own
    })
    const peer = job.sox ? `sox ${job.sox.join(' ')}` : `ffmpeg ${job.ffmpeg}`
    figures[`mix.${name}`] = { value: median(ratios), unit: 'times', peer, spread: spreadOf(ratios) }
  }
  if (isThere('ffmpeg')) Object.assign(figures, figuresOfMeter(folder))
  const { rig, strikes } = wholeMix()
  const shares = Array.from({ length: RUNS }, () => (100 * secondsOf(engine, rig, strikes)) / SECONDS)
  figures['mix.whole'] = { value: median(shares), unit: '% of one core', spread: spreadOf(shares) }
  rmSync(folder, { recursive: true })
  return figures
}
