import { hashAudio } from '@heliaster/core/audio'
import { kitKind } from '@heliaster/core/kit'
import type { AudioHash, Kit, Performance } from '@heliaster/core/kit'
import type { Passage } from '@heliaster/core/performance'

import { performances } from '../../documents'
import { makeId } from '../../documents/make-id'
import { audioBytes, keepAudio } from '../files/audio-files'
import { memoryOf } from './remembering'

/** A passage as a performance that is not kept; nothing where it is no longer known what it began with. */
export function passageToHear(kit: Kit, passage: Passage): Performance | undefined {
  return madeOf(kit, passage, (one) => {
    const { hash } = textOf(one)
    texts.set(hash, one)
    return hash
  })
}

function madeOf(kit: Kit, passage: Stretch, hashOf: (kit: Kit) => AudioHash): Performance | undefined {
  return memoryOf(kit.id)?.performanceOf(passage, { name: nameFor(kit), kitId: kit.id, hashOf, makeId })
}

/** Where in what was played a pass begins and ends, by frames of the engine, and when it began, in ms since 1970. */
export type Stretch = Pick<Passage, 'fromFrame' | 'toFrame' | 'fromMs'>

/** Keeps a passage that was played, with the texts of the kits it was played on. Returns it, or why it cannot be kept. */
export async function keepPassage(kit: Kit, passage: Stretch): Promise<Performance | string> {
  const made = await passageToKeep(kit, passage)
  if (typeof made !== 'string') await performances.create(made)
  return made
}

/** The same before it is kept as a document of its own: the texts of its kits are kept already. */
export async function passageToKeep(kit: Kit, passage: Stretch): Promise<Performance | string> {
  const hashes = new Map<Kit, AudioHash>()
  for (const one of memoryOf(kit.id)?.kitsOf(passage) ?? []) hashes.set(one, await keepText(one))
  const made = madeOf(kit, passage, (one) => hashes.get(one)!)
  if (!made) return 'This was played too long ago: what it began with is no longer known. Play it again, and keep it within ten minutes.'
  return made
}

async function keepText(kit: Kit): Promise<AudioHash> {
  const { hash, bytes } = textOf(kit)
  texts.set(hash, kit)
  await keepAudio(hash, `${kit.name} as it was played.json`, new Blob([bytes]))
  return hash
}

function textOf(kit: Kit) {
  const bytes = new TextEncoder().encode(JSON.stringify(kit))
  return { bytes, hash: hashAudio(bytes) }
}

/** The first free number behind the name of the kit. */
function nameFor(kit: Kit): string {
  const taken = new Set(Object.values(performances.store.getState().entries).map(({ doc }) => doc.name))
  for (let number = 1; ; number++) {
    const name = `${kit.name} ${number}`
    if (!taken.has(name)) return name
  }
}

const texts = new Map<AudioHash, Kit>()

/** A kit as it was when it was played on. Throws an Error that says why it is not to be had. */
export async function playedKit(hash: AudioHash): Promise<Kit> {
  const known = texts.get(hash)
  if (known) return known
  const read = kitKind.read(JSON.parse(new TextDecoder().decode(await audioBytes(hash))))
  if (!read.ok) throw new Error(`The kit that this was played on cannot be read. ${read.message}`)
  texts.set(hash, read.value)
  return read.value
}
