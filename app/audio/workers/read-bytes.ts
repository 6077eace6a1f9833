import { letGo } from './let-go'

/** Longer files are read into memory of their own. */
const MOST_BYTES = 1 << 21
const MOST_FREE = 4
const free: ArrayBuffer[] = []

/**
 * The bytes of a file for as long as they are used. A buffer that the browser makes for a file is collected late, so where
 * it can it reads into one of ours, which the next file has again; `read` says whether what it made still reads them.
 */
export async function withBytes<Made>(
  file: Blob,
  read: (bytes: Uint8Array<ArrayBuffer>) => Promise<readonly [made: Made, isInUse: boolean]>,
): Promise<Made> {
  const reader = file.size > 0 && file.size <= MOST_BYTES ? readerInto(file) : undefined
  if (!reader) {
    const [made] = await read(new Uint8Array(await file.arrayBuffer()))
    letGo(file.size)
    return made
  }
  const bytes = await readInto(reader, bufferFor(file.size), file.size)
  const [made, isInUse] = await read(bytes)
  if (!isInUse && free.length < MOST_FREE) free.push(bytes.buffer)
  return made
}

function readerInto(file: Blob): ReadableStreamBYOBReader | undefined {
  try {
    return file.stream().getReader({ mode: 'byob' })
  } catch {
    return undefined // this browser's streams bring buffers of their own
  }
}

/** A free buffer that has room, else a new one. */
function bufferFor(bytes: number): ArrayBuffer {
  const found = free.findIndex(({ byteLength }) => byteLength >= bytes)
  return found >= 0 ? free.splice(found, 1)[0] : new ArrayBuffer(bytes)
}

async function readInto(reader: ReadableStreamBYOBReader, into: ArrayBuffer, size: number): Promise<Uint8Array<ArrayBuffer>> {
  let buffer = into
  let at = 0
  while (at < size) {
    const { value, done } = await reader.read(new Uint8Array(buffer, at, size - at))
    if (value) {
      buffer = value.buffer
      at += value.byteLength
    }
    if (done) break
  }
  await reader.cancel()
  return new Uint8Array(buffer, 0, at)
}
