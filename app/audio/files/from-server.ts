import { MOST_TOGETHER } from '@heliaster/core/kit'
import type { AudioHash } from '@heliaster/core/kit'
import { transfer } from 'comlink'

import { localDb } from '../../sync/local-db'
import { coreWork } from '../workers/workers'

/** Audio is gone, damaged, or not here yet; the message is for a person. */
export class AudioMissing extends Error {}

/** The line brings nothing: asking again at once would not either. */
class OutOfReach extends AudioMissing {}

const onItsWay = 'It will come when the server is back.'
/** A line that brings nothing for so long is dead. */
const SILENT_MS = 10_000

/** A file that comes together with others: its bytes, or nothing once it is to be asked for by itself. */
interface Coming {
  readonly bytes: Promise<Blob | undefined>
  readonly settle: (bytes?: Blob) => void
  readonly fail: (reason: OutOfReach) => void
}
const coming = new Map<AudioHash, Coming>()

/** What is wanted next, in its order: it comes along whenever a file has to be asked for. */
let ahead: () => readonly AudioHash[] = () => []
export function bringAlong(next: () => readonly AudioHash[]): void {
  ahead = next
}

/** A file that is not on this device, whole and of the hash it was asked by; kept on this device from then on. */
export async function fromServer(hash: AudioHash): Promise<Blob> {
  if (!coming.has(hash)) ask(hash)
  return (await coming.get(hash)?.bytes) ?? alone(hash)
}

/** Files that are asked for by themselves: once, however many wait for one. */
const single = new Map<AudioHash, Promise<Blob>>()

function alone(hash: AudioHash): Promise<Blob> {
  const bytes = single.get(hash) ?? fetchAlone(hash).finally(() => single.delete(hash))
  single.set(hash, bytes)
  return bytes
}

async function fetchAlone(hash: AudioHash): Promise<Blob> {
  const bytes = new Blob(await fetched(`/api/audio/${hash}`))
  if (!(await isWhole(hash, bytes)))
    throw new AudioMissing(
      'This audio came damaged from the server. It is asked for again when it is needed; if it stays so, import the file again.',
    )
  await keep([{ hash, bytes }])
  return bytes
}

/** Asked for since the page was busy last. */
let asked: AudioHash[] = []

/** What is asked for in one turn of the page comes together, with what is wanted next. */
function ask(hash: AudioHash): void {
  coming.set(hash, awaited())
  asked.push(hash)
  if (asked.length === 1) setTimeout(askAll, 0)
}

function askAll(): void {
  const first = asked
  asked = []
  const others = ahead().filter((hash) => !coming.has(hash))
  const along = others.slice(0, Math.max(0, MOST_TOGETHER - first.length))
  for (const hash of along) coming.set(hash, awaited())
  const all = [...first, ...along]
  for (let from = 0; from < all.length; from += MOST_TOGETHER) void comeTogether(all.slice(from, from + MOST_TOGETHER))
}

/** A file that is wanted now waits for no others. */
export function hurry(hash: AudioHash): void {
  coming.get(hash)?.settle()
}

/** Files of which `coming` knows already. One alone is asked for by itself. */
async function comeTogether(asked: readonly AudioHash[]): Promise<void> {
  const here: { hash: AudioHash; bytes: Blob }[] = []
  const checks: Promise<void>[] = []
  let outOfReach: OutOfReach | undefined
  try {
    const hashes = await notOnDevice(asked)
    for (const hash of asked) if (hashes.length < 2 || !hashes.includes(hash)) hurry(hash)
    if (hashes.length > 1)
      await readTogether(hashes, (hash, bytes) => {
        checks.push(
          isWhole(hash, bytes).then((whole) => {
            if (whole) here.push({ hash, bytes })
            coming.get(hash)!.settle(whole ? bytes : undefined)
          }),
        )
      })
  } catch (reason) {
    // Whatever else went wrong, each is asked for by itself, which says why it does not come.
    if (reason instanceof OutOfReach) outOfReach = reason
  }
  await Promise.allSettled(checks) // what came before the line broke is here
  await keep(here)
  for (const hash of asked) {
    if (outOfReach) coming.get(hash)!.fail(outOfReach)
    hurry(hash)
    coming.delete(hash)
  }
}

