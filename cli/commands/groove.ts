import { copyOfGroove, freeGrooveName, grooveBeats, unrolled } from '@heliaster/core/groove'
import { grooveOfMidi, midiOfGroove } from '@heliaster/core/groove/midi'
import { applyEdit, createIds, grooveSchema, padSettings } from '@heliaster/core/kit'
import type { Groove, GrooveId, Kit } from '@heliaster/core/kit'
import { readAll, readBundle, writeBundle } from '@heliaster/core/ship'

import { readBytes, stem, writeFile } from '../files'
import { InputFault } from '../input-fault'
import { WrongUsage } from '../main'
import type { Command, Given } from '../main'

/**
 * Grooves of a kit, read and written: listed; one of them, or the song, as a MIDI file, as JSON or as a plain list of its strikes; a
 * MIDI file or JSON put in as another groove.
 */
export const groove: Command = {
  options: {
    groove: { type: 'string' },
    song: { type: 'boolean' },
    laps: { type: 'string' },
    strikes: { type: 'boolean' },
    put: { type: 'string' },
    out: { type: 'string' },
  },
  paths: [1, 1],
  async run(given) {
    const [path] = given.paths
    const opened = readBundle(readBytes(path))
    if (!opened.ok) throw new InputFault(`${path}: ${opened.message}`)
    const { kit } = opened.bundle
    const { put, out, strikes } = given.options
    if (put !== undefined) {
      if (out === undefined) throw new WrongUsage('--put needs --out KIT.zip.')
      const { audio, missing } = readAll(opened.bundle)
      for (const line of missing) console.error(`${path}: ${line}`)
      const changed = withGrooveOf(kit, String(put))
      writeFile(String(out), writeBundle(changed.kit, (hash) => audio.get(hash)))
      console.log(`${changed.words}, written to ${String(out)}`)
    } else if (strikes === true) for (const line of strikesOf(kit, given)) console.log(line)
    else if (out === undefined) for (const line of listOf(kit)) console.log(line)
    else writeOut(kit, given, String(out))
  },
} // prettier-ignore

function listOf(kit: Kit): string[] {
  const lines = kit.grooves.map((one) => `${one.name || one.id}: ${one.lengthSteps} steps, ${one.stepsPerBeat} to a beat, swing ${+(100 * one.swing).toFixed(1)} %, ${one.strings.reduce((sum, { beads }) => sum + beads.length, 0)} beads`) // prettier-ignore
  const names = new Map(kit.grooves.map(({ id, name }) => [id, name || id]))
  const song = kit.song.length > 0 ? [`Song: ${kit.song.map(({ groove: id, laps }) => `${names.get(id) ?? id} x ${laps}`).join(', ')}`] : []
  return lines.length > 0 ? [...lines, ...song] : ['The kit has no groove.']
}

/** Which groove is meant: by its name, else the only one. */
function grooveMeant(kit: Kit, { options }: Given): Groove {
  const { groove: name } = options
  const found = name === undefined ? kit.grooves : kit.grooves.filter((one) => one.name === name)
  const there = kit.grooves.map((one) => `"${one.name}"`).join(', ')
  if (kit.grooves.length === 0) throw new InputFault('The kit has no groove.')
  if (found.length === 0) throw new InputFault(`No groove is named "${String(name)}". There are ${there}.`)
  if (found.length > 1) throw new WrongUsage(`There are ${found.length} grooves (${there}); name one with --groove.`)
  return found[0]!
}

/** What is played, and for how many beats. */
export function playedBy(kit: Kit, given: Given): { readonly what: GrooveId | 'song'; readonly beats: number; readonly name: string } {
  const laps = given.options.laps === undefined ? 1 : Number(given.options.laps)
  if (!Number.isInteger(laps) || laps < 1 || laps > 1024) throw new WrongUsage('--laps is a whole number from 1 to 1024.')
  if (given.options.song === true) {
    const beats = kit.song.reduce((sum, section) => {
      const one = kit.grooves.find(({ id }) => id === section.groove)
      return sum + (one ? section.laps * grooveBeats(one) : 0)
    }, 0)
    if (beats === 0) throw new InputFault('The kit has no song.')
    return { what: 'song', beats: laps * beats, name: 'Song' }
  }
  const one = grooveMeant(kit, given)
  return { what: one.id, beats: laps * grooveBeats(one), name: one.name || 'Groove' }
}

