import { BufferSource, FLAC, Input, MATROSKA, MP3, MP4, OGG, QTFF, WAVE, WEBM } from 'mediabunny'

import { believed } from './told'
import type { Told } from './told'

/** Tags that hold a tempo: of ID3, of Vorbis comments, and of MPEG-4. */
const TEMPO_TAGS = ['TBPM', 'TBP', 'BPM', 'TEMPO', 'tmpo']

/** What the tags of a file say: ID3, Vorbis comments, and those of MPEG-4. Never throws. */
export async function toldByTags(bytes: Uint8Array): Promise<Told> {
  try {
    const input = new Input({ source: new BufferSource(bytes), formats: [MP3, FLAC, OGG, WAVE, MP4, QTFF, WEBM, MATROSKA] })
    const { raw = {} } = await input.getMetadataTags()
    const tempo = Object.entries(raw).find(([name]) => TEMPO_TAGS.includes(name) || TEMPO_TAGS.includes(name.toUpperCase()))
    return believed(tempo ? numberIn(tempo[1]) : NaN, NaN, NaN)
  } catch {
    return {} // tags that cannot be read say nothing; the sound is read all the same
  }
}

/** Text, or whole numbers of one to four bytes, the highest first. */
function numberIn(value: unknown): number {
  if (value instanceof Uint8Array) return value.length > 4 ? NaN : value.reduce((sum, byte) => sum * 256 + byte, 0)
  return Number(String(value).replace(',', '.').trim() || NaN)
}
