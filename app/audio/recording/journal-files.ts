import { formOf, HEADER_BYTES, wavHeader, wholeFrames } from '@heliaster/core/record'
import type { WavForm } from '@heliaster/core/record'

/** The part of a file handle that only workers have. */
interface SyncHandle {
  read(bytes: Uint8Array<ArrayBuffer>, options: { at: number }): number
  write(bytes: Uint8Array<ArrayBuffer>, options: { at: number }): number
  truncate(bytes: number): void
  flush(): void
  getSize(): number
  close(): void
}

const FOLDER = 'recordings'

async function folder(): Promise<FileSystemDirectoryHandle> {
  return (await navigator.storage.getDirectory()).getDirectoryHandle(FOLDER, { create: true })
}

async function openSync(file: FileSystemFileHandle): Promise<SyncHandle> {
  return (file as unknown as { createSyncAccessHandle(): Promise<SyncHandle> }).createSyncAccessHandle()
}

/** A recording being written on this device. It outlives the page; while it is open no other page can touch it. */
export interface JournalFile {
  readonly name: string
  append(bytes: Uint8Array<ArrayBuffer>): void
  flush(): void
  /** Writes the head with the frames that are there, and closes. */
  close(form: WavForm): void
}

export async function createJournalFile(): Promise<JournalFile> {
  const name = `take-${Date.now()}-${Math.floor(Math.random() * 1e6)}.wav`
  const handle = await openSync(await (await folder()).getFileHandle(name, { create: true }))
  let at = 0
  return {
    name,
    append(bytes) {
      const written = handle.write(bytes, { at })
      at += written
      if (written < bytes.length) throw new DOMException('The disk took only a part.', 'QuotaExceededError')
    },
    flush: () => handle.flush(),
    close(form) {
      seal(handle, form)
      handle.close()
    },
  }
}

/** Cuts what is no whole frame, and says in the head how many there are. */
function seal(handle: SyncHandle, form: WavForm): number {
  const frames = wholeFrames(form, handle.getSize())
  handle.truncate(HEADER_BYTES + (frames * form.channels * form.bits) / 8)
  handle.write(wavHeader(form, frames), { at: 0 })
  handle.flush()
  return frames
}

/** A recording that was cut off when its page went away. */
export interface LeftTake {
  readonly name: string
  readonly seconds: number
  /** When its last piece was written, in milliseconds since 1970. */
  readonly endedAt: number
}

const WORTH_SECONDS = 0.05

/** Recordings that no page is writing any more. Empty ones, left by inputs that were only open, are cleared away. */
export async function listLeftTakes(): Promise<LeftTake[]> {
  const left: LeftTake[] = []
  const where = await folder()
  for await (const [name, entry] of (where as unknown as { entries(): AsyncIterable<[string, FileSystemHandle]> }).entries()) {
    if (entry.kind !== 'file') continue
    const file = await (entry as FileSystemFileHandle).getFile()
    const sealed = await sealLeft(entry as FileSystemFileHandle)
    if (sealed === 'inUse') continue
    if (sealed < WORTH_SECONDS) await where.removeEntry(name)
    else left.push({ name, seconds: sealed, endedAt: file.lastModified })
  }
  return left.sort((a, b) => a.endedAt - b.endedAt)
}

/** Seconds of a left file, made readable; or that another page is writing it. */
async function sealLeft(file: FileSystemFileHandle): Promise<number | 'inUse'> {
  let handle: SyncHandle
  try {
    handle = await openSync(file)
  } catch {
    return 'inUse'
  }
  try {
    const head = new Uint8Array(HEADER_BYTES)
    handle.read(head, { at: 0 })
    const form = formOf(head)
    return form ? seal(handle, form) / form.sampleRateHz : 0
  } finally {
    handle.close()
  }
}

export async function journalBlob(name: string): Promise<File> {
  return (await (await folder()).getFileHandle(name)).getFile()
}

export async function removeJournal(name: string): Promise<void> {
  await (await folder()).removeEntry(name).catch(() => undefined)
}
