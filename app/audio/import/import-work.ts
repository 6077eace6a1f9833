import { measureSound } from '@heliaster/core/alike'
import { writeWav } from '@heliaster/core/audio'
import type { Audio } from '@heliaster/core/audio'
import { familyOf } from '@heliaster/core/cut'
import type { Family } from '@heliaster/core/kit'
import { isPackaged } from '@heliaster/core/decode'
import type { AudioFile, Told } from '@heliaster/core/decode'
import { readAnyFile } from '@heliaster/core/decode/any'
import type { AudioHash, AudioInfo, Measured } from '@heliaster/core/kit'

import { storeAudio, storePicture } from '../files/stored-audio'
import { pictureOf } from '../files/picture'
import { hashOf } from '../workers/hash-of'

/** A file that is now kept on this device, and what is known of it. */
export interface TakenFile {
  readonly ok: true
  readonly hash: AudioHash
  readonly info: AudioInfo
  readonly measured: Measured
  readonly family: Family
  readonly cues: readonly { readonly frame: number; readonly label?: string }[]
  readonly notes: readonly string[]
  readonly told: Told
}

export type TakenOrReason = TakenFile | { readonly ok: false; readonly reason: string }

/** Longer than this is a recording of many things, which has no family. */
const HIT_SECONDS = 6

/** Reads one file after another: read, named, decoded, measured, drawn and stored, all away from the page. */
export const work = {
  async take(file: Blob, name: string): Promise<TakenOrReason> {
    let bytes: Uint8Array<ArrayBuffer>
    try {
      bytes = new Uint8Array(await file.arrayBuffer())
    } catch {
      return { ok: false, reason: 'This file can no longer be read from its disk. Choose it again.' }
    }
    const result = await readAnyFile(bytes)
    if (!result.ok) return { ok: false, reason: result.message }
    const { audio, cues, told } = result.file
    const measured = measureSound(audio)
    try {
      const kept = await keep(result.file, bytes, name)
      await storePicture(kept.hash, pictureOf(audio, measured))
      const info = { ...kept.info, sampleRateHz: audio.sampleRateHz, frames: audio.channels[0].length, channels: audio.channels.length }
      const notes = [...result.file.notes, ...formatWords(result.file, name), ...toldWords(told)]
      return { ok: true, hash: kept.hash, info, measured, family: isHit(audio) ? familyOf(audio, name) : 'other', cues, notes, told }
    } catch (error) {
      return { ok: false, reason: noRoom(error) }
    }
  },
}
export type ImportWork = typeof work

type Kept = { readonly hash: AudioHash; readonly info: Pick<AudioInfo, 'name' | 'derivedFrom'> }

/** Keeps a file as it came. What not every host decodes alike is decoded once, here, and the samples are kept beside it. */
async function keep({ format, audio }: AudioFile, bytes: Uint8Array<ArrayBuffer>, name: string): Promise<Kept> {
  const original = await hashOf(bytes)
  await storeAudio(original, name, new Blob([bytes]))
  if (!isPackaged(format)) return { hash: original, info: { name } }
  const decoded = writeWav(audio, { bits: 32 })
  const hash = await hashOf(decoded)
  const wavName = `${name.replace(/\.[^.]+$/, '')}.wav`
  await storeAudio(hash, wavName, new Blob([decoded]))
  return { hash, info: { name: wavName, derivedFrom: original } }
}

function formatWords({ format }: AudioFile, name: string): string[] {
  if (isPackaged(format)) return [`It was decoded once, from ${format}; the samples are kept beside the original.`]
  return format === 'WAV' || /^(aif|fla|mp3|og|opus)/i.test(name.split('.').pop() ?? '')
    ? []
    : [`This is ${format}, whatever its name says.`]
}

/** What was written in the file, so that nobody wonders where it came from. */
function toldWords({ tempoBpm, beats, rootNote }: Told): string[] {
  const said = [
    ...(tempoBpm === undefined ? [] : [`${tempoBpm} beats a minute`]),
    ...(beats === undefined ? [] : [`${beats} beats`]),
    ...(rootNote === undefined ? [] : [`root note ${rootNote}`]),
  ]
  return said.length > 0 ? [`The file says: ${said.join(', ')}.`] : []
}

function noRoom(error: unknown): string {
  const isFull = error instanceof DOMException && error.name === 'QuotaExceededError'
  return isFull
    ? 'This device has no room for it. Free some space, or delete sounds you do not need, and import it again.'
    : 'This browser could not write it on this device. Reload the page and import it again.'
}

const isHit = (audio: Audio) => audio.channels[0].length <= HIT_SECONDS * audio.sampleRateHz
