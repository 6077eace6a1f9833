import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { aKit, seeded } from '../core/kit/builders'
import { besideSine, SPECTRUM_SPAN } from '../core/audio/sine-spectrum'
import { loadEngine } from './engine-file'
import type { Engine } from './engine-file'
import { median, spreadOf } from './figure'
import type { Figure } from './figure'

const CASES = 120
const FROM = 4096
const GAIN = 0.5
const NOISE_SECONDS = 60

interface Case {
  readonly clipHz: number
  readonly engineHz: number
  readonly pitch: number
  readonly hz: number
}

/**
 * Sines at random pitches, clips and rates, read by the engine and by soxr at its very high quality (in `ffmpeg`): what is
 * beside them below 20 kHz, what is lost below 16 kHz; and the processor time of noise at one pitch.
 */
export async function figuresOfReading(): Promise<Record<string, Figure>> {
  const engine = await loadEngine()
  const random = seeded(Number(process.env.BENCH_SEED ?? Date.now() % 100_000))
  const folder = mkdtempSync(join(tmpdir(), 'reading-'))
  try {
    const found = Array.from({ length: CASES }, () => anyCase(random)).map((one) => ({ ours: ofEngine(engine, one), soxr: ofSoxr(folder, one), one })) // prettier-ignore
    const worst = (of: 'ours' | 'soxr') => Math.max(...found.map((each) => each[of].unwantedDb))
    const kept = found.filter(({ one }) => one.hz < 16000 && one.hz * one.pitch < 16000)
    const lost = (of: 'ours' | 'soxr') => Math.max(...kept.map((each) => Math.abs(each[of].levelDb)))
    return {
      'reading.unwantedDb': { value: worst('ours'), unit: `dB, the worst of ${CASES} sines` },
      'reading.soxrUnwantedDb': { value: worst('soxr'), unit: 'dB, the same through soxr, precision 28' },
      'reading.lostDb': { value: lost('ours'), unit: 'dB at most below 16 kHz' },
      'reading.soxrLostDb': { value: lost('soxr'), unit: 'dB at most below 16 kHz' },
      ...costs(engine, folder),
    }
  } finally {
    rmSync(folder, { recursive: true })
  }
}

function anyCase(random: () => number): Case {
  const clipHz = [44100, 48000, 96000][Math.floor(3 * random())]
  const engineHz = random() < 0.5 ? 44100 : 48000
  const pitch = Math.round(clipHz * 0.25 * 16 ** random()) / clipHz // soxr is told whole rates
  return { clipHz, engineHz, pitch, hz: Math.max(30, (1 - random() ** 2) * (pitch < 1 ? 20000 : 0.49 * clipHz)) }
}

const sineOf = ({ clipHz, engineHz, pitch, hz }: Case) =>
  Float32Array.from(
    { length: Math.ceil(((2 * FROM + SPECTRUM_SPAN) / engineHz) * clipHz * pitch) + clipHz },
    (_, i) => GAIN * Math.sin((2 * Math.PI * hz * i) / clipHz),
  )

function judged(heard: Float32Array, { engineHz, pitch, hz }: Case) {
  return besideSine(
    Float64Array.from(heard.subarray(FROM, FROM + SPECTRUM_SPAN), (sample) => sample / GAIN),
    hz * pitch,
    engineHz,
  )
}

function ofEngine(engine: Engine, one: Case) {
  return judged(renderAt(engine, one, sineOf(one), FROM + SPECTRUM_SPAN), one)
}

function renderAt(engine: Engine, { clipHz, engineHz, pitch }: Case, samples: Float32Array, frames: number): Float32Array {
  const own = { values: { tuneCents: 1200 * Math.log2(pitch) } }
  const { kit, audio } = aKit([{ own, bands: [[{ sampleRateHz: clipHz, channels: [samples] }]] }])
  const { engine: state } = engine.createOffline(kit, engineHz, (hash) => audio.get(hash))
  const strike = { frame: 0, type: engine.EventType.strike, padSlot: 0, velocity: 127 }
  return engine.renderOffline(state, engine.toScore([strike]), frames)[0]
}

function ofSoxr(folder: string, one: Case) {
  const [from, to] = ['from.f32', 'to.f32'].map((name) => join(folder, name))
  writeFileSync(from, new Uint8Array(sineOf(one).buffer))
  resample(from, to, one)
  return judged(new Float32Array(new Uint8Array(readFileSync(to)).buffer), one)
}

/** Returns the seconds of processor time that ffmpeg says it took. */
function resample(from: string, to: string, { clipHz, engineHz, pitch }: Case, resampler = 'soxr:precision=28'): number {
  const rate = `${Math.round(clipHz * pitch)}`
  const filter = resampler === '' ? [] : ['-af', `aresample=${engineHz}:resampler=${resampler}`]
  const given = [
    '-hide_banner',
    '-benchmark',
    '-y',
    '-threads',
    '1',
    '-f',
    'f32le',
    '-ar',
    rate,
    '-ac',
    '1',
    '-i',
    from,
    ...filter,
    '-f',
    'f32le',
    to,
  ]
  const { stderr } = runFfmpeg(given)
  return Number(/utime=([\d.]+)s/.exec(stderr)?.[1])
}

function runFfmpeg(given: readonly string[]): { stderr: string } {
  if (spawnSync('ffmpeg', ['-version']).status !== 0)
    throw new Error('Reading is measured against soxr in ffmpeg, which is not here. Install it (apt-get install ffmpeg), then start again.')
  const log = execFileSync('sh', ['-c', 'exec ffmpeg "$@" 2>&1 >/dev/null', 'sh', ...given], { encoding: 'utf8' })
  return { stderr: log }
}

/** Processor time for a minute of noise, ours against soxr alone, whose reading and writing of files is taken off. */
function costs(engine: Engine, folder: string): Record<string, Figure> {
  const random = seeded(3)
  const ratios = [0.8, 1.1, 1.7].flatMap((pitch) => {
    const one = { clipHz: 48000, engineHz: 48000, pitch, hz: 0 }
    const samples = Float32Array.from({ length: Math.ceil(NOISE_SECONDS * 48000 * pitch) + 48000 }, () => 0.1 * (random() - 0.5))
    const [from, to] = ['noise.f32', 'out.f32'].map((name) => join(folder, name))
    writeFileSync(from, new Uint8Array(samples.buffer))
    return Array.from({ length: 3 }, () => {
      const started = process.cpuUsage()
      renderAt(engine, one, samples, NOISE_SECONDS * 48000)
      const ours = process.cpuUsage(started).user / 1e6
      return (resample(from, to, one) - resample(from, to, one, '')) / ours
    })
  })
  return {
    'reading.ratioToSoxr': {
      value: median(ratios),
      unit: 'times',
      peer: 'soxr, precision 28; ours with loading and the mix',
      spread: spreadOf(ratios),
    },
  }
}
