export type AudioFormat = 'WAV' | 'AIFF' | 'FLAC' | 'MP3' | 'Ogg Vorbis' | 'Ogg Opus' | 'Ogg FLAC' | 'MPEG-4' | 'WebM'

/** Endings of the files that are read, for file choosers. A file's bytes decide what it is, not its name. */
export const audioFileEndings = [
  '.wav',
  '.aif',
  '.aiff',
  '.aifc',
  '.flac',
  '.mp3',
  '.ogg',
  '.oga',
  '.opus',
  '.m4a',
  '.mp4',
  '.mov',
  '.webm',
  '.mka',
]

const endings: Record<AudioFormat, string> = {
  WAV: '.wav',
  AIFF: '.aiff',
  FLAC: '.flac',
  MP3: '.mp3',
  'Ogg Vorbis': '.ogg',
  'Ogg Opus': '.opus',
  'Ogg FLAC': '.oga',
  'MPEG-4': '.m4a',
  WebM: '.webm',
}

/** What not every host decodes, or not alike: kept as it came, with what was decoded of it beside it. */
export const isPackaged = (format: AudioFormat) => format === 'MPEG-4' || format === 'WebM'

/** The ending that a file of these bytes should have. */
export function endingOf(bytes: Uint8Array): string {
  const format = formatOf(bytes)
  return format ? endings[format] : '.wav'
}

const ascii = (bytes: Uint8Array, at: number, length: number) => String.fromCharCode(...bytes.subarray(at, at + length))

/** What a file is, by its first bytes; undefined for anything that is not read. */
export function formatOf(bytes: Uint8Array): AudioFormat | undefined {
  const head = ascii(bytes, 0, 4)
  if (head === 'RIFF' || head === 'RIFX' || head === 'RF64' || head === 'BW64') return 'WAV'
  if (head === 'FORM') return 'AIFF'
  if (head === 'OggS') return oggFormat(bytes)
  if (ascii(bytes, 4, 4) === 'ftyp') return 'MPEG-4'
  if (bytes[0] === 0x1a && bytes[1] === 0x45 && bytes[2] === 0xdf && bytes[3] === 0xa3) return 'WebM'
  const after = head.startsWith('ID3') ? tagLength(bytes) : 0
  if (ascii(bytes, after, 4) === 'fLaC') return 'FLAC'
  if (after > 0 || (bytes[0] === 0xff && (bytes[1] & 0xe0) === 0xe0)) return 'MP3'
  return undefined
}

function oggFormat(bytes: Uint8Array): AudioFormat | undefined {
  const first = ascii(bytes, 0, 128)
  if (first.includes('OpusHead')) return 'Ogg Opus'
  if (first.includes('\x7fFLAC')) return 'Ogg FLAC'
  return first.includes('\x01vorbis') ? 'Ogg Vorbis' : undefined
}

function tagLength(bytes: Uint8Array): number {
  return 10 + (((bytes[6] & 127) << 21) | ((bytes[7] & 127) << 14) | ((bytes[8] & 127) << 7) | (bytes[9] & 127))
}

/** What an unreadable file seems to be, in words. */
export function unreadableFormat(bytes: Uint8Array): string {
  if (bytes.length === 0) return 'This file is empty (0 bytes).'
  const convert = 'Convert it to WAV, AIFF or FLAC and import that.'
  const known: [string, boolean][] = [
    ['a zip file', ascii(bytes, 0, 2) === 'PK'],
    ['a MIDI file', ascii(bytes, 0, 4) === 'MThd'],
    ['an Ogg file without Vorbis, Opus or FLAC in it', ascii(bytes, 0, 4) === 'OggS'],
    ['a picture', ascii(bytes, 1, 3) === 'PNG' || (bytes[0] === 0xff && bytes[1] === 0xd8)],
  ]
  const name = known.find(([, is]) => is)?.[0]
  if (name) return `This is ${name}, whatever its name says. ${convert}`
  return `This is not an audio file that is read here: WAV, AIFF, FLAC, MP3, Ogg Vorbis, Opus, MPEG-4 (.m4a) and WebM are. ${convert}`
}
