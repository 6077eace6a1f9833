import { noteNumber } from './names/tokens'
import { planByNames } from './name-plan'
import type { NamePlan } from './name-plan'
import type { NamedFile, NameFacts } from './names/types'
import { strengthOf as strengthOfWord } from './names/words'

/** What can stand in braces in a pattern, and what of a name it takes. */
const FIELDS: Readonly<Record<string, string>> = {
  drum: '(?<drum>.+?)',
  note: '(?<note>[A-Ga-g][#♯sb♭]?-?\\d|\\d{1,3})',
  velocity: '(?<low>\\d{1,3})[-_ ](?<high>\\d{1,3})',
  level: '(?<level>[^_\\s-]+?)',
  microphone: '(?<microphone>.+?)',
  take: '(?<take>\\d+)',
  any: '.*?',
}

/** Reads one name; undefined where it is not made like the pattern. */
export type PatternReader = (name: string) => NameFacts | undefined

/**
 * A pattern such as `{drum}_{microphone}_v{level}_rr{take}` as a reader of names without their ending. All between the
 * braces is meant as it stands; `{any}` is anything. A sentence where the pattern is no pattern.
 */
export function patternReader(pattern: string): PatternReader | string {
  const used: string[] = []
  for (const [, field] of pattern.matchAll(/\{([^{}]*)\}/g)) {
    if (!Object.hasOwn(FIELDS, field)) return `{${field}} stands for nothing. There are ${Object.keys(FIELDS).map((one) => `{${one}}`).join(', ')}.` // prettier-ignore
    if (field !== 'any' && used.includes(field)) return `{${field}} stands in the pattern twice.`
    used.push(field)
  }
  if (used.every((field) => field === 'any')) return 'The pattern has no part in braces, such as {take}.'
  const source = pattern
    .split(/(\{[^{}]*\})/)
    .map((piece) => (/^\{.*\}$/.test(piece) ? FIELDS[piece.slice(1, -1)] : piece.replace(/[.*+?^$()[\]{}|\\]/g, '\\$&')))
    .join('')
  const expression = new RegExp(`^${source}$`, 'i')
  return (name) => {
    const groups = expression.exec(name)?.groups
    return groups && factsOf(groups)
  }
}

/** Where each file goes by a pattern; what is not made like it finds no place. */
export function planByPattern(files: readonly NamedFile[], read: PatternReader): NamePlan {
  const facts = files.map(({ name }) => read(name))
  const made = files.flatMap((_, file) => (facts[file] ? [file] : []))
  const plan = planByNames(
    made.map((file) => files[file]),
    { facts: made.map((file) => facts[file]!) },
  )
  const others = files.flatMap((_, file) => (facts[file] ? [] : [{ file, reason: 'Its name is not made like the pattern.' }]))
  const placed = plan.pads.map((pad) => ({
    ...pad,
    bands: pad.bands.map((band) => ({
      ...band,
      turns: band.turns.map((turn) => ({ ...turn, files: new Map([...turn.files].map(([mic, at]) => [mic, made[at]])) })),
    })),
  }))
  const unplaced = [...plan.unplaced.map(({ file, reason }) => ({ file: made[file], reason })), ...others]
  return { pads: placed, unplaced: unplaced.sort((a, b) => a.file - b.file) }
}

function factsOf({ drum, note, low, high, level, microphone, take }: Record<string, string | undefined>): NameFacts | undefined {
  const range = low && high ? ([Math.max(1, Number(low)), Number(high)] as const) : undefined
  if (range && (range[0] > range[1] || range[1] > 127)) return undefined
  const hard = level === undefined ? undefined : strengthOf(level)
  if (level !== undefined && hard === undefined) return undefined
  const midi = note === undefined ? undefined : /^\d+$/.test(note) ? Number(note) : noteNumber(note[0].toUpperCase() + note.slice(1))
  return {
    drum: drum?.replace(/[_]+/g, ' ') ?? 'Pad',
    ...(midi === undefined || midi > 127 ? {} : { note: midi }),
    ...(microphone === undefined ? {} : { microphone }),
    ...(range ? { range, level: range[0] } : hard === undefined ? {} : { level: hard }),
    ...(take === undefined ? {} : { take: Number(take) }),
  }
}

/** How hard a number or a word such as soft says. */
function strengthOf(text: string): number | undefined {
  if (/^\d+$/.test(text)) return Number(text)
  return strengthOfWord(text)
}
