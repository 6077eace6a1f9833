import type { Audio } from '@heliaster/core/audio'
import { createBand, createIds, createKit, createPad, createRay, createTurn, wholeClip } from '@heliaster/core/kit'
import type { AudioHash, Kit } from '@heliaster/core/kit'
import { chromium } from '@playwright/test'
import type { Page } from '@playwright/test'

import { renderGraph } from './browser-graph'
import type { GraphTask } from './browser-graph'
import { loadEngine } from './engine-file'
import type { Engine } from './engine-file'
import { median, spreadOf } from './figure'
import type { Figure } from './figure'

export const RATE = 48000
export const SECONDS = 10
const CLIPS = 256
/** 256 clips of 65,536 samples: 64 MB of different audio. */
const CLIP_FRAMES = 65536
const STRIKE_EVERY = 60000
const RUNS = Number(process.env.BENCH_RUNS ?? 5)
/** The work of each voice, the same on both sides. */
export const WORK = {
  attackSeconds: 0.005,
  endSeconds: 1.2,
  fromCents: 300,
  toCents: -100,
  fallSeconds: 1.1,
  cutoffHz: 3000,
  filterFromCents: 2400,
  gain: 0.004,
}

/** Voices per core of the engine in Node against the browser's own audio nodes, rendered offline, in interleaved runs. */
export async function figuresOfVoices(): Promise<Record<string, Figure>> {
  const engine = await loadEngine()
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-quic', '--disable-background-networking'],
  })
  const page = await (await browser.newContext()).newPage()
  // The loader wraps inner functions in a naming helper that the page does not have.
  await page.evaluate(`globalThis.__name = (given) => given; globalThis.renderGraph = ${renderGraph.toString()}`)
  const figures: Record<string, Figure> = {}
  for (const voices of [64, 256]) for (const channels of [1, 2]) Object.assign(figures, await compare(engine, page, voices, channels))
  await browser.close()
  return figures
}

async function compare(engine: Engine, page: Page, voices: number, channels: number): Promise<Record<string, Figure>> {
  const { kit, audio } = voiceKit(voices, channels)
  const name = `${voices}.${channels === 1 ? 'mono' : 'stereo'}`
  const task: GraphTask = {
    voices,
    rate: RATE,
    seconds: SECONDS,
    clips: CLIPS,
    clipFrames: CLIP_FRAMES,
    channels,
    strikeEvery: STRIKE_EVERY,
    work: WORK,
    check: true,
  }
  const run = () => renderKit(engine, kit, audio, voices)
  checkLevels(engine, kit, audio, voices)
  run()
  await inPage(page, task) // warm, and each of its voices checked
  const ours: number[] = []
  const theirs: number[] = []
  for (let i = 0; i < RUNS; i++) {
    ours.push((voices * SECONDS) / run())
    theirs.push((voices * SECONDS) / (await inPage(page, { ...task, check: false })))
  }
  const ratios = ours.map((value, i) => value / theirs[i])
  return {
    [`engine.voicesPerCore.${name}`]: { value: median(ours), unit: 'voices', spread: spreadOf(ours) },
    [`browserGraph.voicesPerCore.${name}`]: { value: median(theirs), unit: 'voices', spread: spreadOf(theirs) },
    [`engine.voicesRatio.${name}`]: {
      value: median(ratios),
      unit: 'times',
      peer: 'buffer source, filter, gain and panner nodes',
      spread: spreadOf(ratios),
    },
  }
}

async function inPage(page: Page, task: GraphTask): Promise<number> {
  const seconds = (await page.evaluate(
    (given) => (globalThis as unknown as { renderGraph(task: unknown): Promise<number> }).renderGraph(given),
    task,
  )) as number
  if (seconds < 0) throw new Error('A voice of the browser’s graph did not sound, so the comparison is void.')
  return seconds
}

/** Noise from a seed that both sides make alike: clip `index`, channel by channel, sample by sample. */
function clipOf(index: number, channels: number): Audio {
  let state = (index + 1) * 2654435761
  const channel = () => {
    const samples = new Float32Array(CLIP_FRAMES)
    for (let i = 0; i < CLIP_FRAMES; i++) {
      state = (Math.imul(state, 1664525) + 1013904223) >>> 0
      samples[i] = state / 2147483648 - 1
    }
    return samples
  }
  return { sampleRateHz: RATE, channels: Array.from({ length: channels }, channel) }
}

