import { formatOf, isPackaged } from './format'
import type { AudioFormat } from './format'
import { readPackaged } from './packaged'
import type { PackagedFormat } from './packaged'
import { readAudioFile } from './read-audio-file'
import type { AudioFileResult } from './read-audio-file'
import { toldByTags } from './tags'
import { hasTags } from './told'

/**
 * Reads any audio file that comes in: all that `readAudioFile` reads, packages (MPEG-4, WebM), and what tags say. Kept
 * apart, since what reads packages is large and nothing that is kept needs it. Never throws.
 */
export async function readAnyFile(bytes: Uint8Array): Promise<AudioFileResult> {
  const format = formatOf(bytes)
  if (format && isPackaged(format)) {
    const result = await readPackaged(bytes, format as PackagedFormat)
    if (!result.ok) return result
    return { ok: true, file: { format, audio: result.audio, notes: result.notes, cues: [], loops: [], told: await toldByTags(bytes) } }
  }
  const result = await readAudioFile(bytes)
  if (!result.ok || !mayHaveTags(result.file.format, bytes)) return result
  return { ok: true, file: { ...result.file, told: { ...(await toldByTags(bytes)), ...result.file.told } } }
}

function mayHaveTags(format: AudioFormat, bytes: Uint8Array): boolean {
  return format === 'WAV' ? hasTags(bytes) : format !== 'AIFF'
}
