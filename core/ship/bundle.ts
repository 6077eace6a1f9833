import { hashAudio } from '../audio/hash'
import { endingOf } from '../decode/format'
import type { AudioHash } from '../kit/ids'
import type { Kit } from '../kit/kit'
import { audioInUse, originalsInUse } from '../kit/resolve'
import { readKit } from '../kit/upgrade'
import { missingWords } from './missing-words'
import { readme } from './readme'
import type { ShippedFile } from './shipment'
import { openZip, zipFiles } from './zip'
import type { OpenZip } from './zip'

const KIT_FILE = 'kit.json'
const AUDIO_FILE = /^audio\/([0-9a-f]{64})\.\w+$/

export interface Bundle {
  readonly kit: Kit
  /** The audio files that are in it. */
  readonly hashes: readonly AudioHash[]
  /** Unpacks one audio file; nothing where it is not in it, or damaged. */
  read(audio: AudioHash): Uint8Array | undefined
}

export type BundleResult = { readonly ok: true; readonly bundle: Bundle } | { readonly ok: false; readonly message: string }

/** The kit and the bytes of all audio its pads use, and of what that was decoded from, unchanged. What is not there is left out. */
export function bundleFiles(kit: Kit, bytesOf: (audio: AudioHash) => Uint8Array | undefined): ShippedFile[] {
  const files: ShippedFile[] = [{ path: KIT_FILE, bytes: new TextEncoder().encode(JSON.stringify(kit, null, 1)) }]
  for (const audio of [...audioInUse(kit), ...originalsInUse(kit)]) {
    const bytes = bytesOf(audio)
    if (bytes) files.push({ path: `audio/${audio}${endingOf(bytes)}`, bytes, name: kit.audio[audio]?.name })
  }
  return [...files, readme(kit, 'bundle', [], files)]
}

/** All of a kit in one zip. */
export function writeBundle(kit: Kit, bytesOf: (audio: AudioHash) => Uint8Array | undefined): Uint8Array<ArrayBuffer> {
  return zipFiles(bundleFiles(kit, bytesOf))
}

/** Opens a bundle as it was. Its audio is unpacked file by file, as it is asked for. */
export function readBundle(bytes: Uint8Array): BundleResult {
  if (bytes.length < 4 || bytes[0] !== 0x50 || bytes[1] !== 0x4b)
    return fail('This file is not a zip, so it is not a kit bundle. Choose a .heliaster.zip file.')
  const opened = openZip(bytes)
  if (!opened.ok) return opened
  const { zip } = opened
  if (!zip.names.includes(KIT_FILE)) return fail('This zip holds no kit: there is no kit.json in it. A kit bundle is made in Ship.')
  const json = parseJson(zip)
  if (json === undefined) return fail('The kit.json in this zip is damaged. Open an earlier bundle of this kit.')
  const kit = readKit(json)
  if (!kit.ok) return fail(kit.message)
  const names = new Map(zip.names.flatMap((name) => (AUDIO_FILE.exec(name) ? [[AUDIO_FILE.exec(name)![1] as AudioHash, name]] : [])))
  return { ok: true, bundle: { kit: kit.value, hashes: [...names.keys()], read: (audio) => readWhole(zip, names.get(audio), audio) } }
}

/** Everything in a bundle at once, and in words for a person what its kit names and it does not hold whole. */
export function readAll({ kit, hashes, read }: Bundle): { audio: Map<AudioHash, Uint8Array>; missing: string[] } {
  const audio = new Map<AudioHash, Uint8Array>()
  for (const hash of hashes) {
    const bytes = read(hash)
    if (bytes) audio.set(hash, bytes)
  }
  const missing = audioInUse(kit)
    .filter((hash) => !audio.has(hash))
    .map((hash) => missingWords(kit, hash, hashes.includes(hash)))
  return { audio, missing }
}

function fail(message: string): BundleResult {
  return { ok: false, message }
}

function parseJson(zip: OpenZip): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(zip.read(KIT_FILE)))
  } catch {
    return undefined
  }
}

/** What is not what its name says is damaged. */
function readWhole(zip: OpenZip, name: string | undefined, hash: AudioHash): Uint8Array | undefined {
  if (name === undefined) return undefined
  try {
    const bytes = zip.read(name)
    return hashAudio(bytes) === hash ? bytes : undefined
  } catch {
    return undefined
  }
}
