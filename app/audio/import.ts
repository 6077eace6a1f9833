import type { Audio } from '@heliaster/core/audio'
import { createSource } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'

import { sources } from '../stores/documents'
import { makeId } from '../stores/make-id'
import { keepAudio } from './audio-files'
import { coreWork } from './workers'

export type Imported =
  | { readonly type: 'imported'; readonly source: Source; readonly notes: string[] }
  | { readonly type: 'known'; readonly source: Source }
  | { readonly type: 'failed'; readonly name: string; readonly reason: string }

const MAX_BYTES = 2 ** 31

/** Reads one file and keeps it as it is. A file that cannot be read says why; the same bytes twice are noticed. */
export async function importFile(file: File): Promise<Imported> {
  const failed = (reason: string): Imported => ({ type: 'failed', name: file.name, reason })
  if (file.size > MAX_BYTES) return failed('This file is larger than 2 GB. Split it and import the parts.')
  let bytes: ArrayBuffer
  try {
    bytes = await file.arrayBuffer()
  } catch {
    return failed('This file can no longer be read from its disk. Choose it again.')
  }
  const result = await coreWork().decode(bytes)
  if (!result.ok) return failed(result.message)
  const hash = await coreWork().hash(bytes)
  const known = Object.values(sources.store.getState().entries).find((entry) => entry.doc.audio === hash)
  if (known) return { type: 'known', source: known.doc }
  const { audio, cueFrames, notes } = result.decoded
  await keepAudio(hash, file.name, bytes)
  const info = {
    name: file.name.slice(0, 255),
    sampleRateHz: audio.sampleRateHz,
    frames: audio.channels[0].length,
    channels: audio.channels.length,
  }
  const plain = createSource(makeId, hash, info, file.name.replace(/\.[^.]+$/, '').slice(0, 255))
  const markers = cueFrames.map((frame) => ({
    id: makeId<Source['markers'][number]['id']>('marker'),
    frame,
    origin: 'file' as const,
    pinned: true,
    removed: false,
  }))
  const source = { ...plain, markers }
  await sources.create(source)
  const markerNotes = markers.length > 0 ? [`${markers.length} markers came with the file and are pinned.`] : []
  return { type: 'imported', source, notes: [...notes, ...markerNotes] }
}

/** Keeps a recording as a file of 24 bits. */
export async function keepRecording(audio: Audio, name: string): Promise<Source> {
  const bytes = await coreWork().encode(audio)
  const hash = await coreWork().hash(bytes)
  const info = { name: `${name}.wav`, sampleRateHz: audio.sampleRateHz, frames: audio.channels[0].length, channels: audio.channels.length }
  await keepAudio(hash, info.name, bytes)
  const source = createSource(makeId, hash, info, name)
  await sources.create(source)
  return source
}
