import type { Audio } from '@heliaster/core/audio'
import { readAudioFile } from '@heliaster/core/decode'
import type { AudioHash, Kit } from '@heliaster/core/kit'
import { bundleFiles, readBundle, writeOneShots, writeSfz, zipFiles } from '@heliaster/core/ship'
import type { Bundle, Fit, Shipment } from '@heliaster/core/ship'
import { transfer } from 'comlink'

export interface Shipped {
  readonly zip: ArrayBuffer
  readonly files: { readonly path: string; readonly name?: string; readonly bytes: number }[]
  readonly notes: string[]
  /** Whether files had to be lowered to fit. */
  readonly isTooLoud: boolean
}

export type ShipForm = 'sfz' | 'wav' | 'bundle'

/** A bundle that is being opened, until all of it has been taken over. */
let opened: Bundle | undefined

/** Writing and opening what leaves, away from the page. */
export const work = {
  async write(kit: Kit, form: ShipForm, audio: Map<AudioHash, ArrayBuffer>, fit: Fit): Promise<Shipped> {
    if (form === 'bundle') return handedOver({ files: bundleFiles(kit, (hash) => bytesOf(audio, hash)), notes: [], isTooLoud: false })
    const decoded = new Map<AudioHash, Audio>()
    for (const [hash, bytes] of audio) {
      const read = await readAudioFile(new Uint8Array(bytes))
      if (read.ok) decoded.set(hash, read.file.audio)
    }
    const audioOf = (hash: AudioHash) => decoded.get(hash)
    return handedOver(form === 'sfz' ? writeSfz(kit, audioOf) : writeOneShots(kit, audioOf, fit))
  },
  open(
    bytes: ArrayBuffer,
  ): { readonly ok: true; readonly kit: Kit; readonly hashes: readonly AudioHash[] } | { ok: false; message: string } {
    const result = readBundle(new Uint8Array(bytes))
    if (!result.ok) return result
    opened = result.bundle
    return { ok: true, kit: opened.kit, hashes: opened.hashes }
  },
  /** One file of the bundle that was opened last; nothing where it is not in it, or damaged. */
  take(hash: AudioHash): ArrayBuffer | undefined {
    const bytes = opened?.read(hash)?.slice().buffer
    return bytes && transfer(bytes, [bytes])
  },
  close(): void {
    opened = undefined
  },
}
export type ShipWork = typeof work

function handedOver({ files, notes, isTooLoud }: Shipment): Shipped {
  const zip = zipFiles(files)
  const listed = files.map(({ path, name, bytes }) => ({ path, ...(name ? { name } : {}), bytes: bytes.length }))
  return transfer({ zip: zip.buffer, files: listed, notes, isTooLoud }, [zip.buffer])
}

function bytesOf(audio: Map<AudioHash, ArrayBuffer>, hash: AudioHash): Uint8Array | undefined {
  const bytes = audio.get(hash)
  return bytes && new Uint8Array(bytes)
}
