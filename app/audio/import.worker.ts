import { hashAudio, measure } from '@heliaster/core/audio'
import type { Audio } from '@heliaster/core/audio'
import { familyOf } from '@heliaster/core/cut'
import type { Family } from '@heliaster/core/cut'
import { readAudioFile } from '@heliaster/core/decode'
import type { AudioHash, AudioInfo, Measured } from '@heliaster/core/kit'
import { expose } from 'comlink'

import { storeAudio, storePicture } from './stored-audio'
import { pictureOf } from './picture'

/** A file that is now kept on this device, and what is known of it. */
export interface TakenFile {
  readonly ok: true
  readonly hash: AudioHash
  readonly info: AudioInfo
  readonly measured: Measured
  readonly family: Family
  readonly cues: readonly { readonly frame: number; readonly label?: string }[]
  readonly notes: readonly string[]
}

export type TakenOrReason = TakenFile | { readonly ok: false; readonly reason: string }

/** Longer than this is a recording of many things, which has no family. */
const HIT_SECONDS = 6

/** Reads one file after another: read, named, decoded, measured, drawn and stored, all away from the page. */
const work = {
  async take(file: Blob, name: string): Promise<TakenOrReason> {
    let bytes: Uint8Array<ArrayBuffer>
    try {
      bytes = new Uint8Array(await file.arrayBuffer())
    } catch {
      return { ok: false, reason: 'This file can no longer be read from its disk. Choose it again.' }
    }
    const result = await readAudioFile(bytes)
    if (!result.ok) return { ok: false, reason: result.message }
    const { audio, cues, notes, format } = result.file
    const hash = await hashOf(bytes)
    const measured = measure(audio)
    try {
      await storeAudio(hash, name, new Blob([bytes]))
      await storePicture(hash, pictureOf(audio, measured))
    } catch (error) {
      return { ok: false, reason: noRoom(error) }
    }
    const info = { name, sampleRateHz: audio.sampleRateHz, frames: audio.channels[0].length, channels: audio.channels.length }
    const told =
      format === 'WAV' || /^(aif|fla|mp3|og|opus)/i.test(name.split('.').pop() ?? '')
        ? notes
        : [...notes, `This is ${format}, whatever its name says.`]
    return { ok: true, hash, info, measured, family: isHit(audio) ? familyOf(audio) : 'other', cues, notes: told }
  },
}
export type ImportWork = typeof work

function noRoom(error: unknown): string {
  const isFull = error instanceof DOMException && error.name === 'QuotaExceededError'
  return isFull
    ? 'This device has no room for it. Free some space, or delete sounds you do not need, and import it again.'
    : 'This browser could not write it on this device. Reload the page and import it again.'
}

/** The browser's own digest where it is given (secure pages only), else ours; both are SHA-256. */
async function hashOf(bytes: Uint8Array<ArrayBuffer>): Promise<AudioHash> {
  if (!globalThis.crypto?.subtle) return hashAudio(bytes)
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes))
  return [...digest].map((byte) => byte.toString(16).padStart(2, '0')).join('') as AudioHash
}

const isHit = (audio: Audio) => audio.channels[0].length <= HIT_SECONDS * audio.sampleRateHz

expose(work)