function awaited(): Coming {
  let settle: Coming['settle']
  let fail: Coming['fail']
  const bytes = new Promise<Blob | undefined>((resolve, reject) => {
    settle = resolve
    fail = reject
  })
  bytes.catch(() => undefined) // nobody may be waiting for it
  return { bytes, settle: settle!, fail: fail! }
}

async function notOnDevice(asked: readonly AudioHash[]): Promise<AudioHash[]> {
  const store = (await localDb()).transaction('audio').store
  const kept = await Promise.all(asked.map((hash) => store.getKey(hash)))
  return asked.filter((_, i) => kept[i] === undefined)
}

/** Hands each file on as it has come. What the answer leaves empty is handed on to nobody. */
async function readTogether(hashes: readonly AudioHash[], take: (hash: AudioHash, bytes: Blob) => void): Promise<void> {
  const body = JSON.stringify({ hashes })
  const rest = new Rest()
  let at = 0
  let length: number | undefined
  const takeOn = (bytes: Uint8Array<ArrayBuffer>): void => {
    rest.add(bytes)
    for (;;) {
      if (length === undefined) {
        if (rest.length < 4) return
        length = new DataView(rest.next(4).buffer).getUint32(0)
      }
      if (rest.length < length) return
      if (length > 0) take(hashes[at], new Blob([rest.next(length)]))
      length = undefined
      at++
    }
  }
  await fetched('/api/audio/together', { method: 'POST', body, headers: { 'content-type': 'application/json' } }, takeOn)
}

/** Bytes that have come and were not taken yet. */
class Rest {
  private readonly pieces: Uint8Array<ArrayBuffer>[] = []
  length = 0

  add(bytes: Uint8Array<ArrayBuffer>): void {
    this.pieces.push(bytes)
    this.length += bytes.length
  }

  /** The next `length` bytes, of which there are so many. */
  next(length: number): Uint8Array<ArrayBuffer> {
    const out = new Uint8Array(length)
    let at = 0
    while (at < length) {
      const piece = this.pieces[0]
      const part = piece.subarray(0, length - at)
      out.set(part, at)
      at += part.length
      if (part.length === piece.length) this.pieces.shift()
      else this.pieces[0] = piece.subarray(part.length)
    }
    this.length -= length
    return out
  }
}

async function isWhole(hash: AudioHash, bytes: Blob): Promise<boolean> {
  const buffer = await bytes.arrayBuffer()
  return (await coreWork().hash(transfer(buffer, [buffer]))) === hash
}

/** A device without room plays them all the same, and fetches them again another time. */
async function keep(files: readonly { readonly hash: AudioHash; readonly bytes: Blob }[]): Promise<void> {
  if (files.length === 0) return
  try {
    const { store, done } = (await localDb()).transaction('audio', 'readwrite')
    await Promise.all([...files.map(({ hash, bytes }) => store.put({ hash, name: hash, bytes, uploaded: 1 })), done])
  } catch {
    // What is said of room says so.
  }
}

/** The pieces of an answer, or, where they are taken as they come, none. */
async function fetched(
  address: string,
  asked: RequestInit = {},
  take?: (piece: Uint8Array<ArrayBuffer>) => void,
): Promise<Uint8Array<ArrayBuffer>[]> {
  const ended = new AbortController()
  let timer = setTimeout(() => ended.abort(), SILENT_MS)
  const pieces: Uint8Array<ArrayBuffer>[] = []
  let status: number
  try {
    const response = await fetch(address, { ...asked, signal: ended.signal })
    status = response.status
    const reader = response.ok ? response.body?.getReader() : undefined
    for (let read = await reader?.read(); read && !read.done; read = await reader?.read()) {
      const piece = read.value as Uint8Array<ArrayBuffer>
      if (take) take(piece)
      else pieces.push(piece)
      clearTimeout(timer)
      timer = setTimeout(() => ended.abort(), SILENT_MS)
    }
  } catch {
    throw new OutOfReach(`This audio is not on this device and the server cannot be reached. ${onItsWay}`)
  } finally {
    clearTimeout(timer)
  }
  if (status === 404) throw new AudioMissing('This audio is neither on this device nor on the server. Import the file again.')
  if (status >= 500) throw new AudioMissing(`This audio is not on this device, and the server cannot give it just now. ${onItsWay}`)
  if (status !== 200) throw new AudioMissing(`This audio is not on this device, and the server refused it (${status}). Reload the page.`)
  return pieces
}
