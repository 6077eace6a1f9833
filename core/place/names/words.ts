import type { NameRole } from './types'
import type { Factor } from './factors'

/** Words that say something by themselves. They break ties alone, and only where most of a column are such words. */
const LABELS: Readonly<Record<string, readonly NameRole[]>> = Object.fromEntries([
  ...['rr', 'r', 'take', 'tk', 't', 'turn', 'hit', 'robin', 'alt', 'var', 'variation', 'try', 'no', 'nr', 'x'].map((word) => [
    word,
    ['take'],
  ]),
  ...['v', 'vel', 'velocity', 'vl', 'l', 'lv', 'lvl', 'level', 'layer', 'dyn', 'dynamic', 'd', 'strength', 'b', 'band'].map((word) => [word, ['level']]), // prettier-ignore
  ...['note', 'key', 'midi', 'n'].map((word) => [word, ['note']]),
  ...['mic', 'microphone', 'ch', 'chan', 'channel'].map((word) => [word, ['microphone']]),
])

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
const MOST = 0.6

/** How hard a text says a strike was; of two words the first may make more of the second. */
export function strengthOf(text: string): number | undefined {
  const words = text.toLowerCase().split(' ')
  const own = STRENGTHS[words[words.length - 1]]
  if (own === undefined || words.length === 1) return own
  if (MORE.has(words[0])) return own < 5 ? own - 1.2 : own + 1.2
  const first = STRENGTHS[words[0]]
  return first === undefined ? undefined : (first + own) / 2
}

/** What the words of a column say that it is, for breaking ties. */
export function saidOf({ texts, label }: Factor): NameRole | undefined {
  if (label && Object.hasOwn(LABELS, label)) return LABELS[label][0]
  const share = (is: (text: string) => boolean) => texts.filter(is).length / Math.max(1, texts.length)
  if (share((text) => strengthOf(text) !== undefined) >= MOST) return 'level'
  if (share((text) => text.toLowerCase().split(' ').some((word) => PLACES.has(word))) >= MOST) return 'microphone' // prettier-ignore
  const glued = texts.map((text) => /^(\p{L}+) ?\d+$/u.exec(text.toLowerCase())?.[1])
  if (glued.length > 0 && glued.every((word) => word !== undefined && (LABELS[word]?.[0] === 'microphone' || PLACES.has(word))))
    return 'microphone'
  return undefined
}

/** Words that count or rank rather than name, and are left out of a drum's name before a number. */
export const isLabelWord = (word: string) => Object.hasOwn(LABELS, word.toLowerCase())
