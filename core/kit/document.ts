import type { z } from 'zod'

import { bareItem } from './bare'
import { difference, Draft, EditDoesNotApply, triedDifference, isElementEdit } from './elements'
import type { Bare, ElementEdit, Ground } from './elements'
import { kitFault, performanceFault, sourceFault, startFault } from './fault'
import { kitGround } from './ground'
import type { Kit } from './kit'
import { applyEdit, applyUntidied, kitEditSchema } from './kit-edit'
import type { KitEdit } from './kit-edit'
import { applyPerformanceEdit, PERFORMANCE_VERSION, performanceEditSchema } from './performance'
import type { Performance, PerformanceEdit } from './performance'
import { SOURCE_VERSION, applySourceEdit, bareMarker, sourceEditSchema, sourceGround } from './source'
import type { Source, SourceEdit } from './source'
import { START_VERSION, applyStartEdit, startEditSchema } from './start'
import type { Start, StartEdit } from './start'
import { tidied } from './tidy'
import { readKit, readPerformance, readSource, readStart } from './upgrade'
import type { Read } from './upgrade'
import { KIT_VERSION } from './version'
import { upgradedKitEdits, upgradedStartEdits } from './version-1/edits'

export const kinds = ['kit', 'source', 'start', 'performance'] as const
export type Kind = (typeof kinds)[number]

/** What a store, the wire and the server need to know of a kind of document; all kinds share the rest. */
export interface DocumentKind<Doc, Edit> {
  readonly kind: Kind
  /** The version of the document's form that edits are for. */
  readonly version: number
  read(json: unknown): Read<Doc>
  readonly editSchema: z.ZodType<Edit>
  /** Makes an edit of this kind's own; edits of elements are made alike on all kinds. */
  apply(doc: Doc, edit: Edit): Doc
  /** The document without what names something that is gone. */
  tidy(doc: Doc, before: Doc): Doc
  /** Why a document may not be left like this, in a sentence. */
  fault(doc: Doc): string | undefined
  readonly ground: Ground<Doc>
  readonly bare?: Bare
  /** Edits that were made for an older version, as edits of this document; those that find no place are told. */
  upgraded(doc: Doc, edits: readonly AnyEdit[], version: number): { readonly edits: Edit[]; readonly refused: Refused<AnyEdit>[] }
  /** Whether an edit says more than what it changes here and now, and so travels as it is. */
  travelsWhole(edit: Edit): boolean
}

export const kitKind: DocumentKind<Kit, KitEdit> = {
  kind: 'kit',
  version: KIT_VERSION,
  read: readKit,
  editSchema: kitEditSchema,
  apply: (kit, edit) => (isElementEdit(edit) ? applyEdit(kit, edit) : applyUntidied(kit, edit)),
  tidy: tidied,
  fault: kitFault,
  ground: kitGround,
  bare: bareItem,
  upgraded: upgradedKitEdits,
  travelsWhole: (edit) => edit.type === 'replaceAudio', // clips put on this file elsewhere meanwhile are meant too
}

export const sourceKind: DocumentKind<Source, SourceEdit> = {
  kind: 'source',
  version: SOURCE_VERSION,
  read: readSource,
  editSchema: sourceEditSchema,
  apply: applySourceEdit,
  tidy: (source) => source,
  fault: sourceFault,
  ground: sourceGround,
  upgraded: (_source, edits) => ({ edits: edits as SourceEdit[], refused: [] }), // the elements of recordings are where they were
  bare: bareMarker,
  travelsWhole: () => false,
}

export const startKind: DocumentKind<Start, StartEdit> = {
  kind: 'start',
  version: START_VERSION,
  read: readStart,
  editSchema: startEditSchema,
  apply: applyStartEdit,
  tidy: (start) => start,
  fault: startFault,
  upgraded: (start, edits) => upgradedStartEdits(start, edits) as { edits: StartEdit[]; refused: Refused<AnyEdit>[] },
  ground: () => undefined,
  travelsWhole: () => false,
}

export const performanceKind: DocumentKind<Performance, PerformanceEdit> = {
  kind: 'performance',
  version: PERFORMANCE_VERSION,
  read: readPerformance,
  editSchema: performanceEditSchema,
  apply: applyPerformanceEdit,
  tidy: (performance) => performance,
  fault: performanceFault,
  upgraded: (_performance, edits) => ({ edits: edits as PerformanceEdit[], refused: [] }),
  ground: () => undefined,
  travelsWhole: () => false,
}

