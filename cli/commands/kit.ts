import { basename, dirname, resolve } from 'node:path'

import { measureSound, soundingOfMeasured } from '@heliaster/core/alike'
import { hashAudio, strikeLoudness, toMono } from '@heliaster/core/audio'
import { createIds, createKit, createPad, freeNote, velocityToLevel, wholeClip } from '@heliaster/core/kit'
import type { AudioHash, Clip, Kit, Measured } from '@heliaster/core/kit'
import {
  asTurns,
  byLoudness,
  padsOfPlan,
  pairsOfStrikes,
  pairsOfSuspects,
  pairsToHear,
  patternReader,
  planByNames,
  planByPattern,
  readNames,
  strikeLikeness,
  wrongFiles,
  wrongWords,
} from '@heliaster/core/place'
import type { Likeness, NamePlan, PatternReader, WrongFile } from '@heliaster/core/place'
import { writeBundle } from '@heliaster/core/ship'

import { listAudioFiles, readAudioFile, stem, writeFile } from '../files'
import { InputFault } from '../input-fault'
import { choiceOption, requiredOption, WrongUsage } from '../main'
import type { Command, Given } from '../main'

interface KitFile {
  readonly name: string
  /** The folder it lies in. */
  readonly folder: string
  readonly hash: AudioHash
  readonly bytes: Uint8Array
  readonly clip: Clip
  readonly loudnessDb: number
  readonly measured: Measured
  readonly info: Kit['audio'][string]
  mono(): Float32Array
}

/**
 * Files to a kit: by order, each its own pad; by loudness, all to one pad as bands and turns; by names, as the names say,
 * compared with each other or by a pattern.
 */
export const kit: Command = {
  options: { out: { type: 'string' }, by: { type: 'string' }, pattern: { type: 'string' } },
  paths: [1, Infinity],
  async run(given) {
    const out = requiredOption(given, 'out')
    const by = choiceOption(given, 'by', ['order', 'loudness', 'names'] as const, 'order')
    const read = patternOption(given, by)
    const files: KitFile[] = []
    for (const path of listAudioFiles(given.paths)) files.push(await readFile(path))
    if (by === 'order' && files.length > 128)
      throw new InputFault(`There are ${files.length} files and a kit holds at most 128 pads. Name fewer, or use --by loudness.`)
    const made = by === 'names' ? byNames(files, stem(out), read) : by === 'order' ? padForEach(files, stem(out)) : onePad(files, stem(out))
    const bytes = new Map(files.map((file) => [file.hash, file.bytes]))
    writeFile(
      out,
      writeBundle(made, (hash) => bytes.get(hash)),
    )
  },
}

function patternOption(given: Given, by: string): PatternReader | undefined {
  const { pattern } = given.options
  if (typeof pattern !== 'string') return undefined
  if (by !== 'names') throw new WrongUsage('--pattern says how names are read and goes with --by names.')
  const read = patternReader(pattern)
  if (typeof read === 'string') throw new WrongUsage(read)
  return read
}

async function readFile(path: string): Promise<KitFile> {
  const { bytes, audio, notes } = await readAudioFile(path)
  for (const note of notes) console.error(`${path}: ${note}`)
  const info = {
    name: basename(path),
    sampleRateHz: audio.sampleRateHz,
    frames: audio.channels[0].length,
    channels: audio.channels.length,
  }
  const hash = hashAudio(bytes)
  return {
    name: stem(path),
    folder: basename(dirname(resolve(path))),
    hash,
    bytes,
    clip: wholeClip(hash, info),
    loudnessDb: strikeLoudness(audio.channels, audio.sampleRateHz),
    measured: measureSound(audio),
    info,
    mono: () => toMono(audio),
  }
}

/** Ids from the name and number of files alone, so that the same call makes the same bundle. */
function startKit(name: string, files: readonly KitFile[]) {
  let state = files.reduce((sum, file) => (Math.imul(sum, 31) + parseInt(file.hash.slice(0, 8), 16)) >>> 0, name.length)
  const makeId = createIds(() => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296)
  const audio = Object.fromEntries(files.map((file) => [file.hash, file.info]))
  return { makeId, kit: { ...createKit(makeId, name), audio } }
}

