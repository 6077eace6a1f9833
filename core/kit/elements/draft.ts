import { sameData } from '../list'
import { EditDoesNotApply } from './element-edit'
import type { ElementEdit, Ground } from './element-edit'
import { identity, isObject, isUnique } from './identity'

type Node = Record<string, unknown> | unknown[]

/**
 * A document while edits of its elements are made on it. What was given is never changed: what is touched is copied once,
 * so that thousands of edits of one list cost no more than one copy of it.
 */
export class Draft<Doc extends object> {
  private readonly owned = new Set<object>()
  /** Where an item of a list was found last; edits mostly go on beside the one before. */
  private readonly lastFound = new WeakMap<object, number>()
  /** What is in a list, so that what is not is known without a look at each item. */
  private readonly keysOf = new WeakMap<object, Set<string | undefined>>()

  constructor(
    private root: Doc,
    private readonly ground: Ground<Doc>,
  ) {}

  get doc(): Doc {
    return this.root
  }

  apply(edit: ElementEdit): void {
    switch (edit.type) {
      case 'set':
        return this.set(edit)
      case 'put':
        return this.put(edit.at, edit.item, edit.after)
      case 'move':
        return this.move(edit.at, edit.key, edit.after)
      case 'remove':
        return this.remove(edit.at, edit.key)
    }
  }

  private set({ at, value, when }: Extract<ElementEdit, { type: 'set' }>): void {
    const key = at[at.length - 1]!
    const parent = this.read(at.slice(0, -1))
    if (!parent) {
      if (value === undefined) return // what it stood on is gone, and it with it
      return this.missing(at)
    }
    const now = this.child(parent, key)
    if (when !== undefined && !sameData(now, when)) return
    if (Array.isArray(parent)) {
      if (now === undefined || value === undefined) return this.missing(at)
    } else if (value === undefined ? !Object.hasOwn(parent, key) : sameData(now, value)) return
    const owner = this.write(at.slice(0, -1))
    if (Array.isArray(owner)) {
      owner[this.find(owner, key)] = value
      this.keysOf.delete(owner) // the new value may have another name
    } else if (value === undefined) delete owner[key]
    else owner[key] = value
  }

  private put(at: readonly string[], item: unknown, after: string | null): void {
    const key = identity(item)
    if (key === undefined) throw new EditDoesNotApply('This change puts something into a list that has no name of its own.')
    const list = this.list(at) ?? this.missing(at)
    const place = this.find(list, key)
    if (place >= 0) {
      // An id is given once: whoever put it, it is the same thing. What is only called alike is meant to be as it is here.
      if (!isUnique(list[place]) && !sameData(list[place], item)) this.ownList(at)[place] = item
      return
    }
    this.insert(this.ownList(at), item, after)
  }

  private move(at: readonly string[], key: string, after: string | null): void {
    const list = this.list(at) ?? this.missing(at)
    const place = this.find(list, key)
    if (place < 0) return this.missing([...at, key])
    if (after === null ? place === 0 : place > 0 && identity(list[place - 1]) === after) return
    const owner = this.ownList(at)
    const [item] = owner.splice(place, 1)
    this.insert(owner, item, after)
  }

  private insert(list: unknown[], item: unknown, after: string | null): void {
    const place = after === null ? 0 : this.find(list, after) + 1
    const to = after !== null && place === 0 ? list.length : place
    list.splice(to, 0, item)
    this.keys(list).add(identity(item))
    this.lastFound.set(list, to)
  }

  private remove(at: readonly string[], key: string): void {
    const list = this.list(at)
    const place = list ? this.find(list, key) : -1
    if (place < 0) return
    const owner = this.ownList(at)
    owner.splice(place, 1)
    this.keysOf.delete(owner) // two items may have shared the name
  }

  private list(at: readonly string[]): unknown[] | undefined {
    const list = this.read(at)
    return Array.isArray(list) ? list : undefined
  }

  private ownList(at: readonly string[]): unknown[] {
    return this.write(at) as unknown[]
  }

  private find(list: readonly unknown[], key: string): number {
    const hint = this.lastFound.get(list) ?? 0
    for (const place of [hint, hint + 1]) {
      if (place < list.length && identity(list[place]) === key) {
        this.lastFound.set(list, place)
        return place
      }
    }
    if (!this.keys(list).has(key)) return -1
    const place = list.findIndex((item) => identity(item) === key)
    if (place >= 0) this.lastFound.set(list, place)
    return place
  }

  private keys(list: readonly unknown[]): Set<string | undefined> {
    let keys = this.keysOf.get(list)
    if (!keys) this.keysOf.set(list, (keys = new Set(list.map(identity))))
    return keys
  }

  private child(node: Node, key: string): unknown {
    if (Array.isArray(node)) return node[this.find(node, key)]
    return Object.hasOwn(node, key) ? node[key] : undefined
  }

  /** The element at a path, inherited ones included; nothing where the way to it is gone. */
  private read(at: readonly string[]): Node | undefined {
    let node: unknown = this.root
    for (let depth = 0; depth < at.length; depth++) {
      node = this.child(node as Node, at[depth]!) ?? this.ground(this.root, at.slice(0, depth + 1))
      if (!Array.isArray(node) && !isObject(node)) return undefined
    }
    return node as Node
  }

  /** The same, as a copy that may be changed; what was inherited becomes its own. */
  private write(at: readonly string[]): Node {
    let node = (this.root = this.own(this.root)) as Node
    for (let depth = 0; depth < at.length; depth++) {
      const key = at[depth]!
      const held = this.child(node, key) as Node | undefined
      const child = held ? this.own(held) : this.copied(this.ground(this.root, at.slice(0, depth + 1)) as Node)
      if (child !== held) {
        if (Array.isArray(node)) node[this.find(node, key)] = child
        else node[key] = child
      }
      node = child
    }
    return node
  }

  private missing(at: readonly string[]): never {
    const depth = at.findIndex((_, i) => this.read(at.slice(0, i + 1)) === undefined)
    return missing(depth < 0 ? at : at.slice(0, depth + 1))
  }

  private own<T extends object>(node: T): T {
    return this.owned.has(node) ? node : this.copied(node)
  }

  /** A copy of its own, even of what is owned already: what is inherited stays the leader's. */
  private copied<T extends object>(node: T): T {
    const copy = (Array.isArray(node) ? [...(node as unknown[])] : { ...node }) as T
    this.owned.add(copy)
    const hint = this.lastFound.get(node)
    if (hint !== undefined) this.lastFound.set(copy, hint)
    const keys = this.keysOf.get(node)
    if (keys) this.keysOf.set(copy, new Set(keys))
    return copy
  }
}

const words: Record<string, string> = {
  pads: 'pad', rays: 'ray', bands: 'band', turns: 'turn', ties: 'tie', buses: 'bus', grooves: 'groove', strings: 'string',
  beads: 'bead', markers: 'marker', clips: 'clip', responses: 'response', sends: 'send', audio: 'file',
} // prettier-ignore

/** Names what is gone first on the way to an element. */
function missing(gone: readonly string[]): never {
  const word = gone.map((step) => words[step]).filter((one) => one !== undefined).pop() // prettier-ignore
  throw new EditDoesNotApply(`The ${word ?? 'place'} this change was made on is no longer there.`)
}
