import { peakOfAudio, writeWav } from '@heliaster/core/audio'
import type { Audio } from '@heliaster/core/audio'
import { valuesOfKind } from '@heliaster/core/kit'
import type { MatterKind, MatterStep } from '@heliaster/core/kit'
import { workMatter } from '@heliaster/core/matter'

import { listAudioFiles, readAudioFile, stem, writeBelow } from '../files'
import { InputFault } from '../input-fault'
import { numberOption, requiredOption, WrongUsage } from '../main'
import type { Command, Given } from '../main'

/** A number of a step, and what it is called on the command line; kept times `times`. */
interface Flag {
  readonly kind: MatterKind
  readonly value: string
  readonly times?: number
}

const flags: Readonly<Record<string, Flag>> = {
  length: { kind: 'time', value: 'lengthPercent' },
  pitch: { kind: 'time', value: 'pitchCents', times: 100 },
  beats: { kind: 'time', value: 'beats' },
  keep: { kind: 'time', value: 'keepMs' },
  'keep-resonances': { kind: 'time', value: 'keepResonances', times: 0.01 },
  'fresh-noise': { kind: 'time', value: 'freshNoise', times: 0.01 },
  resonances: { kind: 'resonances', value: 'movePercent' },
  grains: { kind: 'grains', value: 'grainMs' },
  'at-once': { kind: 'grains', value: 'atOnce' },
  stray: { kind: 'grains', value: 'strayMs' },
  'stray-cents': { kind: 'grains', value: 'strayCents' },
  draw: { kind: 'grains', value: 'draw' },
}

/**
 * Works the matter of hits, each into a file of the same name: parting first, then length and pitch, grains, resonances. A
 * file that cannot be worked is told with its reason and the others go on.
 */
export const matter: Command = {
  options: {
    ...Object.fromEntries(Object.keys(flags).map((name) => [name, { type: 'string' as const }])),
    tempo: { type: 'string' },
    speed: { type: 'string' },
    part: { type: 'boolean' },
    ringing: { type: 'boolean' },
    noise: { type: 'boolean' },
    anew: { type: 'string' },
    divide: { type: 'string' },
    steady: { type: 'string' },
    out: { type: 'string' },
  },
  paths: [1, Infinity],
  async run(given) {
    const out = requiredOption(given, 'out')
    const tempoBpm = numberOption(given, 'tempo', 120, 20, 400)
    const ways = waysOf(given)
    const names = new Set<string>()
    let failed = 0
    for (const path of listAudioFiles(given.paths)) {
      try {
        const { audio } = await readAudioFile(path)
        for (const { words, steps } of ways) {
          const result = workMatter({ audio, startFrame: 0, steps, tempoBpm })
          if (!result.ok) throw new InputFault(`${path}: ${result.message}`)
          write(out, freeName(`${stem(path)}${words}`, names), result.audio)
        }
      } catch (error) {
        if (!(error instanceof InputFault)) throw error
        console.error(error.message)
        failed++
      }
    }
    console.log(`${names.size} ${names.size === 1 ? 'file' : 'files'} in ${out}`)
    if (failed > 0) throw new InputFault(`${failed} ${failed === 1 ? 'file was' : 'files were'} not worked.`)
  },
}

function write(out: string, name: string, audio: Audio): void {
  const peak = peakOfAudio(audio)
  if (peak > 1) console.error(`${name}: it is ${(20 * Math.log10(peak)).toFixed(1)} dB over full scale; the file holds it, lower it before it becomes whole numbers.`) // prettier-ignore
  writeBelow(out, name, writeWav(audio, { bits: 32 }))
}

/** Files of one name from several folders lie beside each other. */
function freeName(name: string, taken: Set<string>): string {
  let free = `${name}.wav`
  for (let n = 2; taken.has(free.toLowerCase()); n++) free = `${name} ${n}.wav`
  taken.add(free.toLowerCase())
  return free
}

interface Way {
  /** Behind the name of the file. */
  readonly words: string
  readonly steps: readonly MatterStep[]
}

/** What is made of each file: one sound, or its ringing and its noise. */
function waysOf(given: Given): Way[] {
  const { part, ringing, noise, anew } = given.options
  if ([part, ringing, noise].filter(Boolean).length > 1) throw new WrongUsage('--part, --ringing and --noise are one of each other.')
  const rest = stepsOf(given)
  const wantsNoise = noise === true || anew !== undefined
  if (ringing && anew !== undefined) throw new WrongUsage('--anew makes noise anew; it has nothing to do with --ringing.')
  const parting = (kind: 'ringing' | 'noise') => partingStep(given, kind)
  if (part) return [{ words: ' ringing', steps: [parting('ringing'), ...rest] }, { words: ' noise', steps: [parting('noise'), ...rest] }] // prettier-ignore
  const first = ringing ? [parting('ringing')] : wantsNoise ? [parting('noise')] : []
  const steps = [...first, ...rest]
  if (steps.length === 0) throw new WrongUsage('Say what is to be done: --length, --pitch, --beats, --speed, --grains, --resonances, --part, --ringing, --noise or --anew.') // prettier-ignore
  return [{ words: '', steps }]
}

function partingStep(given: Given, kind: 'ringing' | 'noise'): MatterStep {
  const table = valuesOfKind(kind)
  const number = (name: string, value: string) => numberOption(given, name, table[value]!.usual, table[value]!.least, table[value]!.most)
  const settings = { divideHz: number('divide', 'divideHz'), steadyMs: number('steady', 'steadyMs') }
  const fresh: Record<string, number> =
    kind === 'noise' && given.options.anew !== undefined ? { anew: numberOption(given, 'anew', 100, 0, 100) / 100 } : {}
  return { id: kind, kind, values: { ...settings, ...fresh }, bypass: false }
}

/** The steps that numbers ask for, in the order in which they are worked. */
function stepsOf(given: Given): MatterStep[] {
  const curve = curveOf(given.options.speed)
  return (['time', 'grains', 'resonances'] as const).flatMap((kind) => {
    const values = Object.fromEntries(
      Object.entries(flags).flatMap(([name, { kind: own, value, times = 1 }]) => {
        if (own !== kind || given.options[name] === undefined) return []
        const { least, most, usual } = valuesOfKind(kind)[value]!
        return [[value, times * numberOption(given, name, usual / times, least / times, most / times)]]
      }),
    )
    const isAsked = Object.keys(values).length > 0 || (kind === 'time' && curve !== undefined)
    return isAsked ? [{ id: kind, kind, values, bypass: false, ...(kind === 'time' && curve ? { curve } : {}) }] : []
  })
}

/** `0:100,0.2:50`: seconds of the file and its speed there, %. */
function curveOf(text: string | boolean | undefined): MatterStep['curve'] {
  if (typeof text !== 'string') return undefined
  return text.split(',').map((point) => {
    const [seconds, value] = point.split(':').map(Number)
    if (!(seconds! >= 0 && value! >= 0 && value! <= 1000))
      throw new WrongUsage(`--speed takes points as 0:100,0.2:50 (seconds:percent, 0 to 1000), not "${point}".`)
    return { seconds: seconds!, value: value! }
  })
}
