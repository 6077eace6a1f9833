import { applyBatch, editsOfNow } from '@heliaster/core/kit'
import type { AnyEdit } from '@heliaster/core/kit'

import { device } from '../documents'
import { makeId } from '../documents/make-id'
import type { SetApart } from '../documents/documents'
import { localDb } from '../sync/local-db'
import type { RefusedEdits } from '../sync/local-db'
import { notify } from '../ui/layout/notices'
import { saveFile } from '../ui/device/choose-files'

export async function readRefused(): Promise<RefusedEdits[]> {
  return (await localDb()).getAll('refused')
}

export async function putAway({ place }: RefusedEdits): Promise<void> {
  if (place !== undefined) await (await localDb()).delete('refused', place)
  device.filesKept()
}

const editsOf = (refused: RefusedEdits): AnyEdit[] => (refused.edits ?? [refused.edit]) as AnyEdit[]

/** Makes changes that were kept aside on the document of now, brought back first where it was deleted. */
export async function applyAgain(refused: RefusedEdits): Promise<void> {
  const { kind, docId } = refused
  const documents = device.documentsOf(kind)
  const whole = documents.kind.read(refused.edits?.[0])
  if (whole.ok) {
    // A document that was new when it was refused is made anew, as one of its own.
    await documents.create({ ...whole.value, id: makeId(kind) })
    return putAway(refused)
  }
  if (!documents.store.getState().entries[docId] && !(await documents.bringBack(docId))) {
    notify('This is no longer on this device or on the server, so there is nothing to make the changes on.')
    return
  }
  const entry = documents.store.getState().entries[docId]
  const now = entry && editsOfNow(documents.kind, entry.doc, editsOf(refused), refused.version)
  const tried = now && applyBatch(documents.kind, entry.doc, now.edits)
  if (!tried || tried.refused.length === now.edits.length) {
    notify(`They still do not fit: ${[...(now?.refused ?? []), ...(tried?.refused ?? [])][0]?.reason ?? 'the document cannot be read.'}`)
    return
  }
  documents.edit(docId, now.edits)
  await putAway(refused)
}

/** The name of what a change was made on, as far as it is still known. */
export function nameOf({ kind, docId }: RefusedEdits): string {
  const name = device.documentsOf(kind).store.getState().entries[docId]?.doc.name
  return name ?? { kit: 'A kit', source: 'A recording', start: 'A start', performance: 'A performance' }[kind]
}

/** What was meant, as well as its data tells. */
export function describeEdits(refused: RefusedEdits): string {
  const edits = editsOf(refused)
  const what = inWords(edits[0] as Described)
  return edits.length === 1 ? what : `${what}, and ${edits.length - 1} more`
}

interface Described {
  readonly type: string
  readonly at?: readonly string[]
  readonly value?: unknown
  readonly item?: unknown
}

const things: Record<string, string> = {
  pads: 'pad', rays: 'ray', bands: 'band', turns: 'turn', ties: 'tie', buses: 'bus', grooves: 'groove', strings: 'string',
  beads: 'bead', markers: 'marker', clips: 'clip', responses: 'response', sends: 'send', audio: 'file', notes: 'note',
} // prettier-ignore

/** `gain dB of a band: -3`, `a bead put in`: what an edit does, in the words of the screens. */
function inWords({ type, at = [], value, item }: Described): string {
  const named = at.map((step) => things[step]).filter((one) => one !== undefined)
  const thing = named[named.length - 1]
  if (type === 'put') return `${nameIn(item) ?? `a ${thing ?? 'thing'}`} put in`
  if (type === 'move' || type === 'remove') return `a ${thing ?? 'thing'} ${type === 'move' ? 'moved' : 'taken away'}`
  if (type !== 'set') return type.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`)
  const field = at[at.length - 1].replace(/([a-z])([A-Z])/g, (_, before: string, letter: string) => `${before} ${letter}`)
  const of = thing ? ` of a ${thing}` : ''
  return `${field}${of}${value === undefined ? ' as usual' : typeof value === 'object' ? '' : `: ${String(value)}`}`
}

function nameIn(item: unknown): string | undefined {
  const { name, own } = (item ?? {}) as { name?: string; own?: { name?: string } }
  const found = name ?? own?.name
  return found ? `“${found}”` : undefined
}

/** Everything this page has open, as one file for each kit, so that nothing hangs on a device that cannot write. */
export function saveAllAsFile(): void {
  for (const { doc } of Object.values(device.kits.store.getState().entries)) {
    if (device.shelf.isUnkept('kit', doc.id)) saveFile(`${doc.name || 'kit'}.json`, JSON.stringify(doc), 'application/json')
  }
  for (const { doc } of Object.values(device.sources.store.getState().entries)) {
    if (device.shelf.isUnkept('source', doc.id)) saveFile(`${doc.name || 'recording'}.json`, JSON.stringify(doc), 'application/json')
  }
}

export function saveAsFile({ id, doc }: SetApart): void {
  if (doc !== undefined) saveFile(`${id}.json`, JSON.stringify(doc), 'application/json')
  else window.open(`/api/kits/${id}/file`, '_blank')
}
