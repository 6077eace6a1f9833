import assert from 'node:assert/strict'
import { test } from 'node:test'

import { createBus, createKit, createPad, kitKind } from '@heliaster/core/kit'
import type { ApiError, ChangeEvent, DocumentPage, Kit, KitEdit, SavedDocument } from '@heliaster/core/kit'

import { asFirstKit } from '@heliaster/core/kit/testing'

import { DocumentRepository } from './document-repository'
import { aServer, batch, makeId, rename } from '../testing/a-server'

const { call, aStoredKit, database, app } = aServer()

const bus = (i: number): KitEdit => ({ type: 'putBus', bus: createBus(`bus-${i}` as never, `${i}`) })

test('a batch that would carry a kit past its schema is refused whole, and the list goes on', async () => {
  const kit = await aStoredKit()
  const edits = Array.from({ length: 33 }, (_, i) => bus(i))
  const answer = (
    await call<{ revision: number; refused: { reason: string }[] }>('POST', `/api/kits/${kit.id}/edits`, batch(1, edits))
  ).json()
  assert.equal(answer.refused.length, 33)
  assert.equal(answer.refused[0].reason, 'A kit holds at most 32 buses.')
  assert.deepEqual((await call<SavedDocument<Kit>>('GET', `/api/kits/${kit.id}`)).json().doc, kit)
  assert.equal((await call('GET', '/api/kits')).status, 200)
})

test('a circle of leaders is refused and does not stop the server', async () => {
  const kit = createKit(makeId, 'Circle')
  const pads = ['a', 'b', 'c'].map((name) => createPad(makeId, { name }))
  const circle = { ...kit, pads: [{ ...pads[0], leansOn: pads[1].id }, { ...pads[1], leansOn: pads[0].id }, pads[2]] }
  assert.equal((await call('PUT', `/api/kits/${kit.id}`, circle)).status, 422)
  await call('PUT', `/api/kits/${kit.id}`, { ...kit, pads })
  const lean = (from: number, on: number): KitEdit => ({ type: 'setPadLeader', padId: pads[from].id, leansOn: pads[on].id })
  const answer = (
    await call<{ refused: unknown[] }>('POST', `/api/kits/${kit.id}/edits`, batch(1, [lean(0, 1), lean(1, 2), lean(2, 0)]))
  ).json()
  assert.equal(answer.refused.length, 1)
})

test('a document that cannot be read is set apart: it can be saved as a file and stops neither the list nor others', async () => {
  const [broken, well] = [await aStoredKit('Broken'), await aStoredKit('Well')]
  await database().query(`UPDATE documents SET json = '{"format":"heliaster-kit","half' WHERE id = ?`, [broken.id])
  const listed = (await call<DocumentPage>('GET', '/api/kits')).json().items.map((item) => item.id)
  assert.ok(listed.includes(broken.id) && listed.includes(well.id))
  for (const answer of [
    await call<ApiError>('GET', `/api/kits/${broken.id}`),
    await call<ApiError>('POST', `/api/kits/${broken.id}/edits`, batch(1, [rename('x')])),
  ]) {
    assert.deepEqual([answer.status, answer.json().error.code], [422, 'unreadable'])
  }
  const file = await call('GET', `/api/kits/${broken.id}/file`)
  assert.equal(new TextDecoder().decode(file.bytes), '{"format":"heliaster-kit","half')
  assert.match(file.headers.get('content-disposition') ?? '', /attachment/)
})

test('a list is read in pages, each document once, the newest first', async () => {
  const many = Array.from({ length: 450 }, (_, i) => createKit(makeId, `Many ${i}`))
  for (const kit of many) assert.equal((await call('PUT', `/api/kits/${kit.id}`, kit)).status, 201)
  const seen: string[] = []
  let after: string | undefined
  let pages = 0
  do {
    const page = (await call<DocumentPage>('GET', `/api/kits${after ? `?after=${after}` : ''}`)).json()
    seen.push(...page.items.map((item) => item.name))
    after = page.next
    pages++
  } while (after)
  assert.ok(pages >= 3)
  const ours = seen.filter((name) => name.startsWith('Many'))
  assert.equal(new Set(ours).size, 450)
  assert.equal(ours.length, 450)
  assert.equal(seen[0], 'Many 449')
})

