import { applyBatch } from '@heliaster/core/kit'

import { answerOf, send, ServerAway, ServerRefused, uploadAudio } from './api'
import { documentsOf } from './documents'
import { localDb } from './local-db'
import type { Outgoing, RefusedEdit } from './local-db'
import { isSendingHeld, onOutgoing, saveState } from './outbox'

const PAUSE_MS = 400
const LONGEST_PAUSE_MS = 20_000

/**
 * Sends what waits, in order, one at a time; only one page of this browser does so. With the server away it tries
 * again ever more slowly, and at once when the browser says it is online.
 */
export function startSender(): void {
  let pauseMs = PAUSE_MS
  let timer: ReturnType<typeof setTimeout> | undefined
  let running = false

  async function run(): Promise<void> {
    if (running || isSendingHeld()) return
    running = true
    try {
      await withLock(sendAll)
      pauseMs = PAUSE_MS
      await tell('saved')
    } catch (error) {
      await tell('away')
      pauseMs = Math.min(LONGEST_PAUSE_MS, pauseMs * 2)
      if (!(error instanceof ServerAway)) console.error(error)
      later(pauseMs)
    } finally {
      running = false
    }
    if (saveState.getState().state !== 'away' && !isSendingHeld() && saveState.getState().waiting > 0) later(PAUSE_MS)
  }

  function later(ms: number): void {
    clearTimeout(timer)
    timer = setTimeout(() => void run(), ms)
  }

  onOutgoing(() => later(pauseMs))
  globalThis.addEventListener?.('online', () => later(0))
  later(0)
}

async function withLock(work: () => Promise<void>): Promise<void> {
  if (navigator.locks) await navigator.locks.request('heliaster-sender', work)
  else await work()
}

async function tell(state: 'saved' | 'away'): Promise<void> {
  const db = await localDb()
  const [steps, files, refused] = await Promise.all([db.count('outbox'), db.countFromIndex('audio', 'uploaded', 0), db.count('refused')])
  const waiting = steps + files
  saveState.setState({ waiting, refused, state: state === 'saved' && waiting > 0 ? 'saving' : state })
}

async function sendAll(): Promise<void> {
  const db = await localDb()
  for (;;) {
    if (isSendingHeld()) return
    const cursor = await db.transaction('outbox').store.openCursor()
    if (!cursor) break
    const outgoing = cursor.value
    await sendOne(outgoing)
    await db.delete('outbox', outgoing.place!)
  }
  for (const hash of await db.getAllKeysFromIndex('audio', 'uploaded', 0)) {
    if (isSendingHeld()) return
    const audio = await db.get('audio', hash)
    if (!audio) continue
    await uploadAudio(hash, audio.name, audio.bytes instanceof Blob ? audio.bytes : new Blob([audio.bytes]))
    await db.put('audio', { ...audio, uploaded: 1 })
  }
}

async function sendOne(outgoing: Outgoing): Promise<void> {
  const path = `${outgoing.kind}s/${outgoing.docId}`
  const documents = documentsOf(outgoing.kind)
  try {
    if (outgoing.type === 'create') {
      const { revision } = await answerOf<{ revision: number }>(send('PUT', path, outgoing.edits[0]))
      await documents.accept(outgoing.docId, revision, undefined)
    } else if (outgoing.type === 'edits') await sendEdits(outgoing, path)
    else if (outgoing.type === 'hide') await answerOf(send('DELETE', path))
    else await answerOf(send('POST', `${path}/restore`))
  } catch (error) {
    if (!(error instanceof ServerRefused)) throw error
    // Hiding what is already gone is done; anything else is kept where the person sees it.
    if (outgoing.type === 'hide' || outgoing.type === 'restore') return
    await keepRefused(
      outgoing,
      outgoing.edits.map((edit) => ({ edit, reason: error.message })),
    )
  }
}

async function sendEdits(outgoing: Outgoing, path: string): Promise<void> {
  const documents = documentsOf(outgoing.kind)
  const { docId, batchId, edits } = outgoing
  for (;;) {
    const baseRevision = await storedRevision(outgoing)
    try {
      const answer = await answerOf<{ revision: number; refused: { edit: unknown; reason: string }[] }>(
        send('POST', `${path}/edits`, { baseRevision, batchId, edits }),
      )
      await documents.accept(docId, answer.revision, undefined)
      if (answer.refused.length > 0) await keepRefused(outgoing, answer.refused)
      return
    } catch (error) {
      if (!(error instanceof ServerRefused) || error.code !== 'stale') throw error
      await replay(outgoing, error.details as { revision: number; doc: unknown })
    }
  }
}

/** The newer document takes over, with everything this device has not sent made again on top of it. */
async function replay(outgoing: Outgoing, { revision, doc }: { revision: number; doc: unknown }): Promise<void> {
  const documents = documentsOf(outgoing.kind)
  const read = documents.kind.read(doc)
  if (!read.ok) throw new Error(read.message)
  const db = await localDb()
  let waiting: Outgoing[]
  let changes: number
  do {
    changes = documents.changes()
    await documents.written()
    waiting = (await db.getAll('outbox')).filter((one) => one.docId === outgoing.docId && one.type === 'edits')
  } while (documents.changes() !== changes) // what was changed meanwhile is not in the list yet, and must not be lost
  const edits = waiting.flatMap((one) => one.edits as never[])
  await documents.accept(outgoing.docId, revision, applyBatch(documents.kind, read.value, edits).doc)
}

async function storedRevision({ kind, docId }: Outgoing): Promise<number> {
  const entry = documentsOf(kind).store.getState().entries[docId]
  if (entry) return entry.revision
  return (await (await localDb()).get('documents', `${kind}:${docId}`))?.revision ?? 0
}

async function keepRefused({ kind, docId }: Outgoing, refused: readonly { edit: unknown; reason: string }[]): Promise<void> {
  const db = await localDb()
  for (const { edit, reason } of refused) await db.add('refused', { kind, docId, reason, edit, at: Date.now() } satisfies RefusedEdit)
}
