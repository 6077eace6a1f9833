import { applyBatch, kitKind, performanceKind, sourceKind, startKind } from '@heliaster/core/kit'
import type { AnyEdit, ChangeEvent, DocumentKind } from '@heliaster/core/kit'

interface Held {
  revision: number
  doc: { id: string; name: string }
  hidden: boolean
  changedAt: number
}

interface Sent {
  readonly baseRevision: number
  readonly batchId: string
  readonly version?: number
  readonly edits: AnyEdit[]
}

const kindsByFolder = { kits: kitKind, sources: sourceKind, starts: startKind, performances: performanceKind } as unknown as Record<
  string,
  DocumentKind<{ id: string; name: string }, AnyEdit>
>

const words: Record<string, string> = {
  olderServer: 'This page is newer than the server.',
  olderPage: 'This page is older than the server.',
  invalid: 'This kit was made by a newer Heliaster (version 9; this one reads up to 1). Update to open it.',
}

/** What the server promises, as plainly as it can be said: a slow model in memory that tests hold devices against. */
export class PlainServer {
  readonly docs = new Map<string, Held>()
  /** Every batch that was answered, with what it was answered. */
  readonly batches = new Map<string, { revision: number; refused: { edit: unknown; reason: string }[] }>()
  /** Whether pages are newer than this server, so that it takes neither their documents nor their edits. */
  isOlder = false
  private readonly listeners = new Set<(event: ChangeEvent) => void>()

  constructor(private readonly now: () => number) {}

  /** Answers a request as the real routes do. */
  answer(method: string, url: string, body: unknown): { status: number; body: unknown } {
    const { pathname, searchParams } = new URL(url, 'http://server')
    const [, , folder, id, what] = pathname.split('/')
    const kind = kindsByFolder[folder]
    if (!kind) return this.error(404, 'notFound')
    const key = `${kind.kind}:${id}`
    if (method === 'GET' && !id) return { status: 200, body: this.list(kind.kind, searchParams) }
    if (method === 'GET') return this.find(key)
    if (method === 'PUT') return this.create(kind, key, body, searchParams.get('batch')!)
    if (method === 'POST' && what === 'edits') return this.edits(kind, key, body as never)
    return this.setHidden(key, method === 'DELETE')
  }

  listen(listener: (event: ChangeEvent) => void): () => void {
    this.listeners.add(listener)
    return () => void this.listeners.delete(listener)
  }

  private list(kind: string, query: URLSearchParams) {
    const since = query.has('since') ? Number(query.get('since')) - 10_000 : undefined
    const items = [...this.docs].flatMap(([key, held]) => {
      if (!key.startsWith(`${kind}:`) || (since === undefined ? held.hidden : held.changedAt < since)) return []
      const { revision, doc, changedAt, hidden } = held
      return [{ id: doc.id, name: doc.name, revision, changedAt, deleted: hidden, ...(kind === 'kit' ? {} : { doc }) }]
    })
    return { items, readAt: this.now() }
  }

  private find(key: string) {
    const held = this.docs.get(key)
    return held && !held.hidden ? { status: 200, body: { revision: held.revision, doc: held.doc } } : this.error(404, 'notFound')
  }

  private create(kind: DocumentKind<Held['doc'], AnyEdit>, key: string, body: unknown, batchId: string) {
    const read = kind.read(body)
    if (this.isOlder || !read.ok) return this.error(422, 'invalid')
    const doc = JSON.parse(JSON.stringify(read.value)) as Held['doc']
    const held = this.docs.get(key)
    if (!held) {
      this.put(key, { revision: 1, doc, hidden: false, changedAt: this.now() })
      this.batches.set(batchId, { revision: 1, refused: [] })
      return { status: 201, body: { revision: 1 } }
    }
    if (JSON.stringify(held.doc) === JSON.stringify(doc)) return { status: 200, body: { revision: held.revision } }
    return this.batches.has(batchId) ? { status: 200, body: { revision: held.revision, doc: held.doc } } : this.error(409, 'taken')
  }

  private edits(kind: DocumentKind<Held['doc'], AnyEdit>, key: string, batch: Sent) {
    if (this.isOlder) return this.error(409, 'olderServer')
    if ((batch.version ?? 1) < kind.version) return this.error(409, 'olderPage')
    const known = this.batches.get(batch.batchId)
    if (known) return { status: 200, body: known }
    const held = this.docs.get(key)
    if (!held || held.hidden) return this.error(404, 'notFound')
    if (held.revision !== batch.baseRevision) return this.error(409, 'stale', { revision: held.revision, doc: held.doc })
    const { doc, refused } = applyBatch(kind, held.doc, batch.edits)
    const answer = { revision: held.revision + 1, refused: refused as { edit: unknown; reason: string }[] }
    this.batches.set(batch.batchId, answer)
    this.put(key, { ...held, revision: answer.revision, doc, changedAt: this.now() })
    return { status: 200, body: answer }
  }

  private setHidden(key: string, hidden: boolean) {
    const held = this.docs.get(key)
    if (!held) return this.error(404, 'notFound')
    if (held.hidden !== hidden) this.put(key, { ...held, hidden, changedAt: this.now() })
    return { status: 200, body: { hidden } }
  }

  /** Documents are texts here: nothing of what a device holds is shared with it. */
  private put(key: string, held: Held): void {
    this.docs.set(key, JSON.parse(JSON.stringify(held)) as Held)
    const event = { kind: key.split(':')[0] as 'kit', id: held.doc.id, revision: held.revision, deleted: held.hidden }
    for (const listener of this.listeners) listener(event)
  }

  private error(status: number, code: string, details?: unknown) {
    return { status, body: { error: { code, message: words[code] ?? 'The server refuses.', details } } }
  }
}
