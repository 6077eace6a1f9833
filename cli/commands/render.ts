import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

import { writeWav } from '@heliaster/core/audio'
import { notesSchema, scoreOfNotes } from '@heliaster/core/groove'
import { isMidiFile, readMidiFile } from '@heliaster/core/groove/midi'
import type { Notes } from '@heliaster/core/groove'
import type { Kit } from '@heliaster/core/kit'
import type * as engineModule from '@heliaster/core/engine'
import type { KitLoader, StrikeRecord } from '@heliaster/core/engine'
import { fileName, uniqueNames } from '@heliaster/core/ship'

import { openKit, readBytes, writeFile } from '../files'
import { InputFault } from '../input-fault'
import { numberOption, requiredOption } from '../main'
import type { Command } from '../main'

type Engine = Pick<typeof engineModule, 'createOffline' | 'renderOffline' | 'toScore'>

/** Sound may ring on for this long after the last note. */
const TAIL_SECONDS = 12

/** Plays notes on a kit with the built engine: the same file that plays in the app. */
export const render: Command = {
  options: {
    notes: { type: 'string' },
    out: { type: 'string' },
    rate: { type: 'string' },
    seed: { type: 'string' },
    events: { type: 'boolean' },
    stems: { type: 'string' },
  },
  paths: [1, 1],
  async run(given) {
    const out = requiredOption(given, 'out')
    const notesPath = requiredOption(given, 'notes')
    const sampleRateHz = Math.round(numberOption(given, 'rate', 48000, 8000, 192000))
    const opened = await openKit(given.paths[0])
    for (const missing of opened.missing) console.error(`${given.paths[0]}: ${missing}`)
    const seed = Math.round(numberOption(given, 'seed', opened.kit.seed, 0, 0xffffffff))
    const notes = readNotes(notesPath)
    const engine = await loadEngine()
    const { engine: state, loader } = engine.createOffline(opened.kit, sampleRateHz, (hash) => opened.audioOf(hash), seed)
    const events = scoreOfNotes(opened.kit, notes, sampleRateHz, loader.slotOf)
    const last = events.reduce((most, event) => Math.max(most, event.frame), 0)
    const frames = last + TAIL_SECONDS * sampleRateHz
    const stems = given.options.stems === undefined ? [] : stemsOf(opened.kit, loader.busSlotOf, frames)
    const tap = stems.length > 0 ? { left: new Float32Array(frames), right: new Float32Array(frames), stems } : undefined
    const [left, right] = engine.renderOffline(state, engine.toScore(events), frames, 4096, {
      ...(tap ? { tap } : {}),
      onRecord: (record) => {
        if (given.options.events) console.log(JSON.stringify(eventLine(opened.kit, record, loader.padIdOf)))
      },
    })
    const end = lastSound(left, right, last)
    const write = (path: string, sides: readonly Float32Array[]) =>
      writeFile(path, writeWav({ sampleRateHz, channels: sides.map((side) => side.subarray(0, end)) }, { bits: 32 }))
    write(out, [left, right])
    for (const stem of stems) write(join(String(given.options.stems), stem.path), [stem.left, stem.right])
  },
}

interface StemFile {
  readonly path: string
  readonly slot: number
  readonly left: Float32Array
  readonly right: Float32Array
}

/**
 * A file for each bus and return, and one for what goes to the mix without a bus. Those that go into another bus are in it
 * already; they lie in a folder of their own, so that the files beside each other add up to the mix.
 */
function stemsOf(kit: Kit, slotOf: KitLoader['busSlotOf'], frames: number): StemFile[] {
  const unique = uniqueNames()
  const direct = { path: `${unique('without a bus')}.wav`, slot: 0 }
  const buses = kit.buses.map(({ id, name, out }) => {
    const into = kit.buses.find((bus) => bus.id === out)
    const file = `${unique(fileName(name))}.wav`
    return { path: into ? join(`inside ${fileName(into.name)}`, file) : file, slot: slotOf(id) }
  })
  return [direct, ...buses].map((one) => ({ ...one, left: new Float32Array(frames), right: new Float32Array(frames) }))
}

/** The engine as built, not its sources. */
async function loadEngine(): Promise<Engine> {
  const builder = (await import('../../tools/build-engine.mjs' as string)) as { buildEngine(): Promise<string> }
  const path = await builder.buildEngine()
  return (await import(pathToFileURL(path).href)) as Engine
}

function readNotes(path: string): Notes {
  let json: unknown
  const bytes = readBytes(path)
  if (isMidiFile(bytes) || /[.]midi?$/i.test(path)) {
    const read = readMidiFile(bytes)
    if (read.ok) return read.notes
    throw new InputFault(`${path}: ${read.message}`)
  }
  try {
    json = JSON.parse(new TextDecoder().decode(bytes))
  } catch (error) {
    throw new InputFault(`${path}: This is not JSON (${error instanceof Error ? error.message : 'damaged'}).`)
  }
  const parsed = notesSchema.safeParse(json)
  if (parsed.success) return parsed.data
  const issue = parsed.error.issues[0]
  throw new InputFault(
    `${path}: Entry ${issue.path.join('.') || '(whole file)'} is not a note: ${issue.message}. Entries are { "ms", "note", "velocity", "lengthMs"? }, { "ms", "controller", "value" }, { "ms", "bend" } or { "ms", "pressure", "note"? }.`,
  )
}

function eventLine(kit: Kit, record: StrikeRecord, padIdOf: (slot: number) => string | undefined) {
  const pad = kit.pads.find((candidate) => candidate.id === padIdOf(record.padSlot))
  return {
    frame: record.frame,
    pad: padIdOf(record.padSlot),
    velocity: record.velocity,
    band: record.band < 0 ? null : record.band,
    turn: record.turn < 0 ? null : record.turn,
    ...(record.aboveBand < 0 ? {} : { aboveBand: record.aboveBand, aboveTurn: record.aboveTurn }),
    rays: record.rays.flatMap((place) => pad?.rays[place]?.id ?? []),
    choked: record.chokedSlots.map(padIdOf),
  }
}

function lastSound(left: Float32Array, right: Float32Array, least: number): number {
  let end = left.length
  while (end > least + 1 && left[end - 1] === 0 && right[end - 1] === 0) end--
  return end
}