test('what has changed since a moment is told with what was deleted and brought back', async () => {
  const [kept, gone] = [await aStoredKit('Kept'), await aStoredKit('Gone')]
  const { readAt } = (await call<DocumentPage>('GET', '/api/kits')).json()
  await call('DELETE', `/api/kits/${gone.id}`)
  await call('POST', `/api/kits/${kept.id}/edits`, batch(1, [rename('Kept on')]))
  const since = (await call<DocumentPage>('GET', `/api/kits?since=${readAt}`)).json().items
  assert.equal(since.find((item) => item.id === gone.id)?.deleted, true)
  assert.equal(since.find((item) => item.id === kept.id)?.revision, 2)
  await call('POST', `/api/kits/${gone.id}/restore`)
  const back = (await call<DocumentPage>('GET', `/api/kits?since=${readAt}`)).json().items
  assert.equal(back.find((item) => item.id === gone.id)?.deleted, false)
})

test('what was deleted can be brought back for thirty days, and is then forgotten with its history', async () => {
  const [gone, kept, listed] = [await aStoredKit('Gone'), await aStoredKit('Kept'), await aStoredKit('Listed')]
  for (const kit of [gone, kept, listed]) await call('POST', `/api/kits/${kit.id}/edits`, batch(1, [rename('Renamed')]))
  for (const kit of [gone, kept]) await call('DELETE', `/api/kits/${kit.id}`)
  const day = 86_400_000
  await database().query('UPDATE documents SET deletedAt = ? WHERE id = ?', [new Date(Date.now() - 31 * day), gone.id])
  await database().query('UPDATE documents SET deletedAt = ? WHERE id = ?', [new Date(Date.now() - 29 * day), kept.id])
  await new DocumentRepository(database(), kitKind).forgetHidden()
  const batches = async (id: string) => ((await database().query('SELECT * FROM edit_batches WHERE docId = ?', [id])) as unknown[]).length
  assert.equal((await call('POST', `/api/kits/${gone.id}/restore`)).status, 404)
  assert.equal(await batches(gone.id), 0)
  assert.equal((await call('POST', `/api/kits/${kept.id}/restore`)).status, 200)
  assert.deepEqual([await batches(kept.id), await batches(listed.id)], [1, 1])
  assert.equal((await call<SavedDocument<Kit>>('GET', `/api/kits/${kept.id}`)).json().doc.name, 'Renamed')
})

test('deleting what is deleted, and bringing back what is there, is done already', async () => {
  const kit = await aStoredKit()
  for (const expected of [200, 200]) assert.equal((await call('DELETE', `/api/kits/${kit.id}`)).status, expected)
  for (const expected of [200, 200]) assert.equal((await call('POST', `/api/kits/${kit.id}/restore`)).status, expected)
  assert.equal((await call('DELETE', '/api/kits/none')).status, 404)
})

test('a kit made again under the same id is told what became of it, and another one is refused', async () => {
  const kit = createKit(makeId, 'Made once')
  const path = `/api/kits/${kit.id}?batch=batch-made-once`
  assert.equal((await call('PUT', path, kit)).status, 201)
  assert.deepEqual((await call('PUT', path, kit)).json(), { revision: 1 })
  await call('POST', `/api/kits/${kit.id}/edits`, batch(1, [rename('Moved on')]))
  assert.deepEqual((await call('PUT', path, kit)).json(), { revision: 2, doc: { ...kit, name: 'Moved on' } })
  const other = await call<ApiError>('PUT', `/api/kits/${kit.id}?batch=batch-of-another`, { ...kit, name: 'Another' })
  assert.deepEqual([other.status, other.json().error.code], [409, 'taken'])
})

