import { hashAudio } from '@heliaster/core/audio'
import { kitKind } from '@heliaster/core/kit'
import type { AudioHash, Kit, Performance } from '@heliaster/core/kit'
import type { Passage } from '@heliaster/core/performance'

import { performances } from '../../documents'
import { makeId } from '../../documents/make-id'
import { audioBytes, keepAudio } from '../files/audio-files'
import { memoryOf } from './remembering'

/** Keeps a passage that was played, with the texts of the kits it was played on. Returns it, or why it cannot be kept. */
export async function keepPassage(kit: Kit, passage: Passage): Promise<Performance | string> {
  const memory = memoryOf(kit.id)
  const kits = memory?.kitsOf(passage) ?? []
  const hashes = new Map<Kit, AudioHash>()
  for (const one of kits) hashes.set(one, await keepText(one))
  const made = memory?.performanceOf(passage, { name: nameFor(kit), kitId: kit.id, hashOf: (one) => hashes.get(one)!, makeId })
  if (!made) return 'This was played too long ago: what it began with is no longer known. Play it again, and keep it within ten minutes.'
  await performances.create(made)
  return made
}

async function keepText(kit: Kit): Promise<AudioHash> {
  const bytes = new TextEncoder().encode(JSON.stringify(kit))
  const hash = hashAudio(bytes)
  texts.set(hash, kit)
  await keepAudio(hash, `${kit.name} as it was played.json`, new Blob([bytes]))
  return hash
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
