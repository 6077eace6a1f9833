import { unzipSync, zipSync } from 'fflate'

import type { ShippedFile } from './shipment'

/** All zips carry the same date, so that the same kit gives the same bytes. */
export const ZIP_DATE = new Date(2026, 0, 1, 12)

/** What a zip may unpack to: never more than this, and a small one never to more than so many times its own size. */
const MOST_BYTES = 2 ** 31
const SMALL_BYTES = 2 ** 28
const MOST_TIMES = 100

export interface OpenZip {
  readonly names: readonly string[]
  /** Unpacks one entry; nothing else of the zip is touched. Throws where it is damaged. */
  read(name: string): Uint8Array
}

export type ZipResult = { readonly ok: true; readonly zip: OpenZip } | { readonly ok: false; readonly message: string }

/** Looks through a zip's list before anything of it is unpacked: sizes, doubled names, the list itself. */
export function openZip(bytes: Uint8Array): ZipResult {
  const sizes = new Map<string, number>()
  let doubled: string | undefined
  try {
    unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (sizes.has(name)) doubled ??= name
        sizes.set(name, originalSize)
        return false
      },
    })
  } catch (error) {
    return { ok: false, message: `This zip cannot be opened (${words(error)}). It may have been cut off; copy or download it again.` }
  }
  if (doubled !== undefined)
    return { ok: false, message: `This zip holds "${doubled}" twice, so it is not clear which is meant. Make it again, each file once.` }
  const total = [...sizes.values()].reduce((sum, size) => sum + size, 0)
  if (total > MOST_BYTES || (total > SMALL_BYTES && total > MOST_TIMES * bytes.length))
    return { ok: false, message: `This zip of ${size(bytes.length)} would unpack to ${size(total)}. No kit does; it was not unpacked.` }
  const read = (name: string) => unzipSync(bytes, { filter: (entry) => entry.name === name })[name]
  return { ok: true, zip: { names: [...sizes.keys()], read } }
}

export function zipFiles(files: readonly ShippedFile[]): Uint8Array<ArrayBuffer> {
  return zipSync(Object.fromEntries(files.map(({ path, bytes }) => [path, bytes])), { level: 1, mtime: ZIP_DATE })
}

function words(error: unknown): string {
  return error instanceof Error ? error.message : 'damaged'
}

function size(bytes: number): string {
  return bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(1)} GB`
}
