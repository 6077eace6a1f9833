import type { AudioHash } from '@heliaster/core/kit'

import { localDb } from '../../sync/local-db'
import { hashOf } from '../workers/hash-of'

/** Files as they come from the server: read, held against their names and kept in the worker that decodes them. */

/** Why a file did not come, for a person; nothing where it came. */
export type Lacking = string | undefined

const onItsWay = 'It will come when the server is back.'
/** A line that brings nothing for so many seconds is dead; those in which the worker was at other work are not counted. */
const SILENT_SECONDS = 10

class NotCome extends Error {}
/** The line brings nothing: asking again at once would not either. */
class OutOfReach extends NotCome {}

interface Arrived {
  readonly bytes: Uint8Array<ArrayBuffer>
  /** Whether it was tried to keep it: what was not stays here. */
  isTried: boolean
  isKept: boolean
  isTaken: boolean
}

/** What came lies here until it is kept on the device and was taken once, so much of it: most is decoded as soon as it has come. */
const MOST_BYTES = 16e6
/** Of an answer so much is kept together. */
const KEPT_TOGETHER_BYTES = 4e6
const arrived = new Map<AudioHash, Arrived>()

function hold(hash: AudioHash, bytes: Uint8Array<ArrayBuffer>): void {
  arrived.delete(hash)
  let room = MOST_BYTES - bytes.length
  for (const [other, held] of [...arrived].reverse()) {
    room -= held.bytes.length
    if (room < 0 && held.isTried) arrived.delete(other)
  }
  arrived.set(hash, { bytes, isTried: false, isKept: false, isTaken: false })
}

/** What came of a file a moment ago. */
export function arrivedBytes(hash: AudioHash): Uint8Array<ArrayBuffer> | undefined {
  const held = arrived.get(hash)
  if (!held) return undefined
  held.isTaken = true
  if (held.isKept) arrived.delete(hash)
  return held.bytes
}

/** A device without room plays them all the same, and fetches them again another time. */
async function keep(hashes: readonly AudioHash[]): Promise<void> {
  const files = hashes.flatMap((hash) => {
    const held = arrived.get(hash)
    return held ? [{ hash, held }] : []
  })
  if (files.length === 0) return
  try {
    const { store, done } = (await localDb()).transaction('audio', 'readwrite')
    const puts = files.map(({ hash, held }) => store.put({ hash, name: hash, bytes: new Blob([held.bytes]), uploaded: 1 }))
    await Promise.all([...puts, done])
  } catch {
    return // what is said of room says so
  } finally {
    for (const { held } of files) held.isTried = true
  }
  for (const { hash, held } of files) {
    held.isKept = true
    if (held.isTaken && arrived.get(hash) === held) arrived.delete(hash)
  }
}

/** Brings one file. */
export async function comeAlone(hash: AudioHash): Promise<Lacking> {
  try {
    const bytes = await wholeAnswer(`/api/audio/${hash}`)
    if ((await hashOf(bytes)) !== hash)
      return 'This audio came damaged from the server. It is asked for again when it is needed; if it stays so, import the file again.'
    hold(hash, bytes)
    await keep([hash])
    return undefined
  } catch (reason) {
    if (reason instanceof NotCome) return reason.message
    throw reason
  }
}

/**
 * Brings those of some files that are not on this device in one answer, and says of each whether it came whole, as soon as it has
 * come; what is not among them has to be asked for by itself. Gives why the line broke, where it did, once all is said.
 */
export async function comeTogether(
  asked: readonly AudioHash[],
  came: (hash: AudioHash, isWhole: boolean) => void | Promise<void>,
): Promise<Lacking> {
  let here: AudioHash[] = []
  let hereBytes = 0
  const keepHere = (): Promise<void> => {
    const hashes = here
    here = []
    hereBytes = 0
    return keep(hashes)
  }
  const checks: Promise<void>[] = []
  let outOfReach: Lacking
  try {
    const hashes = await notOnDevice(asked)
    const others = hashes.length < 2 ? asked : asked.filter((hash) => !hashes.includes(hash))
    for (const hash of others) checks.push(Promise.resolve(came(hash, false)))
    const check = async (hash: AudioHash, bytes: Uint8Array<ArrayBuffer>) => {
      const isWhole = (await hashOf(bytes)) === hash
      if (isWhole) {
        hold(hash, bytes)
        here.push(hash)
        hereBytes += bytes.length
      }
      await came(hash, isWhole)
      if (hereBytes >= KEPT_TOGETHER_BYTES) await keepHere()
    }
    if (hashes.length > 1) await readTogether(hashes, (hash, bytes) => void checks.push(check(hash, bytes)))
  } catch (reason) {
    // Whatever else went wrong, each is asked for by itself, which says why it does not come.
    if (reason instanceof OutOfReach) outOfReach = reason.message
  }
  await Promise.allSettled(checks) // what came before the line broke is here
  await keepHere()
  return outOfReach
}

async function notOnDevice(asked: readonly AudioHash[]): Promise<AudioHash[]> {
  const store = (await localDb()).transaction('audio').store
  const kept = await Promise.all(asked.map((hash) => store.getKey(hash)))
  return asked.filter((_, i) => kept[i] === undefined)
}

/** Hands each file on as it has come. What the answer leaves empty is handed on to nobody. */
async function readTogether(hashes: readonly AudioHash[], take: (hash: AudioHash, bytes: Uint8Array<ArrayBuffer>) => void): Promise<void> {
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
      if (length > 0) take(hashes[at], rest.next(length))
      length = undefined
      at++
    }
  }
  const body = JSON.stringify({ hashes })
  await answer('/api/audio/together', takeOn, { method: 'POST', body, headers: { 'content-type': 'application/json' } })
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

async function wholeAnswer(address: string): Promise<Uint8Array<ArrayBuffer>> {
  const rest = new Rest()
  await answer(address, (piece) => rest.add(piece))
  return rest.next(rest.length)
}

/** Hands on the pieces of an answer as they come. */
async function answer(address: string, take: (piece: Uint8Array<ArrayBuffer>) => void, asked: RequestInit = {}): Promise<void> {
  const ended = new AbortController()
  let silentSeconds = 0
  const clock = setInterval(() => ++silentSeconds >= SILENT_SECONDS && ended.abort(), 1000)
  let status: number
  try {
    const response = await fetch(address, { ...asked, signal: ended.signal })
    status = response.status
    const reader = response.ok ? response.body?.getReader() : undefined
    for (let read = await reader?.read(); read && !read.done; read = await reader?.read()) {
      take(read.value as Uint8Array<ArrayBuffer>)
      silentSeconds = 0
    }
  } catch {
    throw new OutOfReach(`This audio is not on this device and the server cannot be reached. ${onItsWay}`)
  } finally {
    clearInterval(clock)
  }
  if (status === 404) throw new NotCome('This audio is neither on this device nor on the server. Import the file again.')
  if (status >= 500) throw new NotCome(`This audio is not on this device, and the server cannot give it just now. ${onItsWay}`)
  if (status !== 200) throw new NotCome(`This audio is not on this device, and the server refused it (${status}). Reload the page.`)
}
