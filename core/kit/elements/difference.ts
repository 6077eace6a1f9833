import { sameData } from '../list'
import { Draft } from './draft'
import { EditDoesNotApply } from './element-edit'
import type { ElementEdit, Ground } from './element-edit'
import { identities, identity, isObject, isOneValue } from './identity'
import type { JsonObject } from './identity'

/** What a new item of a list is before anything is set on it, where several devices may make the same one by themselves. */
export type Bare = (at: readonly string[], item: unknown) => unknown

interface Way<Doc> {
  readonly before: Doc
  readonly after: Doc
  readonly ground: Ground<Doc>
  readonly bare: Bare
  readonly edits: ElementEdit[]
}

/**
 * The edits that lead from one document to the other, each naming no more than what differs. Parts that are the very same
 * object are not looked into.
 */
export function difference<Doc extends object>(
  before: Doc,
  after: Doc,
  ground: Ground<Doc> = () => undefined,
  bare: Bare = (_at, item) => item,
): ElementEdit[] {
  const way: Way<Doc> = { before, after, ground, bare, edits: [] }
  ofObjects(way, [], before as JsonObject, after as JsonObject)
  return way.edits
}

/**
 * The same, tried: what stands on something inherited comes out otherwise where that changes in the same step, and is then
 * said once more, as a whole.
 */
export function triedDifference<Doc extends object>(before: Doc, after: Doc, ground: Ground<Doc>, bare?: Bare): ElementEdit[] {
  const edits = difference(before, after, ground, bare)
  const made = applied(before, edits, ground)
  if (made) return [...edits, ...difference(made, after, () => undefined, bare)]
  const wholeLists: Ground<Doc> = (doc, at) => {
    const inherited = ground(doc, at)
    return Array.isArray(inherited) ? undefined : inherited
  }
  return difference(before, after, wholeLists, bare)
}

function applied<Doc extends object>(before: Doc, edits: readonly ElementEdit[], ground: Ground<Doc>): Doc | undefined {
  const draft = new Draft(before, ground)
  try {
    for (const edit of edits) draft.apply(edit)
    return draft.doc
  } catch (error) {
    if (error instanceof EditDoesNotApply) return undefined
    throw error
  }
}

function ofValues<Doc>(way: Way<Doc>, at: string[], before: unknown, after: unknown): void {
  if (before === after || sameData(before, after)) return
  if (Array.isArray(before) && Array.isArray(after)) ofLists(way, at, before, after)
  else if (isObject(before) && isObject(after) && !isOneValue(before, after)) ofObjects(way, at, before, after)
  else way.edits.push({ type: 'set', at, value: after })
}

function ofObjects<Doc>(way: Way<Doc>, at: string[], before: JsonObject, after: JsonObject): void {
  for (const key of new Set([...Object.keys(before), ...Object.keys(after)])) {
    const path = [...at, key]
    const had = before[key] !== undefined
    const has = after[key] !== undefined
    if (had && has) ofValues(way, path, before[key], after[key])
    else if (has) ofNew(way, path, after[key])
    else if (had) ofCleared(way, path, before[key])
  }
}

/** A value that was inherited is set part by part, so that only the parts meant become its own. */
function ofNew<Doc>(way: Way<Doc>, at: string[], after: unknown): void {
  const inherited = way.ground(way.before, at)
  const from = way.edits.length
  if (isObject(inherited) && isObject(after)) ofValues(way, at, inherited, after)
  else if (Array.isArray(inherited) && Array.isArray(after)) ofValues(way, at, inherited, after)
  if (way.edits.length === from) way.edits.push({ type: 'set', at, value: after })
}

/** A value that comes to be inherited again loses what was set, and goes if nobody set anything else on it meanwhile. */
function ofCleared<Doc>(way: Way<Doc>, at: string[], before: unknown): void {
  const inherited = way.ground(way.after, at)
  if (inherited === undefined) {
    way.edits.push({ type: 'set', at })
    return
  }
  ofValues(way, at, before, inherited)
  way.edits.push({ type: 'set', at, when: inherited })
}

function ofLists<Doc>(way: Way<Doc>, at: string[], before: readonly unknown[], after: readonly unknown[]): void {
  const keys = identities(after)
  const held = identities(before)
  if (!keys || !held) {
    way.edits.push({ type: 'set', at, value: after })
    return
  }
  if (keys.length === held.length && keys.every((key, i) => key === held[i])) {
    keys.forEach((key, i) => before[i] !== after[i] && ofValues(way, [...at, key], before[i], after[i]))
    return
  }
  const old = new Map(held.map((key, i) => [key, before[i]]))
  const wanted = new Set(keys)
  for (const key of held) if (!wanted.has(key)) way.edits.push({ type: 'remove', at, key })
  const staying = inOrder(keys.filter((key) => old.has(key)), held) // prettier-ignore
  keys.forEach((key, i) => {
    const previous = i === 0 ? null : keys[i - 1]!
    if (!old.has(key)) putNew(way, at, key, after[i], previous)
    else {
      if (!staying.has(key)) way.edits.push({ type: 'move', at, key, after: previous })
      ofValues(way, [...at, key], old.get(key), after[i])
    }
  })
}

function putNew<Doc>(way: Way<Doc>, at: string[], key: string, item: unknown, after: string | null): void {
  const bare = way.bare(at, item)
  way.edits.push({ type: 'put', at, item: bare, after })
  if (bare !== item && identity(bare) === key) ofValues(way, [...at, key], bare, item)
}

/** The longest run of `keys` that stands in the same order in `held`: those need not move. */
function inOrder(keys: readonly string[], held: readonly string[]): ReadonlySet<string> {
  const placeOf = new Map(held.map((key, i) => [key, i]))
  const places = keys.map((key) => placeOf.get(key)!)
  if (places.every((place, i) => i === 0 || place > places[i - 1]!)) return new Set(keys)
  const ends: number[] = [] // for each length, the key that ends the run with the lowest end
  const beforeIt: number[] = []
  places.forEach((place, i) => {
    let low = 0
    let high = ends.length
    while (low < high) {
      const middle = (low + high) >> 1
      if (places[ends[middle]!]! < place) low = middle + 1
      else high = middle
    }
    beforeIt[i] = low > 0 ? ends[low - 1]! : -1
    ends[low] = i
  })
  const run = new Set<string>()
  for (let i = ends[ends.length - 1] ?? -1; i >= 0; i = beforeIt[i]!) run.add(keys[i]!)
  return run
}
