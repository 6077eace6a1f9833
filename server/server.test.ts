import assert from 'node:assert/strict'
import { test } from 'node:test'

import { hashAudio } from '@heliaster/core/audio'
import { CHUNK_BYTES, createKit, createPad, createStart } from '@heliaster/core/kit'
import type { ApiError, DocumentPage, Kit, KitEdit, Performance, SavedDocument, Start } from '@heliaster/core/kit'

import { aServer, batch, makeId, rename } from './testing/a-server'

const server = aServer()
const { call, aStoredKit, logged } = server

test('a kit is kept, changed by batches and read back with its revision', async () => {
  const kit = await aStoredKit()
  assert.equal((await call('PUT', `/api/kits/${kit.id}`, kit)).status, 200)
  const pad = createPad(makeId, { name: 'Oar' }, 40)
  const answer = await call<{ revision: number }>(
    'POST',
    `/api/kits/${kit.id}/edits`,
    batch(1, [rename('Moved'), { type: 'addPad', pad, index: 0 }]),
  )
  assert.deepEqual(answer.json(), { revision: 2, refused: [] })
  const read = (await call<SavedDocument<Kit>>('GET', `/api/kits/${kit.id}`)).json()
  assert.equal(read.revision, 2)
  assert.deepEqual(read.doc, { ...kit, name: 'Moved', pads: [pad] })
  const listed = (await call<DocumentPage>('GET', '/api/kits')).json().items
  assert.deepEqual(
    listed.filter((entry) => entry.id === kit.id).map(({ name, kit: faces }) => ({ name, faces })),
    [{ name: 'Moved', faces: { pads: 1, faces: [[]] } }],
  )
})

test('a batch sent twice is applied once, and an old revision is answered with the newer kit', async () => {
  const kit = await aStoredKit()
  const first = batch(1, [rename('Once')])
  const once = await call('POST', `/api/kits/${kit.id}/edits`, first)
  const twice = await call('POST', `/api/kits/${kit.id}/edits`, first)
  assert.deepEqual(twice.json(), once.json())
  const stale = await call<ApiError>('POST', `/api/kits/${kit.id}/edits`, batch(1, [rename('Late')]))
  assert.equal(stale.status, 409)
  const { code, details } = stale.json().error
  assert.equal(code, 'stale')
  assert.deepEqual(details, { revision: 2, doc: { ...kit, name: 'Once' } })
})

test('of many writers at once exactly one wins each revision and no edit is lost', async () => {
  const kit = await aStoredKit()
  const writers = Array.from({ length: 8 }, async (_, writer) => {
    const pad = createPad(makeId, { name: `from ${writer}` })
    for (let revision = 1; ;) {
      const answer = await call<ApiError & { revision: number }>(
        'POST',
        `/api/kits/${kit.id}/edits`,
        batch(revision, [{ type: 'addPad', pad, index: 0 }]),
      )
      if (answer.status === 200) return answer.json().revision
      assert.equal(answer.status, 409)
      revision = (answer.json().error.details as { revision: number }).revision
    }
  })
  const revisions = await Promise.all(writers)
  assert.deepEqual(
    revisions.sort((a, b) => a - b),
    [2, 3, 4, 5, 6, 7, 8, 9],
  )
  const read = (await call<SavedDocument<Kit>>('GET', `/api/kits/${kit.id}`)).json()
  assert.equal(read.doc.pads.length, 8)
})

test('edits that no longer fit are told, and the rest is saved', async () => {
  const kit = await aStoredKit()
  const gone: KitEdit = { type: 'removePad', padId: 'pad-gone' as never }
  const answer = await call<{ refused: unknown[] }>('POST', `/api/kits/${kit.id}/edits`, batch(1, [gone, rename('Rest')]))
  assert.deepEqual(answer.json().refused, [{ edit: gone, reason: 'The pad this change was made on is no longer there.' }])
  assert.equal((await call<SavedDocument<Kit>>('GET', `/api/kits/${kit.id}`)).json().doc.name, 'Rest')
})

