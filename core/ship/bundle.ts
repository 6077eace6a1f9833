import { unzipSync, zipSync } from 'fflate'

import { hashAudio } from '../audio/hash'
import { endingOf } from '../decode/format'
import type { AudioHash } from '../kit/ids'
import type { Kit } from '../kit/kit'
import { audioInUse } from '../kit/resolve'
import { readKit } from '../kit/upgrade'

/** All zips carry the same date, so that the same kit gives the same bytes. */
export const ZIP_DATE = new Date(2026, 0, 1, 12)
const KIT_FILE = 'kit.json'
const MAX_BUNDLE_BYTES = 2 ** 31

export interface Bundle {
  readonly kit: Kit
  readonly audio: Map<AudioHash, Uint8Array>
  /** Audio the kit names and the bundle does not hold, in words for a person. */
  readonly missing: string[]
}

export type BundleResult = { readonly ok: true; readonly bundle: Bundle } | { readonly ok: false; readonly message: string }

/** The kit and the bytes of all audio its pads use, unchanged, in one zip. Audio that is not there is left out. */
export function writeBundle(kit: Kit, bytesOf: (audio: AudioHash) => Uint8Array | undefined): Uint8Array<ArrayBuffer> {
  const files: Record<string, Uint8Array> = { [KIT_FILE]: new TextEncoder().encode(JSON.stringify(kit, null, 1)) }
  for (const audio of audioInUse(kit)) {
    const bytes = bytesOf(audio)
    if (bytes) files[`audio/${audio}${endingOf(bytes)}`] = bytes
  }
  return zipSync(files, { level: 1, mtime: ZIP_DATE })
}

/** Opens a bundle as it was. What is damaged or missing is told; the rest still opens. */
export function readBundle(bytes: Uint8Array): BundleResult {
  if (bytes.length < 4 || bytes[0] !== 0x50 || bytes[1] !== 0x4b)
    return fail('This file is not a zip, so it is not a kit bundle. Choose a .heliaster.zip file.')
  let files: Record<string, Uint8Array>
  try {
    let total = 0
    files = unzipSync(bytes, {
      filter: (file) => {
        total += file.originalSize
        if (total > MAX_BUNDLE_BYTES) throw new Error('it unpacks to more than 2 GB')
        return file.name === KIT_FILE || /^audio\/[0-9a-f]{64}\.\w+$/.test(file.name)
      },
    })
  } catch (error) {
    return fail(
      `This zip cannot be opened (${error instanceof Error ? error.message : 'damaged'}). It may have been cut off; copy or download it again.`,
    )
  }
  const kitBytes = files[KIT_FILE]
  if (!kitBytes) return fail('This zip holds no kit: there is no kit.json in it. A kit bundle is made in Ship.')
  const json = parseJson(kitBytes)
  if (json === undefined) return fail('The kit.json in this zip is damaged. Open an earlier bundle of this kit.')
  const kit = readKit(json)
  if (!kit.ok) return fail(kit.message)
  return { ok: true, bundle: { kit: kit.value, ...collectAudio(kit.value, files) } }
}

function fail(message: string): BundleResult {
  return { ok: false, message }
}

function parseJson(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes))
  } catch {
    return undefined
  }
}

function collectAudio(kit: Kit, files: Record<string, Uint8Array>): Pick<Bundle, 'audio' | 'missing'> {
  const audio = new Map<AudioHash, Uint8Array>()
  const damaged = new Set<AudioHash>()
  for (const [path, bytes] of Object.entries(files)) {
    const hash = /^audio\/([0-9a-f]{64})\./.exec(path)?.[1] as AudioHash | undefined
    if (!hash) continue
    if (hashAudio(bytes) === hash) audio.set(hash, bytes)
    else damaged.add(hash)
  }
  const missing = audioInUse(kit)
    .filter((hash) => !audio.has(hash))
    .map(
      (hash) =>
        `The audio "${kit.audio[hash]?.name ?? hash.slice(0, 12)}" is ${damaged.has(hash) ? 'damaged in' : 'missing from'} this bundle; pads that use it are silent until it is imported again.`,
    )
  return { audio, missing }
}
