import { createAudioHasher } from '@heliaster/core/audio'
import type { AudioHash, AudioInfo } from '@heliaster/core/kit'
import { firstSide, formOf, HEADER_BYTES, sidesAlike, wavHeader, wholeFrames } from '@heliaster/core/record'
import type { WavForm } from '@heliaster/core/record'

import { storeAudio } from '../files/stored-audio'

export interface KeptTake {
  readonly hash: AudioHash
  readonly info: AudioInfo
}

const PIECE_FRAMES = 1 << 19

/**
 * Stores a finished recording under its hash, read piece by piece so that hours fit. Two channels that never differ
 * become one. The journal itself stays until the recording is on the list.
 */
export async function keepJournal(file: Blob, name: string): Promise<KeptTake> {
  const form = formOf(new Uint8Array(await file.slice(0, HEADER_BYTES).arrayBuffer()))
  if (!form) throw new Error('The recording on this device has no readable head.')
  const frames = wholeFrames(form, file.size)
  const isOneSide = form.channels === 2 && (await isAlike(file, form))
  const channels = isOneSide ? 1 : form.channels
  const hasher = createAudioHasher()
  const parts: Blob[] = []
  const take = (bytes: Uint8Array<ArrayBuffer>) => {
    hasher.update(bytes)
    parts.push(new Blob([bytes])) // a copy of its own: a blob of the journal would go with the journal
  }
  take(wavHeader({ ...form, channels }, frames))
  for await (const piece of pieces(file, form)) take(isOneSide ? firstSide(piece, form) : piece)
  const hash = hasher.finish()
  await storeAudio(hash, name, new Blob(parts))
  return { hash, info: { name, sampleRateHz: form.sampleRateHz, frames, channels } }
}

/** The frames of a recording, a few seconds at a time. */
async function* pieces(file: Blob, form: WavForm): AsyncGenerator<Uint8Array<ArrayBuffer>> {
  const frameBytes = (form.channels * form.bits) / 8
  const end = HEADER_BYTES + wholeFrames(form, file.size) * frameBytes
  for (let at = HEADER_BYTES; at < end; at += PIECE_FRAMES * frameBytes)
    yield new Uint8Array(await file.slice(at, Math.min(end, at + PIECE_FRAMES * frameBytes)).arrayBuffer())
}

async function isAlike(file: Blob, form: WavForm): Promise<boolean> {
  for await (const piece of pieces(file, form)) if (!sidesAlike(piece, form)) return false
  return true
}
