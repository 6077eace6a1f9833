import { isAudioName } from './choose-files'

/** Where a dropped or chosen file lies, as the browser or react-dropzone says: `./oar.wav`, `/yard/oar.wav`, `yard/oar.wav`. */
function stepsOf(file: File): string[] {
  const path = file.webkitRelativePath || ((file as { relativePath?: string }).relativePath ?? '')
  return path.split('/').filter((step) => step !== '' && step !== '.')
}

/** The folder that a file came in with, the nearest one; nothing where it came by itself. */
export function folderOf(file: File): string | undefined {
  return stepsOf(file).slice(0, -1).pop()
}

/** Whether a dropped file is worth reading: of a folder what sounds like audio by its name, else whatever it is. */
export const isWanted = (file: File): boolean => folderOf(file) === undefined || isAudioName(file)
