import { z } from 'zod'

/** Names of fields and identities of list items on the way from the document to an element; never a place in a list. */
const pathSchema = z.array(z.string().max(300)).max(16)

/**
 * Edits of single elements: the form in which every change travels and is undone. What an edit does not name it leaves
 * alone, so two devices that change different things never undo each other.
 */
export const elementEditSchemas = [
  /**
   * Sets one value; without a `value` it is cleared and falls back to what it inherits. With `when` it does so only where
   * the value is exactly that, and else changes nothing.
   */
  z.strictObject({ type: z.literal('set'), at: pathSchema.min(1), value: z.unknown().optional(), when: z.unknown().optional() }),
  /** Puts an item into the list `at`, behind the item `after`, at the front for null, at the end where that one is gone. */
  z.strictObject({ type: z.literal('put'), at: pathSchema.min(1), item: z.unknown(), after: z.string().max(300).nullable() }),
  z.strictObject({ type: z.literal('move'), at: pathSchema.min(1), key: z.string().max(300), after: z.string().max(300).nullable() }),
  /** Takes an item out of the list `at`. What is gone already is no fault. */
  z.strictObject({ type: z.literal('remove'), at: pathSchema.min(1), key: z.string().max(300) }),
] as const
export const elementEditSchema = z.discriminatedUnion('type', elementEditSchemas)
export type ElementEdit = z.infer<typeof elementEditSchema>

const elementTypes: ReadonlySet<string> = new Set(elementEditSchemas.map((schema) => schema.shape.type.value))

export function isElementEdit(edit: { readonly type: string }): edit is ElementEdit {
  return elementTypes.has(edit.type)
}

/**
 * What an absent element of a document stands for, so that setting a part of it sets that part alone: a pad without a
 * shape of its own has its leader's. Nothing where an absent element is simply not there.
 */
export type Ground<Doc> = (doc: Doc, at: readonly string[]) => unknown

/** Says why an edit no longer fits the document it meets, for instance because its pad has been removed meanwhile. */
export class EditDoesNotApply extends Error {}