/** Pads of two rays each, so that one strike is two voices; together they play all 256 clips in turn, by all of the work or by their level alone. */
export function voiceKit(voices: number, channels: number, work: 'all' | 'level' = 'all'): { kit: Kit; audio: Map<AudioHash, Audio> } {
  let state = 99
  const makeId = createIds(() => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296)
  const audio = new Map<AudioHash, Audio>()
  const hashes = Array.from({ length: CLIPS }, (_, i) => {
    const hash = i.toString(16).padStart(64, '0') as AudioHash
    audio.set(hash, clipOf(i, channels))
    return hash
  })
  const point = (seconds: number, value: number) => ({ seconds, value, bend: 0 })
  const level = { points: [point(0, 0), point(WORK.attackSeconds, 1), point(WORK.endSeconds, 0)] }
  const all = {
    level,
    pitch: { points: [point(0, WORK.fromCents), point(WORK.fallSeconds, WORK.toCents)] },
    filter1: { points: [point(0, 1), point(WORK.endSeconds, 0)] },
  }
  const filter = { filter1CutoffHz: WORK.cutoffHz, filter1Damping: 2 - 1.95 * 0.3, filter1EnvelopeCents: WORK.filterFromCents }
  const padCount = voices / 2
  const pads = Array.from({ length: padCount }, (_, index) => {
    const pad = createPad(makeId, {
      responses: [],
      envelopes: work === 'all' ? all : { level },
      choices: work === 'all' ? { filter1Kind: 'lowPass' } : {},
      values: { ...(work === 'all' ? filter : {}), gainDb: 20 * Math.log10(WORK.gain), pan: (index / padCount) * 2 - 1 },
      maxStrikes: 2,
    })
    const rays = [pad.rays[0], createRay(makeId, 'two')]
    const turns = Array.from({ length: CLIPS / voices }, (_, turn) =>
      createTurn(
        makeId,
        Object.fromEntries(
          rays.map((ray, r) => [ray.id, wholeClip(hashes[(turn * voices + index * 2 + r) % CLIPS], { frames: CLIP_FRAMES, channels })]),
        ),
      ),
    )
    return { ...pad, rays, bands: [createBand(makeId, 1, turns)] }
  })
  return { kit: { ...createKit(makeId, 'Bench'), pads, maxStrikes: 128 }, audio }
}

/** Every pad struck again and again: all of them on one frame, or one after another. */
export function eventsOf(engine: Engine, padSlots: readonly number[], frames: number, isSpread = false) {
  const events: { frame: number; type: number; padSlot: number; velocity: number }[] = []
  const apart = isSpread ? STRIKE_EVERY / padSlots.length : 0
  for (let frame = 0; frame < frames; frame += STRIKE_EVERY)
    padSlots.forEach((padSlot, i) => events.push({ frame: frame + Math.round(i * apart), type: engine.EventType.strike, padSlot, velocity: 127 })) // prettier-ignore
  return engine.toScore(events)
}

/** Seconds of processor time for ten seconds of all voices, by the kernel or by its plain form; loading is not counted. */
export function renderKit(engine: Engine, kit: Kit, audio: Map<AudioHash, Audio>, voices: number, isPlain = false): number {
  const { engine: state, loader } = engine.createOffline(kit, RATE, (hash) => audio.get(hash), kit.seed, undefined, isPlain)
  const score = eventsOf(engine, kit.pads.map((pad) => loader.slotOf(pad.id)), SECONDS * RATE) // prettier-ignore
  const started = process.cpuUsage()
  engine.renderOffline(state, score, SECONDS * RATE, 4096, (record) => {
    if (record.voices !== 2) throw new Error(`A strike sounded ${record.voices} of its 2 voices, of ${voices}.`)
  })
  const { user, system } = process.cpuUsage(started)
  return (user + system) / 1e6
}

/** The mix must be the sum of its pads, each rendered alone and each with a level of its own: nothing is skipped. */
function checkLevels(engine: Engine, kit: Kit, audio: Map<AudioHash, Audio>, voices: number): void {
  const frames = 20000
  const { engine: state, loader } = engine.createOffline(kit, RATE, (hash) => audio.get(hash))
  const slots = kit.pads.map((pad) => loader.slotOf(pad.id))
  const [mix] = engine.renderOffline(state, eventsOf(engine, slots, frames), frames)
  const sum = new Float64Array(frames)
  for (const pad of kit.pads) {
    const alone = engine.createOffline({ ...kit, pads: [pad] }, RATE, (hash) => audio.get(hash))
    const [left, right] = engine.renderOffline(alone.engine, eventsOf(engine, [0], frames), frames)
    if (Math.max(...left.map(Math.abs), ...right.map(Math.abs)) < WORK.gain * 0.1)
      throw new Error(`A pad of ${voices} voices is silent alone.`)
    for (let i = 0; i < frames; i++) sum[i] += left[i]
  }
  for (let i = 0; i < frames; i++)
    if (Math.abs(sum[i] - mix[i]) > 1e-5) throw new Error(`The mix of ${voices} voices is not the sum of its voices at frame ${i}.`)
}