function padForEach(files: readonly KitFile[], name: string): Kit {
  const { makeId, kit: empty } = startKit(name, files)
  return files.reduce((made, file) => {
    const pad = createPad(makeId, { name: file.name }, freeNote(made))
    return { ...made, pads: [...made.pads, { ...pad, bands: asTurns(makeId, pad.rays[0].id, [file.clip]) }] }
  }, empty)
}

function onePad(files: readonly KitFile[], name: string): Kit {
  const { makeId, kit: empty } = startKit(name, files)
  const pad = createPad(makeId, { name, pick: 'shuffle' }, 36)
  const bands = byLoudness(makeId, pad.rays[0].id, files)
  return { ...empty, pads: [{ ...pad, own: { ...pad.own, responses: [velocityToLevel(bands.length)] }, bands, spread: 'loudness' }] }
}

/** How alike the files sound, where names and lengths leave open which are the same strike. */
function likenessOf(files: readonly KitFile[], named: Parameters<typeof pairsToHear>[0]): Likeness | undefined {
  const known = heard(files, pairsToHear(named))
  return known.size > 0 ? (file, other) => known.get(`${file} ${other}`) : undefined
}

function heard(files: readonly KitFile[], pairs: readonly [number, number][]): Map<string, number> {
  const known = new Map<string, number>()
  for (const [a, b] of pairs) {
    if (files[a].info.sampleRateHz !== files[b].info.sampleRateHz) continue
    const likeness = strikeLikeness(files[a].mono(), files[b].mono(), files[a].info.sampleRateHz)
    if (likeness !== undefined) known.set(`${a} ${b}`, likeness)
  }
  return known
}

/** More pairs than this would take minutes. */
const MOST_PAIRS = 1500

/** Files that do not sound like what their names say. */
function wrongByEar(files: readonly KitFile[], plan: NamePlan): WrongFile[] {
  const strikes = pairsOfStrikes(plan)
  const first = strikes.length > MOST_PAIRS ? new Map<string, number>() : heard(files, strikes)
  const more = heard(files, pairsOfSuspects(plan, (a, b) => first.get(`${a} ${b}`)).slice(0, MOST_PAIRS))
  const portraits = files.map(({ measured }) => soundingOfMeasured(measured)?.portrait)
  return wrongFiles(plan, (a, b) => first.get(`${a} ${b}`) ?? more.get(`${a} ${b}`), portraits)
}

/** What finds no place is told on standard error, as is what the names leave open; the rest is kept. */
function byNames(all: readonly KitFile[], name: string, pattern?: PatternReader): Kit {
  const { makeId, kit: empty } = startKit(name, all)
  const files = all
  if (pattern && !files.some((file) => pattern(file.name)))
    throw new InputFault('No name is made like the pattern. The ending, such as .wav, does not belong to it.')
  const named = files.map(({ name: own, folder, loudnessDb, measured, info }) => {
    const { centreHz, pitchHz } = measured
    const portrait = soundingOfMeasured(measured)?.portrait
    return { name: own, folder, loudnessDb, frames: info.frames, ...(centreHz ? { centreHz } : {}), ...(pitchHz ? { pitchHz } : {}), ...(portrait ? { portrait } : {}) } // prettier-ignore
  })
  const read = pattern ? undefined : readNames(named, {}, likenessOf(files, named))
  const plan = read ? planByNames(named, read) : planByPattern(named, pattern!)
  for (const one of wrongByEar(files, plan))
    console.error(
      `${files[one.file].name}: ${wrongWords(
        one,
        files.map((file) => file.name),
      )}`,
    )
  if (read?.question) console.error(`${read.question.texts.join(', ')}: taken for ${read.question.roles.join(', may be ')}.`)
  for (const { file, reason } of plan.unplaced) console.error(`${files[file].name}: ${reason}`)
  for (const pad of plan.pads) for (const gap of pad.gaps) console.error(`${pad.name}: no file for ${gap}.`)
  const { pads, buses } = padsOfPlan(makeId, empty, { plan, clipOf: (file) => files[file].clip })
  return { ...empty, pads, buses }
}