test('a deleted kit is hidden and can be brought back', async () => {
  const kit = await aStoredKit()
  assert.equal((await call('DELETE', `/api/kits/${kit.id}`)).status, 200)
  assert.equal((await call('GET', `/api/kits/${kit.id}`)).status, 404)
  assert.equal((await call('POST', `/api/kits/${kit.id}/restore`)).status, 200)
  assert.equal((await call('GET', `/api/kits/${kit.id}`)).status, 200)
})

test('a start is kept, changed and listed whole', async () => {
  const start = createStart(makeId, 'Tight', { pad: { maxStrikes: 1 } })
  assert.equal((await call('PUT', `/api/starts/${start.id}`, start)).status, 201)
  const edits = [{ type: 'setStart', fields: { pad: { maxStrikes: 3 } } }]
  const saved = await call<{ revision: number }>('POST', `/api/starts/${start.id}/edits`, {
    baseRevision: 1,
    batchId: 'batch-of-start',
    version: 2,
    edits,
  })
  assert.equal(saved.json().revision, 2)
  const listed = (await call<DocumentPage>('GET', '/api/starts')).json().items
  const doc = listed.find(({ id }) => id === start.id)!.doc as Start
  assert.deepEqual([doc.name, doc.pad], ['Tight', { maxStrikes: 3 }])
})

test('a performance is kept, one strike of it is moved, and it says which texts of kits are still to come', async () => {
  const kit = hashAudio(new TextEncoder().encode('a kit as it was played'))
  const strike = (id: string, frame: number) => ({ type: 'strike', id, frame, padId: 'pad-a', velocity: 90, key: 1 })
  const performance = {
    ...{ format: 'heliaster-performance', version: 1, id: makeId('performance'), name: 'Slipway 1', kitId: 'kit-a', playedAt: 5 },
    ...{ sampleRateHz: 48000, originFrame: 160, fromFrame: 0, toFrame: 9000, tempoBpm: 96, standing: { pads: [], controls: [] } },
    ...{ segments: [{ frame: 0, kit }], events: [strike('event-1', 10), strike('event-2', 4000)] },
  }
  const path = `/api/performances/${performance.id}`
  assert.equal((await call('PUT', path, performance)).status, 201)
  const edits = [{ type: 'set', at: ['events', 'event-2', 'frame'], value: 4100 }]
  const saved = await call('POST', `${path}/edits`, { baseRevision: 1, batchId: 'batch-of-performance', version: 1, edits })
  assert.equal(saved.status, 200)
  const found = (await call<{ doc: Performance; awaits: string[] }>('GET', path)).json()
  assert.deepEqual(
    found.doc.events.map(({ frame }) => frame),
    [10, 4100],
  )
  assert.deepEqual(found.awaits, [kit])
  const backwards = [{ type: 'set', at: ['events', 'event-2', 'frame'], value: 2 }]
  const refused = await call<{ refused: { reason: string }[] }>('POST', `${path}/edits`, {
    ...{ baseRevision: 2, batchId: 'batch-out-of-order', version: 1, edits: backwards },
  })
  assert.match(refused.json().refused[0].reason, /order in which it was played/)
})

test('audio arrives in chunks in any order, is verified, and is read back whole or in ranges', async () => {
  const bytes = Uint8Array.from({ length: CHUNK_BYTES * 2 + 777 }, (_, i) => (i * 31) ^ (i >> 8))
  const hash = hashAudio(bytes)
  const chunk = (i: number) => bytes.slice(i * CHUNK_BYTES, (i + 1) * CHUNK_BYTES)
  await call('POST', `/api/audio/${hash}`, { bytes: bytes.length, name: 'a.wav' })
  await call('PUT', `/api/audio/${hash}/chunks/2`, chunk(2))
  const early = await call<ApiError>('POST', `/api/audio/${hash}/finish`)
  assert.deepEqual([early.status, early.json().error.details], [409, { type: 'incomplete', missing: [0, 1] }])
  assert.equal((await call('PUT', `/api/audio/${hash}/chunks/1`, chunk(0).slice(1))).status, 422)
  for (const i of [1, 0]) await call('PUT', `/api/audio/${hash}/chunks/${i}`, chunk(i))
  assert.equal((await call('POST', `/api/audio/${hash}/finish`)).status, 200)
  const again = await call<{ state: string }>('POST', `/api/audio/${hash}`, { bytes: bytes.length, name: 'a.wav' })
  assert.equal(again.json().state, 'ready')
  assert.deepEqual((await call('GET', `/api/audio/${hash}`)).bytes, bytes)
  const range = await call('GET', `/api/audio/${hash}`, undefined, { range: `bytes=${CHUNK_BYTES - 2}-${CHUNK_BYTES + 1}` })
  assert.deepEqual([range.status, [...range.bytes]], [206, [...bytes.slice(CHUNK_BYTES - 2, CHUNK_BYTES + 2)]])
})

