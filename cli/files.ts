import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { basename, dirname, extname, join, resolve, sep } from 'node:path'

import { readWav } from '@heliaster/core/audio'
import type { Audio } from '@heliaster/core/audio'
import type { AudioHash, Kit } from '@heliaster/core/kit'
import { compareNames } from '@heliaster/core/place'
import { readBundle } from '@heliaster/core/ship'
import type { Bundle } from '@heliaster/core/ship'

import { InputFault } from './input-fault'

export function readBytes(path: string): Uint8Array {
  try {
    return new Uint8Array(readFileSync(path))
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

export function readAudioFile(path: string): { bytes: Uint8Array; audio: Audio; notes: string[]; cueFrames: number[] } {
  const bytes = readBytes(path)
  const result = readWav(bytes)
  if (!result.ok) throw new InputFault(`${path}: ${result.message}`)
  return { bytes, audio: result.file.audio, notes: result.file.notes, cueFrames: result.file.cues.map((cue) => cue.frame) }
}

export interface OpenedKit {
  readonly kit: Kit
  readonly bundle: Bundle
  audioOf(hash: AudioHash): Audio | undefined
}

/** Opens a bundle and decodes its audio as it is asked for. Missing audio is told on standard error. */
export function openKit(path: string): OpenedKit {
  const result = readBundle(readBytes(path))
  if (!result.ok) throw new InputFault(`${path}: ${result.message}`)
  const decoded = new Map<AudioHash, Audio | undefined>()
  return {
    kit: result.bundle.kit,
    bundle: result.bundle,
    audioOf(hash) {
      if (!decoded.has(hash)) {
        const bytes = result.bundle.audio.get(hash)
        const read = bytes && readWav(bytes)
        decoded.set(hash, read?.ok ? read.file.audio : undefined)
      }
      return decoded.get(hash)
    },
  }
}

/** WAV files of the given files and folders, folders in natural order of names. */
export function listWavFiles(paths: readonly string[]): string[] {
  return paths.flatMap((path) => {
    let isFolder: boolean
    try {
      isFolder = statSync(path).isDirectory()
    } catch (error) {
      throw new InputFault(`${path}: ${reason(error)}`)
    }
    if (!isFolder) return [path]
    const names = readdirSync(path).filter((name) => extname(name).toLowerCase() === '.wav')
    if (names.length === 0) throw new InputFault(`${path}: There are no WAV files in this folder.`)
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
