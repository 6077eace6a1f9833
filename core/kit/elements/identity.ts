/** Plain data, as it is written in a document. */
export type Json = unknown
export type JsonObject = Readonly<Record<string, unknown>>

export function isObject(value: unknown): value is JsonObject {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

/** Fields by which items of a list are told apart, the strongest first. */
const naming = ['id', 'padId', 'busId', 'step'] as const

/**
 * What tells an item of a list from the others: its id where it has one, what it is about where it has none (the pad of
 * a string, the parameter of a lock), itself where it is a word or a number. Nothing for points of an envelope and the
 * like, which mean something only together. Beads and responses of the first version went by their step, and by their
 * control and target.
 */
export function identity(item: unknown): string | undefined {
  if (typeof item === 'string' || typeof item === 'number') return String(item)
  if (!isObject(item)) return undefined
  if (typeof item.param === 'string') return [item.scope, item.id, item.ray, item.param].filter((part) => part !== undefined).join('.')
  for (const field of naming) if (field in item) return String(item[field])
  if ('from' in item && isObject(item.to)) return [item.from, item.which, item.to.kind, item.to.rayId].map((part) => part ?? '').join('.')
  if ('from' in item) return String(item.from)
  return 'pad' in item ? String(item.pad) : undefined
}

/** The identities of a list in its order, or nothing where an item has none or two share one. */
export function identities(list: readonly unknown[]): string[] | undefined {
  const keys = list.map(identity)
  if (keys.some((key) => key === undefined) || new Set(keys).size < keys.length) return undefined
  return keys as string[]
}

/** Whether an item was named by chance when it was made, so that nobody else can have made another of that name. */
export function isUnique(item: unknown): boolean {
  return isObject(item) && 'id' in item
}

/**
 * Whether a value changes only as a whole: an envelope, whose sustain counts its points; a choice of another kind; a clip
 * of another file, where the old places mean nothing.
 */
export function isOneValue(before: JsonObject, after: JsonObject): boolean {
  return 'points' in after || before.kind !== after.kind || before.audio !== after.audio
}