/** `beat pad velocity`, a line for each strike. */
function strikesOf(kit: Kit, given: Given): string[] {
  const { what, beats } = playedBy(kit, given)
  const names = new Map(kit.pads.map((pad) => [pad.id, padSettings(kit, pad).name || pad.id]))
  return unrolled(kit, what, beats).map(({ beat, padId, velocity }) => `${beat.toFixed(4)}\t${names.get(padId)}\t${velocity}`)
}

function writeOut(kit: Kit, given: Given, out: string): void {
  if (/\.json$/i.test(out)) {
    const one = grooveMeant(kit, given)
    writeFile(out, new TextEncoder().encode(`${JSON.stringify(one, null, 2)}\n`))
    return console.log(`${one.name || one.id}, written to ${out}`)
  }
  if (!/\.midi?$/i.test(out)) throw new WrongUsage('--out is a FILE.mid or a FILE.json.')
  const { what, beats, name } = playedBy(kit, given)
  const { bytes, without } = midiOfGroove(kit, what, beats, name)
  writeFile(out, bytes)
  if (without.length > 0) console.error(`${without.length} pads have no note: their strikes are left out.`)
  console.log(`${name}, ${beats} beats, written to ${out}`)
}

/** A kit with the groove of a file put in beside its own. */
function withGrooveOf(kit: Kit, path: string): { readonly kit: Kit; readonly words: string } {
  const bytes = readBytes(path)
  const makeId = createIds(Math.random)
  const name = freeGrooveName(kit, stem(path).slice(0, 100) || 'Groove')
  const { one, words } = /\.json$/i.test(path) ? grooveOfJson(makeId, kit, path, bytes, name) : grooveOfFile(makeId, kit, path, bytes, name)
  return { kit: applyEdit(kit, { type: 'putGroove', groove: one }), words: `${one.name}: ${words}` }
}

type Read = { readonly one: Groove; readonly words: string }

function grooveOfFile(makeId: ReturnType<typeof createIds>, kit: Kit, path: string, bytes: Uint8Array, name: string): Read {
  const result = grooveOfMidi(makeId, kit, bytes, name)
  if (!result.ok) throw new InputFault(`${path}: ${result.message}`)
  const { groove: one, strikes, without, beyond } = result.read
  if (without.length > 0) console.error(`${path}: no pad answers ${without.map(({ note }) => note).join(', ')}: left out.`)
  if (beyond > 0) console.error(`${path}: ${beyond} strikes lie beyond 1024 steps: left out.`)
  return { one, words: `${strikes} strikes on ${one.strings.length} pads` }
}

function grooveOfJson(makeId: ReturnType<typeof createIds>, kit: Kit, path: string, bytes: Uint8Array, name: string): Read {
  let json: unknown
  try {
    json = JSON.parse(new TextDecoder().decode(bytes))
  } catch {
    throw new InputFault(`${path}: This is no JSON.`)
  }
  const parsed = grooveSchema.safeParse(json)
  if (!parsed.success) {
    const [issue] = parsed.error.issues
    throw new InputFault(`${path}: ${issue!.path.join('.') || 'The file'}: ${issue!.message}`)
  }
  const pads = new Set(kit.pads.map(({ id }) => id))
  const strings = parsed.data.strings.filter(({ padId }) => pads.has(padId))
  if (strings.length < parsed.data.strings.length) console.error(`${path}: ${parsed.data.strings.length - strings.length} strings are of pads that this kit has not: left out.`) // prettier-ignore
  const one = copyOfGroove(makeId, { ...parsed.data, strings }, freeGrooveName(kit, parsed.data.name || name))
  return { one, words: `${strings.length} strings` }
}
