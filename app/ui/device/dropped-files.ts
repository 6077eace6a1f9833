import { isAudioName } from './choose-files'

/** The files of a drop, with those in dropped folders and below them that sound like audio by their names. */
export async function droppedFiles(transfer: DataTransfer | null): Promise<File[]> {
  const entries = [...(transfer?.items ?? [])].map((item) => item.webkitGetAsEntry?.() ?? undefined)
  const plain = [...(transfer?.files ?? [])]
  if (!entries.some((entry) => entry?.isDirectory)) return plain
  const lists = await Promise.all(entries.map((entry) => (entry ? filesIn(entry, false) : [])))
  return lists.flat()
}

async function filesIn(entry: FileSystemEntry, isInFolder: boolean): Promise<File[]> {
  if (entry.isFile) {
    if (isInFolder && !isAudioName(entry)) return []
    const file = await new Promise<File | undefined>((resolve) => (entry as FileSystemFileEntry).file(resolve, () => resolve(undefined)))
    return file ? [file] : []
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader()
  const children: FileSystemEntry[] = []
  // A reader gives its entries in portions, and an empty one at the end.
  for (;;) {
    const portion = await new Promise<FileSystemEntry[]>((resolve) => reader.readEntries(resolve, () => resolve([])))
    if (portion.length === 0) break
    children.push(...portion)
  }
  return (await Promise.all(children.map((child) => filesIn(child, true)))).flat()
}
