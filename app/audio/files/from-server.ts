import { MOST_TOGETHER } from '@heliaster/core/kit'
import type { AudioHash } from '@heliaster/core/kit'
import { proxy } from 'comlink'

import { coreWork } from '../workers/workers'

/** Audio is gone, damaged, or not here yet; the message is for a person. */
export class AudioMissing extends Error {}

/** A file that comes together with others: whether it came so; where not, it is to be asked for by itself. */
interface Coming {
  readonly came: Promise<boolean>
  readonly settle: (isHere: boolean) => void
  readonly fail: (reason: AudioMissing) => void
}
const coming = new Map<AudioHash, Coming>()

/** What is wanted next, in its order: it comes along whenever a file has to be asked for. */
let ahead: () => readonly AudioHash[] = () => []
export function bringAlong(next: () => readonly AudioHash[]): void {
  ahead = next
}

/** Brings a file that is not on this device, whole and of the hash it was asked by; it is kept on this device from then on. */
export async function fromServer(hash: AudioHash): Promise<void> {
  if (!coming.has(hash)) ask(hash)
  if (!(await coming.get(hash)?.came)) await alone(hash)
}

/** Files that are asked for by themselves: once, however many wait for one. */
const single = new Map<AudioHash, Promise<void>>()

function alone(hash: AudioHash): Promise<void> {
  const coming = single.get(hash) ?? fetchAlone(hash).finally(() => single.delete(hash))
  single.set(hash, coming)
  return coming
}

async function fetchAlone(hash: AudioHash): Promise<void> {
  const lacking = await coreWork().comeAlone(hash)
  if (lacking) throw new AudioMissing(lacking)
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
  coming.get(hash)?.settle(false)
}

/** Files of which `coming` knows already. One alone is asked for by itself. */
async function comeTogether(asked: readonly AudioHash[]): Promise<void> {
  const settle = (hash: AudioHash, isHere: boolean) => coming.get(hash)?.settle(isHere)
  // Whatever else goes wrong, each is asked for by itself, which says why it does not come.
  const outOfReach = await coreWork()
    .comeTogether(asked, proxy(settle))
    .catch(() => undefined)
  for (const hash of asked) {
    if (outOfReach) coming.get(hash)?.fail(new AudioMissing(outOfReach))
    hurry(hash)
    coming.delete(hash)
  }
}

function awaited(): Coming {
  let settle: Coming['settle']
  let fail: Coming['fail']
  const came = new Promise<boolean>((resolve, reject) => {
    settle = resolve
    fail = reject
  })
  came.catch(() => undefined) // nobody may be waiting for it
  return { came, settle: settle!, fail: fail! }
}