test('bytes that are not what their name says are thrown away', async () => {
  const hash = hashAudio(Uint8Array.of(1, 2, 3))
  await call('POST', `/api/audio/${hash}`, { bytes: 3, name: 'b.wav' })
  await call('PUT', `/api/audio/${hash}/chunks/0`, Uint8Array.of(1, 2, 4))
  assert.equal((await call('POST', `/api/audio/${hash}/finish`)).status, 422)
  assert.equal((await call('GET', `/api/audio/${hash}`)).status, 404)
  const empty = (await call<{ have: number[] }>('POST', `/api/audio/${hash}`, { bytes: 3, name: 'b.wav' })).json()
  assert.deepEqual(empty.have, [])
})

test('a kit says which audio it still awaits', async () => {
  const kit = await aStoredKit()
  const audio = 'f'.repeat(64)
  const clip = {
    audio,
    startFrame: 0,
    endFrame: 5,
    fadeInSeconds: 0,
    fadeOutSeconds: 0,
    gainDb: 0,
    reverse: false,
    invert: false,
    channel: 'left' as const,
  }
  const pad = createPad(makeId, {})
  const filled = {
    ...pad,
    bands: [
      {
        id: 'band-1',
        fromVelocity: 1,
        blendVelocities: 0,
        blendLaw: 'power',
        values: {},
        turns: [{ id: 'turn-1', weight: 1, clips: { [pad.rays[0].id]: clip } }],
      },
    ],
  }
  await call('POST', `/api/kits/${kit.id}/edits`, { ...batch(1, []), edits: [{ type: 'addPad', pad: filled, index: 0 }] })
  assert.deepEqual((await call<SavedDocument<Kit>>('GET', `/api/kits/${kit.id}`)).json().awaits, [audio])
})

test('every refusal has the one shape and says what to do', async () => {
  const refusals = [
    await call<ApiError>('GET', '/api/kits/none'),
    await call<ApiError>('GET', '/api/nothing'),
    await call<ApiError>('PUT', '/api/kits/x', '{'),
    await call<ApiError>('PUT', '/api/kits/x', { format: 'other' }),
    await call<ApiError>('POST', '/api/kits/x/edits', { baseRevision: 0 }),
    await call<ApiError>('POST', '/api/audio/zz', { bytes: 1, name: '' }),
    await call<ApiError>('PUT', '/api/kits/x', '{}', { origin: 'http://elsewhere.test' }),
    await call<ApiError>('GET', '/api/kits', undefined, { host: 'elsewhere.test' }),
  ]
  assert.deepEqual(
    refusals.map((refusal) => refusal.status),
    [404, 404, 400, 422, 422, 422, 403, 421],
  )
  for (const refusal of refusals) {
    const { error } = refusal.json()
    assert.match(error.code, /^\w+$/)
    assert.match(error.message, /^[A-Z].*[.]$/)
  }
})

test('pages are isolated and take nothing foreign', async () => {
  const { headers } = await call('GET', '/api/health')
  assert.equal(headers.get('cross-origin-opener-policy'), 'same-origin')
  assert.equal(headers.get('cross-origin-embedder-policy'), 'require-corp')
  assert.match(headers.get('content-security-policy') ?? '', /default-src 'self'/)
})

test('while the database is away every call says so and nothing is logged of what was sent', async () => {
  const kit = createKit(makeId, 'Secret name')
  await server.mariadb().stop()
  const answer = await call<ApiError>('PUT', `/api/kits/${kit.id}`, kit)
  assert.equal(answer.status, 503)
  assert.match(answer.json().error.message, /database does not answer/)
  assert.ok(!logged.some((line) => line.includes('Secret name')))
})
