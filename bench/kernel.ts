import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

import { loadEngine } from './engine-file'
import { median, spreadOf } from './figure'
import type { Figure } from './figure'
import { renderKit, SECONDS, voiceKit } from './voices'

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
    return { ...(await compareAll(folder)), ...(await asRecorded()) }
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
  const figures: Record<string, Figure> = {}
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

/** Hits as they were recorded, with nothing but their level, against the kernel's plain form in the same interleaved runs. */
async function asRecorded(): Promise<Record<string, Figure>> {
  const engine = await loadEngine()
  const figures: Record<string, Figure> = {}
  for (const voices of [64, 256])
    for (const channels of [1, 2]) {
      const { kit, audio } = voiceKit(voices, channels, 'level')
      const seconds = (isPlain: boolean) => renderKit(engine, kit, audio, voices, isPlain)
      seconds(false) // warm
      seconds(true)
      const ratios = Array.from({ length: RUNS }, () => seconds(true) / seconds(false))
      const name = `kernel.asRecordedToPlain.${voices}.${channels === 1 ? 'mono' : 'stereo'}`
      figures[name] = { value: median(ratios), unit: 'times', peer: 'its plain form, in TypeScript', spread: spreadOf(ratios) }
    }
  return figures
}
