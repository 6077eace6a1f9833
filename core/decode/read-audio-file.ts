import type { Audio } from '../audio/audio'
import { readAiff } from '../audio/aiff-read'
import { readWav } from '../audio/wav-read'
import type { WavFile } from '../audio/wav-read'
import { readCompressed } from './compressed'
import { formatOf, unreadableFormat } from './format'
import type { AudioFormat } from './format'
import { toldByNote, toldByWav } from './told'
import type { Told } from './told'

/** Any audio file, decoded; all frames are frames of the file. */
export interface AudioFile extends Pick<WavFile, 'cues' | 'loops' | 'rootNote' | 'velocityRange' | 'notes'> {
  readonly format: AudioFormat
  readonly audio: Audio
  /** Tempo, beats and root note, where they are written in the file; tags are read by `readAnyFile` alone. */
  readonly told: Told
}

export type AudioFileResult = { readonly ok: true; readonly file: AudioFile } | { readonly ok: false; readonly message: string }

/**
 * Reads WAV, AIFF, FLAC, MP3, Ogg Vorbis, Ogg Opus and Ogg FLAC by what their bytes say they are. Never throws: what
 * cannot be read says why. Memory stays below `memoryLimitBytes` of the file's size for what is decoded.
 */
export async function readAudioFile(bytes: Uint8Array): Promise<AudioFileResult> {
  const format = formatOf(bytes)
  if (!format) return { ok: false, message: unreadableFormat(bytes) }
  if (format === 'WAV' || format === 'AIFF') {
    const result = format === 'WAV' ? readWav(bytes) : readAiff(bytes)
    if (!result.ok) return result
    const told = format === 'WAV' ? toldByWav(bytes, result.file.rootNote) : toldByNote(result.file.rootNote)
    return { ok: true, file: { ...result.file, format, told } }
  }
  if (format === 'MPEG-4' || format === 'WebM')
    return { ok: false, message: `This is a ${format} file as it came in. Import it, so that what was decoded of it is kept beside it.` }
  const result = await readCompressed(bytes, format)
  return result.ok ? { ok: true, file: { format, audio: result.audio, notes: result.notes, cues: [], loops: [], told: {} } } : result
}
