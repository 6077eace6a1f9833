import { audioInUse, kitBatchSchema, sourceBatchSchema, startBatchSchema } from '@heliaster/core/kit'
import type { AnyEdit, Kit, KitEdit, Source, SourceEdit, Start, StartEdit } from '@heliaster/core/kit'
import { Hono } from 'hono'
import type { Context } from 'hono'

import { apiError, refuse } from '../api-error'
import type { AudioRepository } from '../audio/audio-repository'
import { readJson } from '../read-json'
import type { DocumentRepository } from './document-repository'
import type { Batch } from './document-repository'

export function kitRoutes(kits: DocumentRepository<Kit, KitEdit>, audio: AudioRepository) {
  return new Hono()
    .get('/', async (c) => c.json((await kits.list()).map(({ summary, doc }) => ({ ...summary, pads: doc.pads.length }))))
    .get('/:id', async (c) => {
      const found = await kits.find(c.req.param('id'))
      if (!found) return c.json(notFound('kit'), 404)
      return c.json({ ...found, awaits: await audio.awaited(audioInUse(found.doc)) })
    })
    .put('/:id', (c) => create(c, kits))
    .post('/:id/edits', async (c) => save(c, kits, kitBatchSchema.safeParse(await readJson(c))))
    .delete('/:id', (c) => hide(c, kits))
    .post('/:id/restore', (c) => restore(c, kits))
}

export function sourceRoutes(sources: DocumentRepository<Source, SourceEdit>, audio: AudioRepository) {
  return new Hono()
    .get('/', async (c) => c.json((await sources.list()).map(({ summary, doc }) => ({ ...summary, doc }))))
    .get('/:id', async (c) => {
      const found = await sources.find(c.req.param('id'))
      if (!found) return c.json(notFound('recording'), 404)
      return c.json({ ...found, awaits: await audio.awaited([found.doc.audio]) })
    })
    .put('/:id', (c) => create(c, sources))
    .post('/:id/edits', async (c) => save(c, sources, sourceBatchSchema.safeParse(await readJson(c))))
    .delete('/:id', (c) => hide(c, sources))
    .post('/:id/restore', (c) => restore(c, sources))
}

export function startRoutes(starts: DocumentRepository<Start, StartEdit>) {
  return new Hono()
    .get('/', async (c) => c.json((await starts.list()).map(({ summary, doc }) => ({ ...summary, doc }))))
    .put('/:id', (c) => create(c, starts))
    .post('/:id/edits', async (c) => save(c, starts, startBatchSchema.safeParse(await readJson(c))))
    .delete('/:id', (c) => hide(c, starts))
    .post('/:id/restore', (c) => restore(c, starts))
}

function notFound(word: string) {
  return apiError('notFound', `This ${word} is not on the server. It may have been deleted elsewhere; what is on this device is kept.`)
}

async function create<Doc extends { id: string; name: string }, Edit extends AnyEdit>(
  c: Context,
  documents: DocumentRepository<Doc, Edit>,
) {
  const read = documents.kind.read(await readJson(c))
  if (!read.ok) return c.json(apiError('invalid', read.message), 422)
  if (read.value.id !== c.req.param('id')) return c.json(apiError('invalid', 'The address and the document name different ids.'), 422)
  const { revision, isNew } = await documents.create(read.value)
  return c.json({ revision }, isNew ? 201 : 200)
}

type ParsedBatch<Edit> =
  { success: true; data: Batch<Edit> } | { success: false; error: { issues: { path: PropertyKey[]; message: string }[] } }

async function save<Doc extends { id: string; name: string }, Edit extends AnyEdit>(
  c: Context,
  documents: DocumentRepository<Doc, Edit>,
  parsed: ParsedBatch<Edit>,
) {
  if (!parsed.success) {
    const issue = parsed.error.issues[0]
    return refuse(422, 'invalid', `These changes cannot be read at ${issue.path.join('.') || 'their root'}: ${issue.message}.`)
  }
  const saved = await documents.saveBatch(c.req.param('id')!, parsed.data)
  if (saved.type === 'saved') return c.json(saved.answer)
  if (saved.type === 'notFound') return c.json(notFound(documents.kind.kind), 404)
  const { revision, doc } = saved
  return c.json(
    apiError('stale', 'This was changed elsewhere meanwhile; the changes are made again on the newer one.', { revision, doc }),
    409,
  )
}

async function hide<Doc extends { id: string; name: string }, Edit extends AnyEdit>(c: Context, documents: DocumentRepository<Doc, Edit>) {
  return (await documents.hide(c.req.param('id')!)) ? c.json({ hidden: true }) : c.json(notFound(documents.kind.kind), 404)
}

async function restore<Doc extends { id: string; name: string }, Edit extends AnyEdit>(
  c: Context,
  documents: DocumentRepository<Doc, Edit>,
) {
  return (await documents.restore(c.req.param('id')!)) ? c.json({ hidden: false }) : c.json(notFound(documents.kind.kind), 404)
}
