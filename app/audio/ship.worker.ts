import type { Audio } from '@heliaster/core/audio'
import { readAudioFile } from '@heliaster/core/decode'
import type { AudioHash, Kit } from '@heliaster/core/kit'
import { readBundle, writeBundle, writeOneShots, writeSfz, ZIP_DATE } from '@heliaster/core/ship'
import { expose, transfer } from 'comlink'
import { zipSync } from 'fflate'

export interface Shipped {
  readonly zip: ArrayBuffer
  readonly files: { readonly path: string; readonly bytes: number }[]
  readonly notes: string[]
}

export type ShipForm = 'sfz' | 'wav' | 'bundle'

/** Writing and opening what leaves, away from the page. */
const work = {
  async write(kit: Kit, form: ShipForm, audio: Map<AudioHash, ArrayBuffer>): Promise<Shipped> {
    if (form === 'bundle') {
      const zip = writeBundle(kit, (hash) => bytesOf(audio, hash))
      const files = [{ path: 'kit.json', bytes: JSON.stringify(kit, null, 1).length }]
      for (const [hash, bytes] of audio) files.push({ path: `audio/${kit.audio[hash]?.name ?? hash}`, bytes: bytes.byteLength })
      return transfer({ zip: zip.buffer, files, notes: [] }, [zip.buffer])
    }
    const decoded = new Map<AudioHash, Audio>()
    for (const [hash, bytes] of audio) {
      const read = await readAudioFile(new Uint8Array(bytes))
      if (read.ok) decoded.set(hash, read.file.audio)
    }
    const audioOf = (hash: AudioHash) => decoded.get(hash)
    const shipped = form === 'sfz' ? writeSfz(kit, audioOf) : { files: writeOneShots(kit, audioOf), notes: [] }
    const zip = zipSync(Object.fromEntries(shipped.files.map((file) => [file.path, file.bytes])), { level: 1, mtime: ZIP_DATE })
    const files = shipped.files.map((file) => ({ path: file.path, bytes: file.bytes.length }))
    return transfer({ zip: zip.buffer, files, notes: shipped.notes }, [zip.buffer])
  },
  open: (bytes: ArrayBuffer) => readBundle(new Uint8Array(bytes)),
}
export type ShipWork = typeof work

function bytesOf(audio: Map<AudioHash, ArrayBuffer>, hash: AudioHash): Uint8Array | undefined {
  const bytes = audio.get(hash)
  return bytes && new Uint8Array(bytes)
}

expose(work)
