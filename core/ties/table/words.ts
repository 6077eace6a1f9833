/** How far a word says that a drum is open, 0..1. They break ties alone, and only for a whole column. */
const DEGREES: Readonly<Record<string, number>> = {
  tight: 0, closed: 0.05, close: 0.05, shut: 0.05, cl: 0.05, tip: 0.1, slight: 0.2, slightly: 0.2, quarter: 0.25, loose: 0.4, semi: 0.5, half: 0.5,
  sizzle: 0.6, mostly: 0.7, 'three quarter': 0.75, open: 0.9, op: 0.9, wide: 1, full: 1, fully: 1,
} // prettier-ignore

const SPOT_WORDS = new Set([
  'head', 'rim', 'shell', 'bow', 'edge', 'cup', 'bell', 'tip', 'shank', 'shoulder', 'mouth', 'middle', 'center', 'centre', 'end', 'side', 'hoop', 'cross',
  'stick', 'sidestick', 'top', 'bottom', 'lip', 'crown', 'skin', 'butt', 'off',
]) // prettier-ignore

/** How far open a few words together say it is: a first word lessens or is by itself; nothing where one of them is unknown. */
export function degreeOf(words: string): number | undefined {
  const all = words.toLowerCase()
  if (Object.hasOwn(DEGREES, all)) return DEGREES[all]
  const [first, ...rest] = all.split(' ')
  const own = Object.hasOwn(DEGREES, first!) ? DEGREES[first!] : undefined
  if (own === undefined || rest.length === 0) return own
  const last = degreeOf(rest.join(' '))
  if (last !== undefined) return last > 0.8 ? own : (own + last) / 2
  return /^\d+$/.test(rest.join('')) ? own + Math.min(0.04, Number(rest.join('')) / 1000) : undefined
}

export function isSpotWord(words: string): boolean {
  const all = words.toLowerCase().split(' ')
  return all.some((word) => SPOT_WORDS.has(word)) && all.every((word) => SPOT_WORDS.has(word) || !Object.hasOwn(DEGREES, word))
}

/** Whether one value names both a spot and how far it is open: two things that were taken for one. */
export function isBoth(words: string): boolean {
  const all = words.toLowerCase().split(' ')
  const isOpen = (word: string) => Object.hasOwn(DEGREES, word)
  return all.some((word) => SPOT_WORDS.has(word) && !isOpen(word)) && all.some((word) => isOpen(word) && !SPOT_WORDS.has(word))
}
