/** What a part of a file's name can stand for. */
export const nameRoles = ['drum', 'note', 'velocity', 'level', 'microphone', 'take', 'nothing'] as const
export type NameRole = (typeof nameRoles)[number]

/**
 * One part of a name. Parts of different names in the same `slot` are compared with each other: a slot is a place among
 * the words, a word that goes before a number, or a kind of word that is known.
 */
export interface NamePart {
  readonly slot: string
  readonly text: string
  readonly number?: number
  /** Lowest and highest velocity, 1..127. */
  readonly range?: readonly [low: number, high: number]
  /** What words before the number, or the word itself, say that it is. */
  readonly says?: NameRole
}

const TAKE_WORDS = new Set(['rr', 'r', 'take', 'tk', 't', 'turn', 'hit', 'robin', 'alt', 'var', 'variation', 'try', 'no', 'nr', 'x', '#'])
const LEVEL_WORDS = new Set([
  'v',
  'vel',
  'velocity',
  'vl',
  'l',
  'lv',
  'lvl',
  'level',
  'layer',
  'dyn',
  'dynamic',
  'd',
  'strength',
  'b',
  'band',
])
const NOTE_WORDS = new Set(['note', 'key', 'midi', 'n'])
const MICROPHONE_WORDS = new Set(['mic', 'microphone', 'ch', 'chan', 'channel'])
const PLACES = new Set([
  'close', 'near', 'far', 'room', 'overhead', 'overheads', 'oh', 'ambient', 'ambience', 'amb', 'contact', 'spot', 'top', 'bottom', 'btm',
  'under', 'over', 'inside', 'outside', 'in', 'out', 'front', 'back', 'rear', 'side', 'distant', 'mono', 'stereo', 'boundary', 'direct',
]) // prettier-ignore

