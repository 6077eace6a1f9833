import type { Audio } from '@heliaster/core/audio'
import type { AudioHash } from '@heliaster/core/kit'
import { recipeOf } from '@heliaster/core/matter'

import { createStore } from 'zustand/vanilla'

import { localDb } from '../../sync/local-db'
import { device } from '../../documents'
import type { Decoded } from '../workers/core-work'
import { AudioMissing, fromServer } from './from-server'
import { createAtHand } from './at-hand'
import type { Picture } from './picture'
import { storeAudio, storePicture } from './stored-audio'
import { workedSound } from './worked-sound'
import { whenTidied } from '../workers/let-go'
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
async function audioFile(hash: AudioHash): Promise<Blob> {
  const db = await localDb()
  const kept = await db.get('audio', hash)
  if (kept) return kept.bytes instanceof Blob ? kept.bytes : new Blob([kept.bytes])
  return fromServer(hash)
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

/** Whether recordings came by of which not all could stay at hand: those that did are the last ones, not those that are wanted. */
let cameBy = false

/** Keeps audio as the one used last of its kind. */
function keepReady(hash: AudioHash, audio: Audio): void {
  const forgotten = atHand(hash).keep(hash, audio)
  for (const oldest of forgotten) decoded.delete(oldest)
  cameBy ||= forgotten.length > 0 && recipeOf(hash) === undefined
}

whenTidied(() => {
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
  const result = await coreWork().decode(await audioFile(hash))
  if (!result.ok) throw new AudioMissing(result.message)
  keepReady(hash, result.decoded.audio)
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
  const picture = await coreWork().picture((await decodedAudio(hash)).audio)
  await storePicture(hash, picture)
  return picture
}
