import type { Audio } from '../audio/audio'
import { readAiff } from '../audio/aiff-read'
import { readWav } from '../audio/wav-read'
import type { WavFile } from '../audio/wav-read'
import { readCompressed } from './compressed'
import { formatOf, unreadableFormat } from './format'
import type { AudioFormat } from './format'

/** Any audio file, decoded; all frames are frames of the file. */
export interface AudioFile extends Pick<WavFile, 'cues' | 'loops' | 'rootNote' | 'velocityRange' | 'notes'> {
  readonly format: AudioFormat
  readonly audio: Audio
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
    return result.ok ? { ok: true, file: { ...result.file, format } } : result
  }
  const result = await readCompressed(bytes, format)
  return result.ok ? { ok: true, file: { format, audio: result.audio, notes: result.notes, cues: [], loops: [] } } : result
}
