import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { loadEngine } from './engine-file'
import type { Engine } from './engine-file'
import { median, spreadOf } from './figure'
import type { Figure } from './figure'
import { eventsOf, RATE, renderKit, SECONDS, voiceKit } from './voices'

const RUNS = Number(process.env.BENCH_RUNS ?? 5)
const SOURCE = join(import.meta.dirname, 'peers/voices.c')

/** Ways of having the C compiler make the peer: one number at a time, and with all the vectors this machine has. */
const ways = {
  scalar: ['-O2', '-fno-tree-vectorize'],
  vectors: ['-O3', '-march=native', '-ffast-math'],
}

/** Voices per core of the engine in Node against the same work in C, processor time, in interleaved runs. */
export async function figuresOfKernel(): Promise<Record<string, Figure>> {
  const folder = mkdtempSync(join(tmpdir(), 'voices-'))
  try {
    return await compareAll(folder)
  } finally {
    rmSync(folder, { recursive: true })
  }
}

async function compareAll(folder: string): Promise<Record<string, Figure>> {
  const built = Object.entries(ways).map(([way, flags]) => {
    const file = join(folder, way)
    execFileSync('gcc', [...flags, '-o', file, SOURCE, '-lm'])
    return { way, file }
  })
  const engine = await loadEngine()
  const figures: Record<string, Figure> = { ...blockFigure(engine, 1), ...blockFigure(engine, 2) }
  for (const voices of [64, 256])
    for (const channels of [1, 2]) {
      const { kit, audio } = voiceKit(voices, channels)
      const ours = () => renderKit(engine, kit, audio, voices)
      const theirs = (file: string) => Number(execFileSync(file, [`${voices}`, `${channels}`], { encoding: 'utf8' }).split(' ')[0])
      ours() // warm
      const runs = Array.from({ length: RUNS }, () => ({ engine: ours(), peers: built.map(({ file }) => theirs(file)) }))
      const name = `${voices}.${channels === 1 ? 'mono' : 'stereo'}`
      const perCore = runs.map((run) => (voices * SECONDS) / run.engine)
      figures[`kernel.voicesPerCore.${name}`] = { value: median(perCore), unit: 'voices', spread: spreadOf(perCore) }
      built.forEach(({ way }, i) => {
        const ratios = runs.map((run) => run.peers[i] / run.engine)
        figures[`kernel.ratioTo.${way}.${name}`] = {
          value: median(ratios),
          unit: 'times',
          peer: `gcc ${ways[way as keyof typeof ways].join(' ')}`,
          spread: spreadOf(ratios),
        }
      })
    }
  return figures
}

const BLOCK_FRAMES = 128
const BLOCK_VOICES = 128
/** Minutes of blocks; a longer look is asked for by `BENCH_MINUTES`. */
const MINUTES = Number(process.env.BENCH_MINUTES ?? 1)

/** How much of the time that a block lasts it takes to render, in 999 of 1000 blocks. */
function blockFigure(engine: Engine, channels: number): Record<string, Figure> {
  const { kit, audio } = voiceKit(BLOCK_VOICES, channels)
  const { engine: state, loader } = engine.createOffline(kit, RATE, (hash) => audio.get(hash))
  const frames = MINUTES * 60 * RATE
  state.score = eventsOf(
    engine,
    kit.pads.map((pad) => loader.slotOf(pad.id)),
    frames,
  )
  const [left, right] = [new Float32Array(BLOCK_FRAMES), new Float32Array(BLOCK_FRAMES)]
  const ours: number[] = []
  for (let at = 0; at + BLOCK_FRAMES <= frames; at += BLOCK_FRAMES)
    ours.push(shareOf(() => engine.render(state, left, right, 0, BLOCK_FRAMES)))
  ours.sort((a, b) => a - b)
  const theirs = blocksOfNothing(ours.length, at(ours, 0.5))
  const name = channels === 1 ? 'mono' : 'stereo'
  const unit = `% of a block of ${BLOCK_FRAMES} frames, in 999 of 1000 of ${MINUTES} min with ${BLOCK_VOICES} voices; spread: median and most`
  const peer = 'a loop of sums as long as the median block: what this machine takes away by itself'
  const figure = (shares: number[]) => ({ value: at(shares, 0.999), unit, spread: [at(shares, 0.5), at(shares, 1)] as [number, number] })
  return { [`kernel.block.${name}`]: figure(ours), [`kernel.block.${name}.machine`]: { ...figure(theirs), peer } }
}

/** How much of the time that a block lasts some work takes, in per cent. */
function shareOf(work: () => unknown): number {
  const from = process.hrtime.bigint()
  work()
  return (100 * Number(process.hrtime.bigint() - from)) / 1e9 / (BLOCK_FRAMES / RATE)
}

const at = (sorted: readonly number[], share: number) => sorted[Math.floor(share * (sorted.length - 1))]

/** Shares of so many blocks of sums, each of which takes as long as is said where nothing comes between. */
function blocksOfNothing(blocks: number, share: number): number[] {
  let sum = 0
  const sums = (count: number) => {
    for (let i = 0; i < count; i++) sum = sum * 0.999 + i
  }
  for (let i = 0; i < 200; i++) sums(10000) // warm
  const each = at(
    Array.from({ length: 99 }, () => shareOf(() => sums(100000))).sort((a, b) => a - b),
    0.5,
  )
  const count = Math.round((100000 * share) / each)
  return Array.from({ length: blocks }, () => shareOf(() => sums(count))).sort((a, b) => a - b)
}
