import { kinds } from '@heliaster/core/kit'
import type { ChangeEvent, DocumentSummary, Kind } from '@heliaster/core/kit'

import { ServerRefused } from './api'
import { documentKey } from './local-db'
import type { Sender, SenderNeeds } from './sender'

/** Documents that are fetched by themselves; older ones come when they are opened. */
const FETCHED = 300
const AT_ONCE = 4
/** So many of them come as soon as the screen stands, the rest at leisure: somebody works in one of them meanwhile. */
const SOON = 12
const LEISURE_MS = 2000
/** After so many what was heard meanwhile comes first. */
const PIECE = 40

type Needs = Pick<SenderNeeds, 'api' | 'shelf' | 'documentsOf' | 'timers'> & {
  /** What is fetched of its own accord waits for this. */
  untilShown?(): Promise<void>
  /** Is told when a list has been read to its end. */
  onListed?(kind: Kind): void
}

const AGAIN_MS = 2000
const SOON_MS = 250

/** Brings this device up to what the server has: all of the list at first, then what has changed since. */
export class CatchUp {
  private readonly readAt = new Map<Kind, number>()
  /** What stood in the lists when they were read first, by key. */
  private readonly listed = new Set<string>()
  /** What was heard of and has not been taken over yet. */
  private readonly told = new Map<string, ChangeEvent>()
  private isBehind = false
  private isWanted = false
  private running = false
  private stopped = false
  private timer: unknown
  private soon: unknown
  private readonly under = new Map<string, Promise<void>>()
  /** What is to be fetched of its own accord, by key. */
  private readonly lacking = new Map<string, { readonly kind: Kind; readonly item: DocumentSummary }>()
  private fetched = 0
  private restsUntil = 0
  private next: unknown

  constructor(
    private readonly need: Needs,
    private readonly sender: Pick<Sender, 'adopt' | 'adoptAll'>,
  ) {}

  /** Goes through the lists, now and again until it has come through. */
  all(): void {
    this.isBehind = true
    this.goOn()
  }

  /** Takes over what was heard of, now or when the server answers again. */
  heard(event: ChangeEvent): void {
    if (!event.kind || !event.id) return
    this.told.set(documentKey(event.kind, event.id), event)
    // What this device has just sent comes back as well, and is settled by itself in a moment.
    this.soon ??= this.need.timers.set(() => {
      this.soon = undefined
      this.goOn()
    }, SOON_MS)
  }

  /** Whether a document was made since the lists were read, and is not only new here. */
  isNew(kind: Kind, id: string): boolean {
    return this.readAt.has(kind) && !this.listed.has(documentKey(kind, id))
  }

  stop(): void {
    this.stopped = true
    this.need.timers.clear(this.timer)
    this.need.timers.clear(this.soon)
    this.need.timers.clear(this.next)
  }

  private goOn(): void {
    this.isWanted = true
    if (this.running || this.stopped) return
    this.running = true
    void this.work()
      .catch(() => {
        this.need.timers.clear(this.timer)
        this.timer = this.need.timers.set(() => this.goOn(), AGAIN_MS)
      })
      .finally(() => {
        this.running = false
        if (this.isWanted) this.goOn()
      })
  }

  private async work(): Promise<void> {
    while (this.isWanted) {
      this.isWanted = false
      if (this.isBehind) {
        this.told.clear() // the lists are newer than what was heard before they were asked for
        for (const kind of kinds) await this.kind(kind)
        this.isBehind = false
      }
      await this.takeTold()
      await this.takeLacking()
    }
  }

