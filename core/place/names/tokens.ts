import { seamsOf } from './seams'
import type { NamedFile } from './types'

/** A piece of a name that is one thing: letters of one kind, or digits, or a note such as C2. */
export interface Token {
  readonly kind: 'word' | 'number' | 'note'
  readonly text: string
  /** Whether nothing stands between it and the token before it. */
  readonly glued: boolean
  readonly isFolder?: boolean
}

const ENDING = /\.(wav|wave|aiff?|aifc|flac|mp3|ogg|oga|opus|m4a|mp4|webm)$/i
const SEPARATOR = /[\s_.,;:()[\]{}+~/\\\-–—]+/u
/** A note is written with a capital; a small b or d before a number counts something. */
const NOTE = /^([A-Ga-g](?:#|♯|♭|s|b)|[A-G]|[aceg])(-?\d)$/
const SEMITONES: Readonly<Record<string, number>> = { c: 0, d: 2, e: 4, f: 5, g: 7, a: 9, b: 11 }
/** Digits; Chinese letters with the small ones that end them, Katakana, Hiragana, other letters that have no cases; a capital with small letters; capitals; small letters. */
const RUNS =
  /\p{N}+|[\p{Script=Han}々]+\p{Script=Hiragana}*|[\p{Script=Katakana}ー]+|\p{Script=Hiragana}+|\p{Lo}[\p{Lo}\p{M}\p{Lm}]*|\p{Lu}\p{M}*(?:\p{Ll}\p{M}*)+|(?:\p{Lu}\p{M}*)+(?!\p{Ll})|(?:\p{Ll}\p{M}*)+|[^\p{L}\p{N}]+/gu

const LOWEST_NOTE = 24
const HIGHEST_NOTE = 108

/** Whether a bare number can be meant as a note of a drum. */
export function isNote(number: number): boolean {
  return number >= LOWEST_NOTE && number <= HIGHEST_NOTE
}

/** MIDI number of a note such as C2 or F#1, with middle C (60) as C4. */
export function noteNumber(text: string): number | undefined {
  const match = NOTE.exec(text)
  if (!match) return undefined
  const [, named, octave] = match
  const sign = named.slice(1)
  const shift = sign === '' ? 0 : /[#♯s]/.test(sign) ? 1 : -1
  const note = 12 * (Number(octave) + 1) + SEMITONES[named[0].toLowerCase()] + shift
  return note >= 0 && note <= 127 ? note : undefined
}

const CASELESS = /^\p{Lo}/u

/** Parts all names of a set, and what is written without separators where the set shows its seams. */
export function tokensOfSet(files: readonly NamedFile[], hasNotes: boolean): Token[][] {
  const all = withoutEchoes(files.map((file) => tokensOfFile(file, hasNotes)))
  const isPlain = (token: Token) => token.kind === 'word' && CASELESS.test(token.text)
  const seams = seamsOf(all.flatMap((tokens) => tokens.filter(isPlain).map(({ text }) => text)))
  if (seams.size === 0) return all
  return all.map((tokens) =>
    tokens.flatMap((token) => {
      const pieces = isPlain(token) ? seams.get(token.text) : undefined
      return pieces ? pieces.map((text, i) => ({ ...token, text, glued: token.glued || i > 0 })) : [token]
    }),
  )
}

/** Nearly all files: one that lies in another's folder hides nothing. */
const NEARLY_ALL = 0.9

/** Leaves out folders that say again what the names in them begin with. */
function withoutEchoes(all: Token[][]): Token[][] {
  const inFolders = all.filter(([first]) => first?.isFolder)
  const echoes = inFolders.filter((tokens) => echoOf(tokens) > 0)
  if (inFolders.length === 0 || echoes.length < NEARLY_ALL * inFolders.length) return all
  return all.map((tokens) => {
    const folders = tokens.filter(({ isFolder }) => isFolder).length
    return [...tokens.slice(0, folders - echoOf(tokens)), ...tokens.slice(folders)]
  })
}

/** How many tokens at the end of a folder stand again at the begin of the name in it. */
function echoOf(tokens: readonly Token[]): number {
  const folder = tokens.filter(({ isFolder }) => isFolder)
  const name = tokens.slice(folder.length)
  for (let count = Math.min(folder.length, name.length); count > 0; count--)
    if (folder.slice(-count).every(({ text }, i) => text.toLowerCase() === name[i].text.toLowerCase())) return count
  return 0
}

/** Parts a folder and a name, each by itself. */
export function tokensOfFile({ name, folder }: NamedFile, hasNotes: boolean): Token[] {
  const before = folder ? tokensOf(`${folder} `, hasNotes).map((token) => ({ ...token, isFolder: true })) : []
  return [...before, ...tokensOf(name, hasNotes)]
}

/** Parts a name at separators and at borders between letters, digits and cases. */
export function tokensOf(path: string, hasNotes: boolean): Token[] {
  const tokens: Token[] = []
  for (const piece of piecesOf(path.replace(ENDING, '').normalize('NFC'), hasNotes)) {
    if (hasNotes && noteNumber(piece) !== undefined) {
      tokens.push({ kind: 'note', text: piece, glued: false })
      continue
    }
    const runs = piece.match(RUNS) ?? []
    runs.forEach((text, i) => tokens.push({ kind: /^\p{N}+$/u.test(text) ? 'number' : 'word', text, glued: i > 0 }))
  }
  return tokens
}

/** A sharp sign belongs to its note; elsewhere it parts. */
function piecesOf(name: string, hasNotes: boolean): string[] {
  return name
    .split(SEPARATOR)
    .flatMap((piece) => (hasNotes && noteNumber(piece) !== undefined ? [piece] : piece.split('#')))
    .filter(Boolean)
}

/** One letter with many numbers counts something; notes are of several letters, or few. */
export function haveNotes(paths: readonly string[]): boolean {
  const notes = new Set(paths.flatMap((path) => tokensOf(path, true).flatMap((token) => (token.kind === 'note' ? [token.text] : []))))
  if (notes.size < 3) return true
  return new Set([...notes].map((text) => text.replace(/-?\d+$/, ''))).size > 1
}
