import { audioInUse, batchIdSchema, kitBatchSchema, performanceBatchSchema, sourceBatchSchema, startBatchSchema } from '@heliaster/core/kit'
import type { AnyEdit, Kit, KitEdit, Performance, PerformanceEdit, Source, SourceEdit, Start, StartEdit } from '@heliaster/core/kit'
import { Hono } from 'hono'
import type { Context } from 'hono'
import { validator } from 'hono/validator'
import type { z } from 'zod'

import { apiError, refuse } from '../api-error'
import type { AudioRepository } from '../audio/audio-repository'
import type { Batch, DocumentRepository } from './document-repository'

interface Named {
  readonly id: string
  readonly name: string
}

export function kitRoutes(kits: DocumentRepository<Kit, KitEdit>, audio: AudioRepository) {
  return documentRoutes(kits, {
    word: 'kit',
    whole: false,
    batch: kitBatchSchema,
    awaits: (kit) => audio.awaited(audioInUse(kit)),
  })
}

export function sourceRoutes(sources: DocumentRepository<Source, SourceEdit>, audio: AudioRepository) {
  return documentRoutes(sources, {
    word: 'recording',
    whole: true,
    batch: sourceBatchSchema,
    awaits: (source) => audio.awaited([source.audio]),
  })
}

export function startRoutes(starts: DocumentRepository<Start, StartEdit>) {
  return documentRoutes(starts, { word: 'start', whole: true, batch: startBatchSchema, awaits: async () => [] })
}

/** Texts of kits lie where audio does, by their hashes. */
export function performanceRoutes(performances: DocumentRepository<Performance, PerformanceEdit>, audio: AudioRepository) {
  return documentRoutes(performances, {
    word: 'performance',
    whole: true,
    batch: performanceBatchSchema,
    awaits: ({ segments }) => audio.awaited([...new Set(segments.map(({ kit }) => kit))]),
  })
}

interface Rules<Doc, Edit> {
  readonly word: string
  /** Whether lists bring the documents along. */
  readonly whole: boolean
  readonly batch: z.ZodType<Batch<Edit> & { readonly version?: number }>
  awaits(doc: Doc): Promise<string[]>
}

/** Every kind of document goes by the same routes. */
function documentRoutes<Doc extends Named, Edit extends AnyEdit>(documents: DocumentRepository<Doc, Edit>, rules: Rules<Doc, Edit>) {
  const notFound = apiError(
    'notFound',
    `This ${rules.word} is not on the server. It may have been deleted elsewhere; what is on this device is kept.`,
  )
  const unreadable = (message: string) => apiError('unreadable', `${message} It is set apart; save it as a file to keep it.`)
  const readBatch = validator('json', (body) => batchOf(rules.batch, body, documents.kind.version))
  const readDoc = validator('json', (body) => docOf(documents, body))
  return new Hono()
    .get('/', async (c) => c.json(await documents.page(pageWanted(c, rules.whole))))
    .get('/:id', async (c) => {
      const found = await documents.find(c.req.param('id'))
      if (found.type === 'notFound') return c.json(notFound, 404)
      if (found.type === 'unreadable') return c.json(unreadable(found.message), 422)
      return c.json({ revision: found.revision, doc: found.doc, awaits: await rules.awaits(found.doc) }, 200)
    })
    .get('/:id/file', async (c) => {
      const id = c.req.param('id')
      const text = await documents.text(id)
      if (text === undefined) return c.json(notFound, 404)
      const headers = { 'content-type': 'application/json', 'content-disposition': `attachment; filename="${id}.json"` }
      return c.body(text, 200, headers)
    })
    .put('/:id', readDoc, async (c) => {
      const doc = c.req.valid('json') as unknown as Doc
      if (doc.id !== c.req.param('id')) return c.json(apiError('invalid', 'The address and the document name different ids.'), 422)
      const batch = batchIdSchema.safeParse(c.req.query('batch'))
      const created = await documents.create(doc, batch.success ? batch.data : undefined)
      if (created.type === 'new') return c.json({ revision: 1 }, 201)
      if (created.type === 'known') return c.json({ revision: created.revision, doc: created.doc }, 200)
      return c.json(apiError('taken', `Another ${rules.word} is kept under this id. Keep yours under an id of its own.`), 409)
    })
    .post('/:id/edits', readBatch, async (c) => {
      const saved = await documents.saveBatch(c.req.param('id'), c.req.valid('json') as unknown as Batch<Edit>)
      if (saved.type === 'saved') return c.json(saved.answer, 200)
      if (saved.type === 'notFound') return c.json(notFound, 404)
      if (saved.type === 'unreadable') return c.json(unreadable(saved.message), 422)
      const { revision, doc } = saved
      const message = 'This was changed elsewhere meanwhile; the changes are made again on the newer one.'
      return c.json(apiError('stale', message, { revision, doc }), 409)
    })
    .delete('/:id', async (c) => {
      const id = c.req.param('id')
      if ((await documents.hide(id)) || (await documents.standing(id)) === 'hidden') return c.json({ hidden: true }, 200)
      return c.json(notFound, 404)
    })
    .post('/:id/restore', async (c) => {
      const id = c.req.param('id')
      if ((await documents.restore(id)) || (await documents.standing(id)) === 'listed') return c.json({ hidden: false }, 200)
      return c.json(notFound, 404)
    })
}

function pageWanted(c: Context, whole: boolean) {
  if (c.req.raw.signal.aborted) refuse(400, 'gone', 'Whoever asked has gone.')
  const since = Number(c.req.query('since') ?? NaN)
  return { after: c.req.query('after'), whole, ...(Number.isFinite(since) ? { since } : {}) }
}

function docOf<Doc extends Named, Edit extends AnyEdit>(documents: DocumentRepository<Doc, Edit>, body: unknown): object {
  const read = documents.kind.read(body)
  const fault = read.ok ? documents.kind.fault(read.value) : read.message
  if (!read.ok || fault) return refuse(422, 'invalid', fault ?? '')
  return read.value
}

function batchOf<Edit>(schema: Rules<unknown, Edit>['batch'], body: unknown, version: number): object {
  const { version: said, edits } = (body ?? {}) as { version?: unknown; edits?: unknown }
  if (typeof said === 'number' && said > version)
    return refuse(409, 'olderServer', 'This page is newer than the server. Its changes wait until the server is brought up to date.')
  if (Array.isArray(edits) && (typeof said === 'number' ? said : 1) < version)
    return refuse(409, 'olderPage', 'This page is older than the server. Its changes stay on this device; reload the page to send them.')
  const parsed = schema.safeParse(body)
  if (parsed.success) return parsed.data
  const issue = parsed.error.issues[0]
  return refuse(422, 'invalid', `These changes cannot be read at ${issue.path.join('.') || 'their root'}: ${issue.message}.`)
}