  /** Goes through the list, the newest first. What is listed no more, and is known to the server, has been deleted. */
  private async kind(kind: Kind): Promise<void> {
    const since = this.readAt.get(kind)
    const here = since === undefined ? await this.need.shelf.readAll(kind) : undefined
    const unlisted = new Set([...(here ?? [])].flatMap(([, { row }]) => (row && row.revision > 0 && !row.hidden ? [row.id] : [])))
    let readAt: number | undefined
    let after: string | undefined
    let listed = 0
    const changed: DocumentSummary[] = []
    do {
      const page = await this.need.api.list(kind, { ...(after ? { after } : {}), ...(since === undefined ? {} : { since: String(since) }) })
      readAt ??= page.readAt
      for (const { id } of page.items) {
        unlisted.delete(id)
        if (since === undefined) this.listed.add(documentKey(kind, id))
      }
      const wanted = page.items.filter((item) => item.doc !== undefined || listed++ < FETCHED)
      // What is on its way is listed by then as well, so that the list stands at once.
      const comes = ({ id, doc, deleted }: DocumentSummary) => here?.has(documentKey(kind, id)) === false && doc === undefined && !deleted
      this.need.documentsOf(kind).noteElsewhere(page.items.filter((item) => comes(item) || !wanted.includes(item)))
      for (const item of await this.takeWhole(kind, wanted))
        if (comes(item)) this.lacking.set(documentKey(kind, item.id), { kind, item })
        else changed.push(item)
      after = page.next
    } while (after)
    await this.takeEach(kind, changed)
    await this.lookForAll(kind, [...unlisted])
    this.readAt.set(kind, readAt ?? 0)
    this.need.onListed?.(kind)
  }

  /** Documents that came with the list are taken over all at once. Returns those that did not come with it. */
  private async takeWhole(kind: Kind, items: readonly DocumentSummary[]): Promise<DocumentSummary[]> {
    const whole = items.filter((item) => item.doc !== undefined && !item.deleted)
    const held = await this.need.shelf.readMany(whole.map((item) => documentKey(kind, item.id)))
    const newer = whole.filter((item, i) => (held[i]!.row?.revision ?? -1) < item.revision && !held[i]!.row?.hidden)
    await this.sender.adoptAll(kind, newer)
    const done = new Set(newer)
    await inTurns(whole.filter((item) => !done.has(item)), (item) => this.take(kind, item)) // prettier-ignore
    await this.takeTold()
    return items.filter((item) => !whole.includes(item))
  }

  /** Asks for one document after another that is here as it was before, once the screen stands. */
  private async takeEach(kind: Kind, items: readonly DocumentSummary[]): Promise<void> {
    if (items.length > 0) await this.need.untilShown?.()
    for (let from = 0; from < items.length; from += PIECE) {
      await inTurns(items.slice(from, from + PIECE), (item) => this.take(kind, item))
      await this.takeTold()
    }
  }

  /** Asks for some of the documents that are not here and did not come with their list, once the screen stands, and for more a while later. */
  private async takeLacking(): Promise<void> {
    if (this.lacking.size === 0) return
    await this.need.untilShown?.()
    const now = this.need.timers.now()
    if (now >= this.restsUntil) {
      const piece = [...this.lacking].slice(0, Math.max(AT_ONCE, SOON - this.fetched))
      await inTurns(piece, async ([key, { kind, item }]) => {
        await this.take(kind, item)
        if (this.lacking.get(key)?.item === item) this.lacking.delete(key)
      })
      this.fetched += piece.length
      this.restsUntil = now + LEISURE_MS
    }
    this.need.timers.clear(this.next)
    if (this.lacking.size > 0 && !this.stopped) this.next = this.need.timers.set(() => this.goOn(), this.restsUntil - now)
  }

  /** What was heard meanwhile does not wait for the end of the lists. */
  private async takeTold(): Promise<void> {
    await this.takeDeleted()
    for (const [key, event] of this.told) {
      const { kind, id, revision = 0, deleted = false } = event
      await this.take(kind!, { id: id!, revision, deleted, changedAt: this.need.timers.now() })
      if (this.told.get(key) === event) this.told.delete(key)
    }
  }

