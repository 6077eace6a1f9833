import type { NamedFile } from './by-names'
import { LETTER, nameParts } from './name-parts'
import type { NamePart, NameReading } from './name-parts'
import { CROSSED } from './name-table'

/** Reads all names alike: what looks like ranges, notes or counting letters is that only if it makes sense in all of them. */
export function partsOf(files: readonly NamedFile[]): NamePart[][] {
  const read = (reading: NameReading) => files.map(({ name }) => nameParts(name, reading))
  const plain: NameReading = { ranges: 'none', notes: true, letters: 'none' }
  const letters = (['last', 'first'] as const).find((way) => areLetters(read({ ...plain, letters: way }))) ?? 'none'
  const notes = areNotes(read({ ...plain, letters }))
  const ranges = (['first', 'last'] as const).find((way) => areRanges(read({ ranges: way, notes, letters }).flat().flatMap((part) => (part.range ? [part.range] : [])))) // prettier-ignore
  return read({ ranges: ranges ?? 'none', notes, letters })
}

const FEWEST_LETTERS = 3

/** Letters count where each name has one, and all of them together are a, b, c and on. */
function areLetters(parts: readonly (readonly NamePart[])[]): boolean {
  const counts = parts.map((own) => own.filter(({ slot }) => slot === LETTER))
  const found = [...new Set(counts.flat().map(({ number }) => number!))].sort((a, b) => a - b)
  return counts.every((own) => own.length === 1) && found.length >= FEWEST_LETTERS && found.every((letter, i) => letter === i + 1)
}

/** Ranges of one set meet without lying over each other, and reach the loudest. */
function areRanges(ranges: readonly (readonly [number, number])[]): boolean {
  if (ranges.length === 0) return true
  const sorted = [...new Map(ranges.map((range) => [String(range), range])).values()].sort((a, b) => a[0] - b[0])
  return sorted.every((range, i) => i === 0 || range[0] > sorted[i - 1][1]) && sorted[sorted.length - 1][1] >= 100
}

/** One letter with many numbers counts something; notes are of several letters, or one each. */
function areNotes(parts: readonly (readonly NamePart[])[]): boolean {
  const notes = [...new Set(parts.flat().flatMap((part) => (part.slot === 'note' ? [part.text] : [])))]
  if (notes.length < 3) return true
  return new Set(notes.map((text) => text.replace(/-?\d+$/, ''))).size > 1
}

/** Runs of words lose what all names have in common at the front and back, so that what differs can be compared. */
export function splitRuns(parts: readonly NamePart[][]): NamePart[][] {
  const runs = new Map<string, string[][]>()
  for (const own of parts)
    for (const { slot, text } of own) if (slot.startsWith('words')) runs.set(slot, [...(runs.get(slot) ?? []), text.split(' ')])
  const common = new Map([...runs].map(([slot, texts]) => [slot, commonEnds(texts)]))
  const crossing = new Map(
    [...runs].map(([slot, texts]) => [slot, crossedEnd(texts.map((words) => withoutEnds(words, common.get(slot)!)))]),
  )
  return parts.map((own) =>
    own.flatMap((part): NamePart[] => {
      const ends = common.get(part.slot)
      if (!ends) return [part]
      const words = part.text.split(' ')
      const middle = withoutEnds(words, ends)
      const said = (place: string, of: string[]) => (of.length > 0 ? [{ slot: `${part.slot}${place}`, text: of.join(' ') }] : [])
      const end = crossing.get(part.slot)
      const inside = { none: said('', middle), first: [...said(' first', middle.slice(0, 1)), ...said('', middle.slice(1))], last: [...said('', middle.slice(0, -1)), ...said(' last', middle.slice(-1))] }[end ?? 'none'] // prettier-ignore
      return [...said(' before', words.slice(0, ends.front)), ...inside, ...said(' after', words.slice(words.length - ends.back))]
    }),
  )
}

const withoutEnds = (words: string[], { front, back }: { front: number; back: number }) => words.slice(front, words.length - back)

/** Which end of runs of words is a part of its own, for each of its words comes with nearly all that the others say. */
function crossedEnd(texts: readonly string[][]): 'first' | 'last' | 'none' {
  if (texts.some((words) => words.length < 2)) return 'none'
  const isCrossing = (end: (words: string[]) => string, rest: (words: string[]) => string) => {
    const company = new Map<string, Set<string>>()
    for (const words of texts) company.set(end(words), (company.get(end(words)) ?? new Set()).add(rest(words)))
    const rests = new Set(texts.map(rest))
    return company.size > 1 && rests.size > 1 && [...company.values()].every((own) => own.size >= CROSSED * rests.size)
  }
  if (isCrossing((words) => words[words.length - 1].toLowerCase(), (words) => words.slice(0, -1).join(' ').toLowerCase())) return 'last' // prettier-ignore
  return isCrossing(
    (words) => words[0].toLowerCase(),
    (words) => words.slice(1).join(' ').toLowerCase(),
  )
    ? 'first'
    : 'none'
}

function commonEnds(texts: readonly string[][]): { front: number; back: number } {
  const shortest = Math.min(...texts.map((words) => words.length))
  const alike = (at: (words: string[]) => string) => texts.every((words) => at(words).toLowerCase() === at(texts[0]).toLowerCase())
  let front = 0
  while (front < shortest && alike((words) => words[front])) front++
  let back = 0
  while (back < shortest - front && alike((words) => words[words.length - 1 - back])) back++
  return { front, back }
}
