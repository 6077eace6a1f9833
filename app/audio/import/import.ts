import type { Audio } from '@heliaster/core/audio'
import { createSource } from '@heliaster/core/kit'
import type { AudioHash, MarkerId, Source } from '@heliaster/core/kit'

import { sources } from '../../documents'
import { noteGathered } from '../../documents/gathered'
import { cutToBeginWith } from '../../documents/last-cut'
import { makeId } from '../../documents/make-id'
import { device } from '../../documents'
import { folderOf } from '../../ui/device/dropped-files'
import { keepAudio } from '../files/audio-files'
import { createImportPool } from './import-pool'
import type { TakenFile } from './import-work'
import { coreWork } from '../workers/workers'

export type Imported =
  | { readonly type: 'imported'; readonly source: Source; readonly notes: readonly string[] }
  | { readonly type: 'known'; readonly name: string; readonly source: Source }
  | { readonly type: 'failed'; readonly name: string; readonly reason: string }

/** How an import goes; `done` keeps the order in which files came in. */
export interface ImportProgress {
  readonly done: readonly Imported[]
  readonly total: number
  readonly state: 'running' | 'cancelled' | 'finished'
}

/** The sounds that an import has brought or found here already, each once. */
export function soundsOf(done: readonly Imported[]): Source[] {
  return [...new Set(done.flatMap((one) => (one.type === 'failed' ? [] : [one.source])))]
}

const MAX_BYTES = 2 ** 31
/** New files reach the list, and the report, in flocks rather than one by one. */
const FLOCK_MS = 600

/**
 * Takes in many files. Those that cannot be read say why and the rest is kept; the same bytes twice are noticed. What
 * is in when it is cancelled stays.
 */
export function importFiles(
  files: readonly File[],
  onProgress: (progress: ImportProgress) => void,
): { cancel(): void; readonly finished: Promise<void> } {
  const pool = createImportPool()
  const known = new Map<AudioHash, Source>(Object.values(sources.store.getState().entries).map(({ doc }) => [doc.audio, doc]))
  const addedAt = Date.now() // one for all, so that the list has them in the order of their names
  const done: Imported[] = []
  const waiting: Source[] = []
  let next = 0
  let cancelled = false

  const take = (file: File, taken: TakenFile): Imported => {
    const here = known.get(taken.hash)
    if (here) {
      noteGathered([here.id]) // it was brought in for the kit that is open all the same
      return { type: 'known', name: file.name, source: here }
    }
    const { source, notes } = sourceOf(file, addedAt, taken)
    known.set(taken.hash, source)
    waiting.push(source)
    return { type: 'imported', source, notes }
  }
  const tellFlock = async (state: ImportProgress['state']) => {
    const flock = waiting.splice(0)
    if (flock.length > 0) {
      void sources.createMany(flock)
      device.filesKept() // their audio
    }
    onProgress({ done: [...done], total: files.length, state })
  }
  let told = Promise.resolve()
  /** One flock after another: the last word on an import is how it ended, however long an earlier flock takes. */
  const flush = (state: ImportProgress['state']) => (told = told.then(() => tellFlock(state)))
  const readOn = async () => {
    while (next < files.length && !cancelled) {
      const file = files[next++]
      const result = file.size > MAX_BYTES ? tooLarge : await pool.take(file)
      done.push(result.ok ? take(file, result) : { type: 'failed', name: file.name, reason: result.reason })
    }
  }
  const run = async () => {
    const sendOn = device.holdSending()
    onProgress({ done: [], total: files.length, state: 'running' })
    const timer = setInterval(() => void flush('running'), FLOCK_MS)
    await Promise.all(Array.from({ length: pool.size }, readOn))
    clearInterval(timer)
    pool.close()
    await flush(cancelled ? 'cancelled' : 'finished')
    sendOn()
  }
  return { cancel: () => (cancelled = true), finished: run() }
}

const tooLarge = { ok: false as const, reason: 'This file is larger than 2 GB. Split it and import the parts.' }

function sourceOf(
  file: File,
  addedAt: number,
  { hash, info, measured, family, cues, notes, told }: TakenFile,
): { source: Source; notes: readonly string[] } {
  const markers = cues.slice(0, 20000).map(({ frame, label }) => ({
    id: makeId<MarkerId>('marker'),
    frame,
    origin: 'file' as const,
    pinned: true,
    removed: false,
    ...(label ? { name: label.slice(0, 120) } : {}),
  }))
  const folder = folderOf(file)
  const source = createSource(makeId, hash, { ...info, name: info.name.slice(0, 255) }, nameOf(file.name), {
    markers,
    measured,
    family,
    addedAt,
    cut: cutToBeginWith(file.name, info, told),
    ...(Object.keys(told).length > 0 ? { told } : {}),
    tags: folder ? [folder.slice(0, 60)] : [],
  })
  const markerNotes =
    markers.length > 0
      ? [
          `${markers.length} ${markers.length === 1 ? 'marker' : 'markers'} came with the file and ${markers.length === 1 ? 'is' : 'are'} pinned.`,
        ]
      : []
  return { source, notes: [...notes, ...markerNotes] }
}

function nameOf(fileName: string): string {
  return fileName.replace(/\.[^.]+$/, '').slice(0, 255)
}

/** Keeps audio made here as a file of 32-bit float, so that not a bit of it changes. */
export async function keepMade(audio: Audio, name: string, given: Partial<Source> = {}): Promise<Source> {
  const bytes = await coreWork().encode(audio, 32)
  const hash = await coreWork().hash(bytes)
  const info = { name: `${name}.wav`, sampleRateHz: audio.sampleRateHz, frames: audio.channels[0].length, channels: audio.channels.length }
  await keepAudio(hash, info.name, new Blob([bytes]))
  const source = createSource(makeId, hash, info, name, { addedAt: Date.now(), cut: cutToBeginWith(name, info), ...given })
  void sources.create(source)
  return source
}
