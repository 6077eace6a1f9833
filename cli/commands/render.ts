import { pathToFileURL } from 'node:url'

import { writeWav } from '@heliaster/core/audio'
import { notesSchema, scoreOfNotes } from '@heliaster/core/groove'
import type { Notes } from '@heliaster/core/groove'
import type { Kit } from '@heliaster/core/kit'
import type * as engineModule from '@heliaster/core/engine'
import type { StrikeRecord } from '@heliaster/core/engine'

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
    const [left, right] = engine.renderOffline(state, engine.toScore(events), last + TAIL_SECONDS * sampleRateHz, 4096, (record) => {
      if (given.options.events) console.log(JSON.stringify(eventLine(opened.kit, record, loader.padIdOf)))
    })
    const end = lastSound(left, right, last)
    writeFile(out, writeWav({ sampleRateHz, channels: [left.subarray(0, end), right.subarray(0, end)] }, { bits: 32 }))
  },
}

/** The engine as built, not its sources. */
async function loadEngine(): Promise<Engine> {
  const builder = (await import('../../tools/build-engine.mjs' as string)) as { buildEngine(): Promise<string> }
  return (await import(pathToFileURL(await builder.buildEngine()).href)) as Engine
}

function readNotes(path: string): Notes {
  let json: unknown
  try {
    json = JSON.parse(new TextDecoder().decode(readBytes(path)))
  } catch (error) {
    if (error instanceof InputFault) throw error
    throw new InputFault(`${path}: This is not JSON (${error instanceof Error ? error.message : 'damaged'}).`)
  }
  const parsed = notesSchema.safeParse(json)
  if (parsed.success) return parsed.data
  const issue = parsed.error.issues[0]
  throw new InputFault(
    `${path}: Entry ${issue.path.join('.') || '(whole file)'} is not a note: ${issue.message}. Notes are { "ms", "note", "velocity", "lengthMs"? }.`,
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
