/** Immutable steps on lists and objects. Each returns what it was given when nothing changes. */

interface HasId {
  readonly id: string
}

export function withoutId<T extends HasId>(list: T[], id: string): T[] {
  return list.some((item) => item.id === id) ? list.filter((item) => item.id !== id) : list
}

export function replaceById<T extends HasId>(list: T[], id: string, change: (item: T) => T, onMissing: () => never): T[] {
  const at = list.findIndex((item) => item.id === id)
  if (at < 0) return onMissing()
  const changed = change(list[at]!)
  return changed === list[at] ? list : [...list.slice(0, at), changed, ...list.slice(at + 1)]
}

/** Replaces the item with this id where it stands, or puts it in at `index` (at the end without one). */
export function putById<T extends HasId>(list: T[], item: T, index = list.length): T[] {
  const at = list.findIndex((other) => other.id === item.id)
  if (at < 0) return [...list.slice(0, index), item, ...list.slice(index)]
  return sameData(list[at], item) ? list : [...list.slice(0, at), item, ...list.slice(at + 1)]
}

export function movedTo<T extends HasId>(list: T[], id: string, index: number): T[] {
  const item = list.find((other) => other.id === id)
  const at = item ? list.indexOf(item) : -1
  if (!item || at === Math.min(index, list.length - 1)) return list
  const rest = list.filter((other) => other !== item)
  return [...rest.slice(0, index), item, ...rest.slice(index)]
}

/** Merges `fields` into `of`; the very same object when every field already holds the same data. */
export function merge<T extends object>(of: T, fields: Partial<T>): T {
  const changes = (Object.keys(fields) as (keyof T)[]).some((key) => !sameData(of[key], fields[key]))
  return changes ? { ...of, ...fields } : of
}

/** Whether two plain data values hold the same. */
export function sameData(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  if (Array.isArray(a) !== Array.isArray(b)) return false
  const keys = Object.keys(a)
  if (keys.length !== Object.keys(b).length) return false
  return keys.every((key) => key in b && sameData((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]))
}

/** Maps a list, leaving out what comes to nothing; the very same list when every item stays as it is. */
export function mapKept<T>(list: T[], change: (item: T) => T | undefined): T[] {
  let result: T[] | undefined
  for (let i = 0; i < list.length; i++) {
    const next = change(list[i]!)
    if (!result && next !== list[i]) result = list.slice(0, i)
    if (result && next !== undefined) result.push(next)
  }
  return result ?? list
}

/** The object without one of its fields. */
export function without<T extends object, K extends keyof T>(of: T, key: K): T {
  const { [key]: _gone, ...rest } = of
  return rest as unknown as T
}