test('edits for a newer form of the document wait: the page is told that the server is older', async () => {
  const kit = await aStoredKit()
  const answer = await call<ApiError>('POST', `/api/kits/${kit.id}/edits`, { ...batch(1, [rename('x')]), version: 99 })
  assert.deepEqual([answer.status, answer.json().error.code], [409, 'olderServer'])
})

test('edits for an older form wait too: the page is told to reload, and documents of that form are kept in the form of now', async () => {
  const [first] = [createKit(makeId, 'Of before')].map(asFirstKit)
  assert.equal((await call('PUT', `/api/kits/${first.id}`, first)).status, 201)
  const kept = (await call<SavedDocument<Kit>>('GET', `/api/kits/${first.id}`)).json().doc
  assert.deepEqual([kept.version, kept.name], [2, 'Of before'])
  for (const version of [1, undefined]) {
    const answer = await call<ApiError>('POST', `/api/kits/${first.id}/edits`, { ...batch(1, [rename('x')]), version })
    assert.deepEqual([answer.status, answer.json().error.code], [409, 'olderPage'])
    assert.match(answer.json().error.message, /reload/)
  }
  assert.equal((await call('POST', `/api/kits/${first.id}/edits`, batch(1, [rename('x')]))).status, 200)
})

test('a kit that lies in the database in the form of before is read, listed and changed', async () => {
  const kit = await aStoredKit('Old form')
  await database().query('UPDATE documents SET json = ? WHERE id = ?', [JSON.stringify(asFirstKit(kit)), kit.id])
  assert.deepEqual((await call<SavedDocument<Kit>>('GET', `/api/kits/${kit.id}`)).json().doc, kit)
  assert.equal((await call('POST', `/api/kits/${kit.id}/edits`, batch(1, [rename('New form')]))).status, 200)
  assert.equal((await call<SavedDocument<Kit>>('GET', `/api/kits/${kit.id}`)).json().doc.name, 'New form')
})

test('who listens is told of changes and deletions, those made through another server too', async () => {
  const { createApp } = await import('../app')
  const other = createApp({ database: database(), hosts: ['localhost:1'], log: () => undefined })
  const ended = new AbortController()
  const response = await app().request('http://localhost:1/api/changes', { headers: { host: 'localhost:1' }, signal: ended.signal })
  const lines = linesOf(response)
  assert.deepEqual((await lines.next()).value, {})
  const kit = createKit(makeId, 'Heard of')
  await other.request(`http://localhost:1/api/kits/${kit.id}`, {
    method: 'PUT',
    headers: { host: 'localhost:1', 'content-type': 'application/json' },
    body: JSON.stringify(kit),
  })
  assert.deepEqual(await next(lines, kit.id), { kind: 'kit', id: kit.id, revision: 1, deleted: false })
  await call('POST', `/api/kits/${kit.id}/edits`, batch(1, [rename('again')]))
  assert.deepEqual(await next(lines, kit.id), { kind: 'kit', id: kit.id, revision: 2, deleted: false })
  await call('DELETE', `/api/kits/${kit.id}`)
  assert.equal((await next(lines, kit.id)).deleted, true)
  ended.abort()
  await lines.return(undefined)
})

async function* linesOf(response: Response): AsyncGenerator<ChangeEvent> {
  let text = ''
  for await (const part of response.body! as unknown as AsyncIterable<Uint8Array>) {
    text += new TextDecoder().decode(part)
    for (let end = text.indexOf('\n'); end >= 0; end = text.indexOf('\n')) {
      yield JSON.parse(text.slice(0, end)) as ChangeEvent
      text = text.slice(end + 1)
    }
  }
}

async function next(lines: AsyncGenerator<ChangeEvent>, id: string): Promise<ChangeEvent> {
  for (;;) {
    const { value } = (await lines.next()) as { value: ChangeEvent }
    if (value.id === id) return value
  }
}
