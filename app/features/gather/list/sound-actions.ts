import type { Source, SourceEdit } from '@heliaster/core/kit'
import { clipOfSource } from '@heliaster/core/kit'

import { hearClip } from '../../../audio/engine/sound'
import { kits } from '../../../documents'
import { deleteSounds, editSounds, undoLibrary } from '../../../documents/library'
import { notify } from '../../../ui/layout/notices'
import { kitsUsing, libraryView, noteHeard, usersInWords } from './library-view'

/** Sounds a whole file at the list's own level, through the channels that its clips take. */
export function hearSound(source: Source): void {
  noteHeard(source.id)
  hearClip(clipOfSource(source), libraryView.getState().hearDb).catch((error: Error) => notify(error.message))
}

type Fields = Extract<SourceEdit, { type: 'setSource' }>['fields']

/** The same fields for all, in one step. */
export function setSounds(sounds: readonly Source[], fields: Fields | ((source: Source, index: number) => Fields)): void {
  editSounds(
    sounds.map((source, i) => ({
      id: source.id,
      edits: [{ type: 'setSource' as const, fields: typeof fields === 'function' ? fields(source, i) : fields }],
    })),
  )
}

const NEXT = { open: 'keep', keep: 'pass', pass: 'open' } as const

export function judgeSound(source: Source, verdict: Source['verdict'] = NEXT[source.verdict]): void {
  setSounds([source], { verdict })
}

export function favourSounds(sounds: readonly Source[], favourite: boolean): void {
  setSounds(sounds, { favourite })
}

/** Whether there are kits that this device does not have, so that nothing is known of what they use. */
const areElsewhere = () => Object.keys(kits.store.getState().elsewhere).length > 0

/** Which kits use a sound, in a sentence. */
export function usedWords(source: Source): string {
  const users = kitsUsing(Object.values(kits.store.getState().entries).map((entry) => entry.doc), [source]) // prettier-ignore
  if (users.length > 0) return `Used by ${usersInWords(users)}.`
  return areElsewhere() ? 'No kit on this device uses it.' : 'No kit uses it yet.'
}

/** What deleting these would touch, in a sentence; empty when no kit uses them. */
export function deletionWarning(sounds: readonly Source[]): string {
  const all = Object.values(kits.store.getState().entries).map((entry) => entry.doc)
  const users = kitsUsing(all, sounds)
  const unknown = 'No kit on this device uses this. What is used by others on the server keeps sounding there.'
  if (users.length === 0) return areElsewhere() ? unknown : ''
  const what = sounds.length === 1 ? 'This sound is' : 'Some of these are'
  return `${what} used by ${usersInWords(users)}. The pads keep sounding; only the list loses ${sounds.length === 1 ? 'it' : 'them'}.`
}

export async function removeSounds(sounds: readonly Source[]): Promise<void> {
  await deleteSounds(sounds.map((source) => source.id))
  const what = sounds.length === 1 ? `“${sounds[0].name}” is` : `${sounds.length} sounds are`
  notify(`${what} off the list.`, { label: 'Undo', run: () => void undoLibrary() })
}
