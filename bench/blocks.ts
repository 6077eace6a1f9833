import { loadEngine } from './engine-file'
import type { Engine } from './engine-file'
import type { Figure } from './figure'
import { eventsOf, RATE, voiceKit } from './voices'

const FRAMES = 128
const VOICES = 128
/** Minutes of blocks; a longer look is asked for by `BENCH_MINUTES`. */
const MINUTES = Number(process.env.BENCH_MINUTES ?? 1)
/** The same minutes are rendered so often: what a block took each time is the engine's own, the rest came between. */
const RUNS = Number(process.env.BENCH_RUNS ?? 3)
/** What the machine takes away is looked at for so many blocks, a minute. */
const MACHINE_BLOCKS = (60 * RATE) / FRAMES

/**
 * How much of the time that a block lasts it takes to render, in 999 of 1000 blocks: by the clock, by the processor's time, and
 * the least of the runs for each block. The pads are struck one after another, or all 64 of them on one frame, which is one
 * block of 469.
 */
export async function figuresOfBlocks(): Promise<Record<string, Figure>> {
  const engine = await loadEngine()
  const figures = [1, 2].flatMap((channels) => [true, false].map((isSpread) => blockFigures(engine, channels, isSpread)))
  return Object.assign({}, ...figures) as Record<string, Figure>
}

export function blockFigures(engine: Engine, channels: number, isSpread: boolean): Record<string, Figure> {
  const runs = Array.from({ length: RUNS }, () => sharesOf(engine, channels, isSpread))
  const least = runs[0].clock.map((_, block) => Math.min(...runs.map(({ clock }) => clock[block])))
  const [ours, cpu, own] = [runs[0].clock, runs[0].cpu, least].map((shares) => shares.sort((a, b) => a - b))
  const theirs = blocksOfNothing(Math.min(ours.length, MACHINE_BLOCKS), at(ours, 0.5))
  const name = `${channels === 1 ? 'mono' : 'stereo'}${isSpread ? '' : '.allAtOnce'}`
  const unit = `% of a block of ${FRAMES} frames, in 999 of 1000 of ${MINUTES} min with ${VOICES} voices; spread: median and most`
  const peer = 'a loop of sums as long as the median block: what this machine takes away by itself'
  const figure = (shares: Float64Array) => ({
    value: at(shares, 0.999),
    unit,
    spread: [at(shares, 0.5), at(shares, 1)] as [number, number],
  })
  return {
    [`blocks.${name}`]: figure(ours),
    [`blocks.${name}.cpu`]: { ...figure(cpu), unit: `${unit}; the processor's time, which waiting for the machine is no part of` },
    [`blocks.${name}.own`]: { ...figure(own), unit: `${unit}; the least of ${RUNS} runs for each block` },
    [`blocks.${name}.machine`]: { ...figure(theirs), peer },
  }
}

/** What each block takes, in its order: by the clock, and of the processor. */
function sharesOf(engine: Engine, channels: number, isSpread: boolean): { clock: Float64Array; cpu: Float64Array } {
  const { kit, audio } = voiceKit(VOICES, channels)
  const { engine: state, loader } = engine.createOffline(kit, RATE, (hash) => audio.get(hash))
  const frames = MINUTES * 60 * RATE
  state.score = eventsOf(
    engine,
    kit.pads.map((pad) => loader.slotOf(pad.id)),
    frames,
    isSpread,
  )
  const [left, right] = [new Float32Array(FRAMES), new Float32Array(FRAMES)]
  const render = () => engine.render(state, left, right, 0, FRAMES)
  const cpu = new Float64Array(Math.floor(frames / FRAMES))
  const clock = cpu.map((_, block) =>
    shareOf(() => {
      cpu[block] = cpuShareOf(render)
    }),
  )
  return { clock, cpu }
}

/** How much of the time that a block lasts some work takes of the processor, in per cent: a millionth of a second is 0.04. */
function cpuShareOf(work: () => unknown): number {
  const from = process.cpuUsage()
  work()
  const { user, system } = process.cpuUsage(from)
  return (100 * (user + system)) / 1e6 / (FRAMES / RATE)
}

/** How much of the time that a block lasts some work takes, in per cent. */
function shareOf(work: () => unknown): number {
  const from = process.hrtime.bigint()
  work()
  return (100 * Number(process.hrtime.bigint() - from)) / 1e9 / (FRAMES / RATE)
}

const at = (sorted: Float64Array, share: number) => sorted[Math.floor(share * (sorted.length - 1))]

/** Shares of so many blocks of sums, each of which takes as long as is said where nothing comes between. */
function blocksOfNothing(blocks: number, share: number): Float64Array {
  let sum = 0
  const sums = (count: number) => {
    for (let i = 0; i < count; i++) sum = sum * 0.999 + i
  }
  for (let i = 0; i < 200; i++) sums(10000) // warm
  const each = at(Float64Array.from({ length: 99 }, () => shareOf(() => sums(100000))).sort(), 0.5)
  const count = Math.round((100000 * share) / each)
  return Float64Array.from({ length: blocks }, () => shareOf(() => sums(count))).sort()
}
