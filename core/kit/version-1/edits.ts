import { triedDifference, EditDoesNotApply, Draft, isElementEdit } from '../elements'
import type { ElementEdit } from '../elements'
import { bareItem } from '../bare'
import { kitFault } from '../fault'
import { kitGround } from '../ground'
import type { Kit } from '../kit'
import { applyUntidied } from '../kit-edit'
import type { KitEdit } from '../kit-edit'
import { usualPadSettings } from '../make'
import { settled } from '../resolve'
import type { Start } from '../start'
import { startSchema } from '../start'
import { tidied } from '../tidy'
import { asFirstKit, asFirstStart } from './as-first'
import { oldKitGround } from './old-ground'
import type { Kit as OldKit } from './kit'
import { upgradedKit, upgradedStart } from './upgrade'

/** Edits in the form of now, and those of then that find nothing any more to be made on. */
export interface UpgradedEdits<Edit> {
  readonly edits: Edit[]
  readonly refused: { readonly edit: { readonly type: string }; readonly reason: string }[]
}

type OldEdit = { readonly type: string }

/**
 * Edits that were made for kits of the first version, as edits of this kit: they are made on the kit as that version
 * would have seen it, and what comes of them is said anew. So upgraded(changed(kit)) is changed(upgraded(kit)).
 */
export function upgradedKitEdits(kit: Kit, edits: readonly OldEdit[]): UpgradedEdits<KitEdit> {
  const first = asFirstKit(kit)
  const { doc, refused } = applied(first, edits, oldKitGround, applyOldWhole)
  if (doc === first) return { edits: [], refused }
  const after = tidied(upgradedIfWell(doc) ?? kit)
  const fault = after === kit ? 'It would leave the kit in a form that is not allowed.' : kitFault(after)
  if (fault) return { edits: [], refused: edits.map((edit) => ({ edit, reason: fault })) }
  return { edits: triedDifference(tidied(upgradedKit(first)), after, kitGround, bareItem) as KitEdit[], refused }
}

/** An edit may have put anything anywhere: what is no kit of the first version becomes none of the second. */
function upgradedIfWell(kit: OldKit): Kit | undefined {
  try {
    return upgradedKit(kit)
  } catch {
    return undefined
  }
}

/** The same for starts. */
export function upgradedStartEdits(start: Start, edits: readonly OldEdit[]): UpgradedEdits<ElementEdit> {
  const first = asFirstStart(start, settled(usualPadSettings, start.pad ?? {}))
  const setFields = (held: Record<string, unknown>, edit: OldEdit) => ({ ...held, ...(edit as unknown as { fields: object }).fields })
  const { doc, refused } = applied(first, edits, () => undefined, setFields)
  const [before, after] = [first, doc].map((one) => startSchema.safeParse({ ...upgradedStart(one), version: 2 }))
  if (!before!.success || !after!.success)
    return { edits: [], refused: edits.map((edit) => ({ edit, reason: 'It would leave the start in a form that is not allowed.' })) }
  return { edits: triedDifference(before!.data, after!.data, () => undefined), refused }
}

function applied<Doc extends object>(
  first: Doc,
  edits: readonly OldEdit[],
  ground: (doc: Doc, at: readonly string[]) => unknown,
  applyWhole: (doc: Doc, edit: OldEdit) => Doc,
): { doc: Doc; refused: UpgradedEdits<never>['refused'] } {
  let doc = first
  const refused: UpgradedEdits<never>['refused'] = []
  for (const edit of edits) {
    try {
      if (isElementEdit(edit)) {
        const draft = new Draft(doc, ground)
        draft.apply(edit)
        doc = draft.doc
      } else doc = applyWhole(doc, edit)
    } catch (error) {
      if (!(error instanceof EditDoesNotApply)) throw error
      const { message: reason } = error
      if (edit.type === 'put' || edit.type === 'move') return { doc: first, refused: edits.map((one) => ({ edit: one, reason })) }
      refused.push({ edit, reason })
    }
  }
  return { doc, refused }
}

/** Edits of things as wholes go by the places of a kit's parts, which are the same in both versions. */
function applyOldWhole(kit: OldKit, edit: OldEdit): OldKit {
  return applyUntidied(kit as unknown as Kit, edit as Exclude<KitEdit, ElementEdit>) as unknown as OldKit
}
