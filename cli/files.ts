import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { basename, dirname, extname, join, resolve, sep } from 'node:path'

import type { Audio } from '@heliaster/core/audio'
import { writeWav } from '@heliaster/core/audio'
import { audioFileEndings, isPackaged, readAudioFile as decode } from '@heliaster/core/decode'
import { readAnyFile } from '@heliaster/core/decode/any'
import type { AudioHash, Kit } from '@heliaster/core/kit'
import { compareNames } from '@heliaster/core/place'
import { readAll, readBundle } from '@heliaster/core/ship'

import { InputFault } from './input-fault'

export function readBytes(path: string): Uint8Array {
  try {
    const bytes = readFileSync(path)
    return new Uint8Array(bytes.buffer, bytes.byteOffset, bytes.length)
  } catch (error) {
    throw new InputFault(`${path}: ${reason(error)}`)
  }
}

function reason(error: unknown): string {
  const code = (error as NodeJS.ErrnoException).code
  if (code === 'ENOENT') return 'There is no such file.'
  if (code === 'EISDIR') return 'This is a folder; name a file.'
  if (code === 'EACCES') return 'This file may not be read; check its permissions.'
  return `This file cannot be read (${code ?? String(error)}).`
}

export interface ReadFile {
  readonly bytes: Uint8Array
  readonly audio: Audio
  readonly notes: string[]
  readonly cueFrames: number[]
}

export async function readAudioFile(path: string): Promise<ReadFile> {
  const bytes = readBytes(path)
  const result = await readAnyFile(bytes)
  if (!result.ok) throw new InputFault(`${path}: ${result.message}`)
  // What not every host decodes alike goes on as the samples that were decoded here.
  if (isPackaged(result.file.format))
    return { bytes: writeWav(result.file.audio, { bits: 32 }), audio: result.file.audio, notes: result.file.notes, cueFrames: [] }
  return { bytes, audio: result.file.audio, notes: result.file.notes, cueFrames: result.file.cues.map((cue) => cue.frame) }
}

export interface OpenedKit {
  readonly kit: Kit
  hasAudio(hash: AudioHash): boolean
  /** What the kit names and the bundle does not hold whole, in words. */
  readonly missing: readonly string[]
  audioOf(hash: AudioHash): Audio | undefined
}

/** Opens a bundle and decodes its audio. */
export async function openKit(path: string): Promise<OpenedKit> {
  const result = readBundle(readBytes(path))
  if (!result.ok) throw new InputFault(`${path}: ${result.message}`)
  const { audio, missing } = readAll(result.bundle)
  const decoded = new Map<AudioHash, Audio>()
  for (const [hash, bytes] of audio) {
    const read = await decode(bytes)
    if (read.ok) decoded.set(hash, read.file.audio)
  }
  return { kit: result.bundle.kit, hasAudio: (hash) => audio.has(hash), missing, audioOf: (hash) => decoded.get(hash) }
}

/** Audio files of the given files and folders, folders in natural order of names. */
export function listAudioFiles(paths: readonly string[]): string[] {
  return paths.flatMap((path) => {
    let isFolder: boolean
    try {
      isFolder = statSync(path).isDirectory()
    } catch (error) {
      throw new InputFault(`${path}: ${reason(error)}`)
    }
    if (!isFolder) return [path]
    const names = readdirSync(path).filter((name) => audioFileEndings.includes(extname(name).toLowerCase()))
    if (names.length === 0) throw new InputFault(`${path}: There are no audio files in this folder.`)
    return names.sort(compareNames).map((name) => join(path, name))
  })
}

/** Writes a file below a folder, making folders as needed. A path that would leave the folder is refused. */
export function writeBelow(folder: string, path: string, bytes: Uint8Array): void {
  const target = resolve(folder, path)
  if (!target.startsWith(resolve(folder) + sep)) throw new InputFault(`"${path}" would be written outside ${folder}.`)
  writeFile(target, bytes)
}

export function writeFile(path: string, bytes: Uint8Array): void {
  try {
    mkdirSync(dirname(path), { recursive: true })
    writeFileSync(path, bytes)
  } catch (error) {
    throw new InputFault(`${path}: It cannot be written here (${(error as NodeJS.ErrnoException).code ?? String(error)}).`)
  }
}

export function stem(path: string): string {
  return basename(path, extname(path))
}