export interface Refused<Edit> {
  readonly edit: Edit
  readonly reason: string
}

export interface Applied<Doc, Edit> {
  readonly doc: Doc
  /** Edits that no longer fit, each with its reason; the others are applied. */
  readonly refused: Refused<Edit>[]
}

/** What every edit of every kind has. */
export interface AnyEdit {
  readonly type: string
}

/**
 * Applies a batch in order. What is set on something that is gone is told and left out; where a thing finds no place, or
 * the document would come out in a form it may not have, the whole batch is told and nothing of it is made. What only
 * follows a finger need not be checked: it is when the finger lifts.
 */
export function applyBatch<Doc extends object, Edit extends AnyEdit>(
  kind: DocumentKind<Doc, Edit>,
  before: Doc,
  edits: readonly Edit[],
  isChecked = true,
): Applied<Doc, Edit> {
  const refuseAll = (reason: string) => ({ doc: before, refused: edits.map((edit) => ({ edit, reason })) })
  let doc = before
  let draft: Draft<Doc> | undefined
  const refused: Refused<Edit>[] = []
  for (const edit of edits) {
    try {
      if (isElementEdit(edit)) (draft ??= new Draft(doc, kind.ground)).apply(edit)
      else {
        doc = kind.apply(draft?.doc ?? doc, edit)
        draft = undefined
      }
    } catch (error) {
      if (!(error instanceof EditDoesNotApply)) throw error
      if (edit.type === 'put' || edit.type === 'move') return refuseAll(error.message)
      refused.push({ edit, reason: error.message })
    }
  }
  const after = kind.tidy(draft?.doc ?? doc, before)
  const fault = after === before || !isChecked ? undefined : kind.fault(after)
  return fault ? refuseAll(fault) : { doc: after, refused }
}

/** Edits in the form of now, whatever version of the document they were made for; the first one where that is not said. */
export function editsOfNow<Doc extends object, Edit extends AnyEdit>(
  kind: DocumentKind<Doc, Edit>,
  doc: Doc,
  edits: readonly AnyEdit[],
  version = 1,
): { readonly edits: Edit[]; readonly refused: Refused<AnyEdit>[] } {
  return version >= kind.version ? { edits: edits as Edit[], refused: [] } : kind.upgraded(doc, edits, version)
}

/** A change made ready: the document after it, what travels and is remembered of it, and what undoes it. */
export interface Change<Doc, Edit> extends Applied<Doc, Edit> {
  readonly edits: Edit[]
  readonly inverses: Edit[]
}

/** Makes edits on a document and says them again as edits of those elements alone that they change. */
export function makeChange<Doc extends object, Edit extends AnyEdit>(
  kind: DocumentKind<Doc, Edit | ElementEdit>,
  before: Doc,
  edits: readonly Edit[],
  isChecked = true,
): Change<Doc, Edit> {
  const { doc, refused } = applyBatch(kind, before, edits, isChecked)
  if (doc === before) return { doc, edits: [], inverses: [], refused: refused as Refused<Edit>[] }
  const inverses = triedDifference(doc, before, kind.ground, kind.bare) as unknown as Edit[]
  if (edits.some((edit) => kind.travelsWhole(edit))) return { doc, edits: [...edits], inverses, refused: refused as Refused<Edit>[] }
  const elements = triedDifference(before, doc, kind.ground, kind.bare) as unknown as Edit[]
  // Made anew from what travels, so that this device holds what every other one will.
  return { doc: applyBatch(kind, before, elements, false).doc, edits: elements, inverses, refused: refused as Refused<Edit>[] }
}

/** The second document, sharing with the first all that is alike in both; the very first one where nothing differs. */
export function sharedWith<Doc extends object, Edit extends AnyEdit>(kind: DocumentKind<Doc, Edit>, before: Doc, after: Doc): Doc {
  const draft = new Draft(before, kind.ground)
  for (const edit of difference(before, after, kind.ground)) draft.apply(edit)
  return draft.doc
}

/** The edits that undo `edit`, given the document as it was before it. An edit that changes nothing has none. */
export function inversesOf<Doc extends object, Edit extends AnyEdit>(kind: DocumentKind<Doc, Edit>, before: Doc, edit: Edit): Edit[] {
  const after = kind.tidy(kind.apply(before, edit), before)
  return after === before ? [] : (difference(after, before, kind.ground, kind.bare) as unknown as Edit[])
}