  /** What was deleted elsewhere goes in one step, however much it is. */
  private async takeDeleted(): Promise<void> {
    for (const kind of kinds) {
      const gone = [...this.told].filter(([, event]) => event.deleted === true && event.kind === kind)
      if (gone.length === 0) continue
      await this.hide(kind, gone.map(([, { id }]) => id!)) // prettier-ignore
      for (const [key, event] of gone) if (this.told.get(key) === event) this.told.delete(key)
    }
  }

  /** What the server says of one document: taken over where it is newer than what is here. */
  async take(kind: Kind, item: Pick<DocumentSummary, 'id' | 'revision' | 'deleted' | 'doc' | 'changedAt'>): Promise<void> {
    const { row } = await this.need.shelf.read(documentKey(kind, item.id))
    if (item.deleted) return this.hide(kind, [item.id])
    if (row?.hidden) await this.unhide(kind, item.id)
    if (row && row.revision >= item.revision && item.revision > 0) return
    if (item.doc !== undefined)
      await this.sender.adopt(kind, item.id, { revision: item.revision, doc: item.doc, changedAt: item.changedAt })
    else await this.look(kind, item.id, item.changedAt)
  }

  /** Asks for one document; one that the server no longer has is taken off the list. Asked for once at a time. */
  look(kind: Kind, id: string, changedAt?: number): Promise<void> {
    const key = documentKey(kind, id)
    const under = this.under.get(key) ?? this.fetch(kind, id, changedAt).finally(() => this.under.delete(key))
    this.under.set(key, under)
    return under
  }

  /** Fetches now all that is listed and not here. */
  bring(kind: Kind): Promise<void> {
    return inTurns(Object.values(this.need.documentsOf(kind).store.getState().elsewhere), ({ id, changedAt }) =>
      this.look(kind, id, changedAt),
    )
  }

  private async fetch(kind: Kind, id: string, changedAt?: number): Promise<void> {
    try {
      const { revision, doc } = await this.need.api.find(kind, id)
      await this.sender.adopt(kind, id, { revision, doc, changedAt })
    } catch (error) {
      if (!(error instanceof ServerRefused)) throw error
      if (error.code === 'notFound') await this.hide(kind, [id])
      if (error.code !== 'unreadable') return
      this.need.documentsOf(kind).noteUnreadable(id, error.message)
      this.need.documentsOf(kind).forgetElsewhere([id])
    }
  }

  private async hide(kind: Kind, ids: readonly string[]): Promise<void> {
    void this.need.shelf.write({ hidden: ids.map((id) => ({ key: documentKey(kind, id), hidden: true })) })
    this.need.documentsOf(kind).forgetElsewhere(ids)
    await this.need.documentsOf(kind).sync(ids)
  }

  /** Asks for documents that are listed no more; those that are gone are taken off the list in one step. */
  private async lookForAll(kind: Kind, ids: readonly string[]): Promise<void> {
    const gone: string[] = []
    await inTurns(ids, async (id) => {
      try {
        const { revision, doc } = await this.need.api.find(kind, id)
        await this.sender.adopt(kind, id, { revision, doc })
      } catch (error) {
        if (!(error instanceof ServerRefused)) throw error
        if (error.code === 'notFound') gone.push(id)
        if (error.code === 'unreadable') this.need.documentsOf(kind).noteUnreadable(id, error.message)
      }
    })
    if (gone.length > 0) await this.hide(kind, gone)
  }

  private async unhide(kind: Kind, id: string): Promise<void> {
    void this.need.shelf.write({ hidden: [{ key: documentKey(kind, id), hidden: false }] })
    await this.need.documentsOf(kind).sync([id])
  }
}

async function inTurns<T>(items: readonly T[], work: (item: T) => Promise<void>): Promise<void> {
  let next = 0
  const turn = async () => {
    while (next < items.length) await work(items[next++])
  }
  await Promise.all(Array.from({ length: AT_ONCE }, turn))
}
