import type { Audio } from '@heliaster/core/audio'
import type { AudioHash } from '@heliaster/core/kit'
import { recipeOf } from '@heliaster/core/matter'

import { createStore } from 'zustand/vanilla'

import { localDb } from '../../sync/local-db'
import { device } from '../../documents'
import type { CoreWork, Decoded, Failed, Plain, Sound } from '../workers/core-work'
import { AudioMissing, fromServer } from './from-server'
import { createAtHand } from './at-hand'
import { keptFile } from './kept-file'
import type { Picture } from './picture'
import { storeAudio, storePicture } from './stored-audio'
import { workedSound } from './worked-sound'
import { letGo, whenTidied } from '../workers/let-go'
import { clearTrays, onTray, putTrayBack, takeTray } from '../workers/trays'
import { coreWork } from '../workers/workers'

/** Files that pads want and that cannot be had, each with its reason. */
export const missingAudio = createStore<Readonly<Record<AudioHash, string>>>(() => ({}))

export function noteMissing(hash: AudioHash, reason: string | undefined): void {
  if (missingAudio.getState()[hash] === reason) return
  const { [hash]: _before, ...others } = missingAudio.getState()
  missingAudio.setState(reason === undefined ? others : { ...others, [hash]: reason }, true)
}

/** What was decoded last stays at hand, so many samples of it; the rest is decoded again when it is needed. */
const MOST_SAMPLES = 4 << 20
/** What was worked took longer than decoding does. */
const MOST_WORKED_SAMPLES = 12 << 20
const decoded = new Map<AudioHash, Promise<Decoded>>()
const recordings = createAtHand(MOST_SAMPLES)
const worked = createAtHand(MOST_WORKED_SAMPLES)
const atHand = (hash: AudioHash) => (recipeOf(hash) === undefined ? recordings : worked)
const pictures = new Map<AudioHash, Promise<Picture>>()

/** Keeps a new file on this device and on its way to the server. */
export async function keepAudio(hash: AudioHash, name: string, bytes: Blob): Promise<void> {
  await storeAudio(hash, name, bytes)
  device.filesKept()
}

export async function audioBytes(hash: AudioHash): Promise<ArrayBuffer> {
  return (await audioFile(hash)).arrayBuffer()
}

/** A file: from this device, else from the server, which is then kept here too. */
function audioFile(hash: AudioHash): Promise<Blob> {
  return brought(hash, async () => await coreWork().file(hash), keptFile(hash))
}

/** What the device has of a file; it is brought where it has nothing. Only where there is room for nothing is it gone again then. */
async function brought<T>(hash: AudioHash, here: () => Promise<T | undefined>, before = here()): Promise<T> {
  const kept = await before
  if (kept !== undefined) return kept
  await fromServer(hash)
  const come = await here()
  if (come === undefined) throw new AudioMissing('This device has no room to take this audio in. Make room on it, then reload the page.')
  return come
}

export function decodedAudio(hash: AudioHash): Promise<Decoded> {
  let promise = decoded.get(hash)
  if (!promise) {
    promise = decode(hash)
    decoded.set(hash, promise)
    promise.catch(() => decoded.delete(hash))
    return promise
  }
  const audio = readyAudio(hash)
  if (audio) keepReady(hash, audio)
  return promise
}

/** Whether so many samples are too many to stay at hand. */
export const isTooMuchAtHand = (samples: number): boolean => samples > MOST_SAMPLES

/** Of a shorter file a worker needs no samples that are at hand here: it is decoded there each time. */
const SHORT_BYTES = 1e6

/** A sound for a worker: its samples where they are at hand or soon will be, else a short file as it is. */
export async function soundForWorker(hash: AudioHash): Promise<Sound> {
  const file = decoded.has(hash) || recipeOf(hash) ? undefined : await audioFile(hash)
  return file && file.size <= SHORT_BYTES ? file : (await decodedAudio(hash)).audio
}

/** Audio that is only passed on. */
export interface Passing {
  readonly audio: Audio
  /** It was passed on: its samples may be overwritten. */
  done(): void
}

/** Audio of a file, so many samples, that nobody keeps at hand; one that is at hand anyway is passed on as it is. */
export async function passingAudio(hash: AudioHash, samples: number): Promise<Passing> {
  const plain = ({ audio }: Decoded): Passing => ({ audio, done: () => letGo(4 * samples) })
  if (decoded.has(hash) || recipeOf(hash)) return plain(await decodedAudio(hash))
  const tray = takeTray(4 * samples)
  if (!tray) return plain(await decodeFile(hash))
  let result: NonNullable<Awaited<ReturnType<CoreWork['decodeOnto']>>>
  try {
    result = await brought(hash, async () => await coreWork().decodeOnto(tray, hash))
  } catch (error) {
    putTrayBack(tray)
    throw error
  }
  if (result.ok && 'frames' in result) {
    const { sampleRateHz, channels, frames } = result
    return { audio: { sampleRateHz, channels: onTray(tray, channels, frames) }, done: () => putTrayBack(tray) }
  }
  putTrayBack(tray)
  return plain(decodedOf(result))
}

/** Whether recordings came by of which not all could stay at hand: those that did are the last ones, not those that are wanted. */
let cameBy = false

/** Keeps audio as the one used last of its kind. */
function keepReady(hash: AudioHash, audio: Audio): void {
  const forgotten = atHand(hash).keep(hash, audio)
  for (const oldest of forgotten) decoded.delete(oldest)
  cameBy ||= forgotten.length > 0 && recipeOf(hash) === undefined
}

whenTidied(() => {
  clearTrays()
  if (!cameBy) return
  cameBy = false
  for (const hash of recordings.hashes()) {
    recordings.forget(hash)
    decoded.delete(hash)
  }
})

/** A recording as it is decoded, or a sound as its recipe works it. */
async function decode(hash: AudioHash): Promise<Decoded> {
  const recipe = recipeOf(hash)
  if (recipe) {
    const audio = await workedSound(recipe, async () => (await decodedAudio(recipe.clip.audio)).audio)
    keepReady(hash, audio)
    return { audio, cueFrames: [], notes: [] }
  }
  const result = await decodeFile(hash)
  keepReady(hash, result.audio)
  return result
}

const decodeFile = async (hash: AudioHash): Promise<Decoded> =>
  decodedOf(await brought(hash, async () => await coreWork().decodeHere(hash)))

function decodedOf(result: Failed | Plain): Decoded {
  if (!result.ok) throw new AudioMissing(result.message)
  return result.decoded
}

/** Decoded audio when it is here already. */
export function readyAudio(hash: AudioHash): Audio | undefined {
  return atHand(hash).get(hash)
}

const drawn = new Map<AudioHash, Picture>()

/** The picture of a file where it is at hand at once. */
export const drawnPicture = (hash: AudioHash): Picture | undefined => drawn.get(hash)

/** A small picture of a whole file with its level, kept once drawn. */
export function audioPicture(hash: AudioHash): Promise<Picture> {
  let promise = pictures.get(hash)
  if (!promise) {
    promise = drawPicture(hash)
    pictures.set(hash, promise)
    promise.then(
      (picture) => drawn.set(hash, picture),
      () => pictures.delete(hash),
    )
  }
  return promise
}

async function drawPicture(hash: AudioHash): Promise<Picture> {
  const db = await localDb()
  const kept = await db.get('pictures', hash)
  if (kept) return kept
  const picture = await coreWork().picture(await soundForWorker(hash))
  await storePicture(hash, picture)
  return picture
}