/** How hard a word says a strike was, 0..10. */
const STRENGTHS: Readonly<Record<string, number>> = {
  ghost: 0.5, feather: 0.5, softest: 1, quietest: 1, soft: 3, quiet: 3, light: 3, gentle: 3, medium: 5, med: 5, mid: 5, middle: 5,
  normal: 5, hard: 8, loud: 8, strong: 8, heavy: 8, firm: 6.5, hardest: 10, loudest: 10, strongest: 10,
  ppp: 0.5, pp: 1.5, p: 3, mp: 4.2, mf: 5.8, f: 7, ff: 8.5, fff: 9.5,
} // prettier-ignore
const MORE = new Set(['very', 'extra', 'super'])
/** A note is written with a capital; a small b or d before a number is a band or a dynamic. */
const NOTE = /^([A-Ga-g](?:#|♯|♭|s|b)|[A-G]|[aceg])(-?\d)$/
const SEMITONES: Readonly<Record<string, number>> = { c: 0, d: 2, e: 4, f: 5, g: 7, a: 9, b: 11 }

/** The slot of letters that count. */
export const LETTER = 'letter'

interface Token {
  readonly text: string
  /** Whether it is joined to the token before it without a separator. */
  readonly glued: boolean
  /** Whether nothing but a dash stands between it and the token before it. */
  readonly dashed: boolean
}

/** How names are to be read, where one name alone cannot tell. */
export interface NameReading {
  /** Whether two numbers side by side may be a range of velocities; of three numbers, the first two or the last two. */
  readonly ranges: 'first' | 'last' | 'none'
  /** Whether a letter by itself counts takes; of two, which. */
  readonly letters: 'first' | 'last' | 'none'
  /** Whether a letter with a number, such as D3, may be a note. */
  readonly notes: boolean
}

/** The parts of a name without its ending, in their order. */
export function nameParts(fileName: string, reading: NameReading = { ranges: 'first', letters: 'none', notes: true }): NamePart[] {
  const tokens = tokensOf(fileName.replace(/\.(wav|wave|aiff?|flac|mp3|ogg|oga|opus)$/i, ''), reading.notes)
  const letter = reading.letters === 'none' ? -1 : letterAt(tokens, reading.letters)
  const parts: NamePart[] = []
  let words: string[] = [] // a run of words that say nothing yet
  let runs = 0
  let hasRange = false // a name has one
  let numbers = 0
  const endRun = () => {
    if (words.length > 0) parts.push({ slot: `words ${runs++}`, text: words.join(' ') })
    words = []
  }
  for (let i = 0; i < tokens.length; i++) {
    const { text, glued } = tokens[i]
    const low = text.toLowerCase()
    const note = reading.notes ? noteNumber(text) : undefined
    const next = tokens[i + 1]
    if (note !== undefined) {
      endRun()
      parts.push({ slot: 'note', text, number: note, says: 'note' })
    } else if (/^\d+$/.test(text)) {
      const isLater = reading.ranges === 'last' && rangeAt(tokens, i + 1) !== undefined
      const range = reading.ranges === 'none' || hasRange || isLater ? undefined : rangeAt(tokens, i)
      const before = glued || parts.length > 0 || words.length > 0 ? words[words.length - 1]?.toLowerCase() : undefined
      const says = before === undefined ? undefined : saidBy(before)
      if (range) {
        hasRange = true
        if (says) words.pop()
        endRun()
        parts.push({ slot: 'velocity range', text: `${range[0]}-${range[1]}`, range, number: range[0], says: 'velocity' })
        i++
      } else if (says) {
        const word = words.pop()!
        endRun()
        if (PLACES.has(before!)) parts.push({ slot: 'microphone', text: `${word} ${Number(text)}`, says: 'microphone' })
        else parts.push({ slot: `number after ${before}`, text: `${word}${text}`, number: Number(text), says })
      } else if (glued && words.length > 0) {
        endRun()
        parts.push({ slot: 'number of a word', text, number: Number(text) })
      } else {
        endRun()
        parts.push({ slot: `number ${numbers++}`, text, number: Number(text) })
      }
    } else if (i === letter) {
      endRun()
      parts.push({ slot: LETTER, text, number: low.charCodeAt(0) - 96, says: 'take' })
    } else if (PLACES.has(low) && !(next && /^\d+$/.test(next.text) && next.glued)) {
      endRun()
      parts.push({ slot: 'microphone', text, says: 'microphone' })
    } else if (strengthAt(tokens, i) !== undefined) {
      endRun()
      const { strength, length } = strengthAt(tokens, i)!
      const said = tokens.slice(i, i + length).map((token) => token.text).join(' ') // prettier-ignore
      parts.push({ slot: 'strength', text: said, number: strength, says: 'level' })
      i += length - 1
    } else words.push(text)
  }
  endRun()
  return parts
}

/** Where a letter stands by itself; -1 where none does. */
function letterAt(tokens: readonly Token[], which: 'first' | 'last'): number {
  const isAlone = ({ text, glued }: Token, i: number) => /^[a-z]$/i.test(text) && !glued && !(tokens[i + 1]?.glued ?? false)
  return which === 'first' ? tokens.findIndex(isAlone) : tokens.findLastIndex(isAlone)
}

/** Words and numbers: parted at separators, between letters and digits, and where a capital begins a word. */
function tokensOf(name: string, notes: boolean): Token[] {
  const tokens: Token[] = []
  let dashed = false
  for (const piece of name.match(/[^\s_.,;()[\]{}+~/\\-]+|[\s_.,;()[\]{}+~/\\-]+/g) ?? []) {
    if (/^[\s_.,;()[\]{}+~/\\-]+$/.test(piece)) {
      dashed = piece === '-'
      continue
    }
    const split = notes && NOTE.test(piece) ? [piece] : (piece.match(/\d+|[A-Z]+(?![a-z])|[A-Z]?[^A-Z\d]+|[A-Z]/gu) ?? [])
    split.forEach((text, i) => tokens.push({ text, glued: i > 0, dashed: i === 0 && dashed }))
  }
  return tokens
}

function saidBy(word: string): NameRole | undefined {
  if (TAKE_WORDS.has(word)) return 'take'
  if (LEVEL_WORDS.has(word)) return 'level'
  if (NOTE_WORDS.has(word)) return 'note'
  if (MICROPHONE_WORDS.has(word) || PLACES.has(word)) return 'microphone'
  return undefined
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

/** Two numbers with a dash between them, or of three digits each, that can be a range of velocities. */
function rangeAt(tokens: readonly Token[], at: number): readonly [number, number] | undefined {
  const [first, second] = [tokens[at], tokens[at + 1]]
  if (!first || !second || !/^\d{1,3}$/.test(first.text) || !/^\d{1,3}$/.test(second.text) || second.glued) return undefined
  if (!second.dashed && (first.text.length < 3 || second.text.length < 3)) return undefined
  const word = at > 0 ? tokens[at - 1].text.toLowerCase() : ''
  const before = saidBy(word)
  if (before === 'take' || before === 'note' || MICROPHONE_WORDS.has(word) || (first.glued && before !== 'level')) return undefined
  const [low, high] = [Number(first.text), Number(second.text)]
  return low < high && high <= 127 ? [Math.max(1, low), high] : undefined
}

/** How hard the words from here on say a strike was, with how many words said it. */
function strengthAt(tokens: readonly Token[], at: number): { strength: number; length: number } | undefined {
  const word = tokens[at].text.toLowerCase()
  const next = tokens[at + 1]?.text.toLowerCase()
  // A mark such as f says nothing more after a word; it rather counts.
  const after = next === undefined || next.length === 1 ? undefined : STRENGTHS[next]
  if (MORE.has(word) && after !== undefined) return { strength: after < 5 ? after - 1.2 : after + 1.2, length: 2 }
  const own = STRENGTHS[word]
  if (own === undefined) return undefined
  if (own === 5 && after !== undefined && after !== 5) return { strength: (5 + after) / 2, length: 2 }
  return { strength: own, length: 1 }
}
