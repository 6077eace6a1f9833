import { determines } from './parts'
import type { Constant, Factor } from './factors'
import type { Evidence } from './evidence'
import { isNote } from './tokens'
import type { NameQuestion, NameRole, NameRoles } from './types'
import { saidOf } from './words'

type Role = Exclude<NameRole, 'velocity' | 'nothing'>
const ROLES: readonly Role[] = ['drum', 'microphone', 'level', 'take', 'note']

/** A little for what lists of words say: less than what is heard. */
const SAID = 1
/** Where nothing is heard, everything is a tie. */
const UNHEARD = 2.5
const MOST_MICROPHONES = 8

interface Reading {
  readonly roles: readonly Role[]
  readonly score: number
}

/** So close that the other reading is asked about. */
const CLOSE = 1.2

/**
 * Decides what each factor stands for, all of them together: the reading that the evidence speaks for most. Microphones
 * are what hears the same strike, strength is what explains loudness, takes count on, drums are what is left. Where
 * another reading is nearly as good, it is asked about; every role is offered, the likeliest first.
 */
export function rolesOf(
  factors: readonly Factor[],
  evidence: readonly Evidence[],
  constants: readonly Constant[],
  given: NameRoles,
): { roles: Map<string, NameRole>; question?: NameQuestion } {
  const isNamed = constants.some(({ kind, isLabel }) => kind === 'word' && !isLabel)
  const isBound = (factor: Factor) => factors.some((other) => other !== factor && determines(other, factor) && determines(factor, other))
  const isNameless = !isNamed && factors.every(({ kind }) => kind !== 'word')
  const scores = factors.map((factor, i) => {
    const own = scoresOf(factor, evidence[i], i === 0 && !isNamed, isBound(factor))
    return isNameless && factor.label && factor.isGlued && !saidOf(factor) ? { ...own, drum: own.drum + NUMBERED } : own
  })
  const readings = readingsOf(factors, scores, given, isNamed).sort((a, b) => b.score - a.score)
  const [best] = readings
  const roles = new Map<string, NameRole>(
    factors.map(({ slot, kind }, i) => [slot, best.roles[i] === 'level' && kind === 'range' ? 'velocity' : best.roles[i]]),
  )
  const question = questionOf(factors, readings, given)
  return { roles, ...(question ? { question } : {}) }
}

/** A number behind a word that says nothing, where there is no other name, is a number of that drum, as in “keel 1”. */
const NUMBERED = 2.5

function readingsOf(
  factors: readonly Factor[],
  scores: readonly Readonly<Record<Role, number>>[],
  given: NameRoles,
  isNamed: boolean,
): Reading[] {
  let open: Reading[] = [{ roles: [], score: 0 }]
  factors.forEach(({ slot }, i) => {
    const said = given[slot] === 'velocity' ? 'level' : given[slot] === 'nothing' ? 'drum' : given[slot]
    const options = said ? [said as Role] : ROLES
    open = open.flatMap(({ roles, score }) =>
      options
        .filter((role) => said || role === 'drum' || !roles.includes(role))
        .map((role) => ({ roles: [...roles, role], score: score + scores[i][role] })),
    )
    // The best few hundred go on: sets of many factors have too many readings to go through.
    if (open.length > MOST_READINGS) open = open.sort((a, b) => b.score - a.score).slice(0, MOST_READINGS)
  })
  return open.map(({ roles, score }) => ({ roles, score: score + together(roles, isNamed) }))
}

const MOST_READINGS = 800
const FEWEST_REPEATS = 1.5

/** What roles say of each other: where the drum has a name besides, what differs is rather something else. */
function together(roles: readonly Role[], isNamed: boolean): number {
  const drums = roles.filter((role) => role === 'drum').length
  return (isNamed ? -0.7 * drums : 0) - (roles.includes('note') && drums === 0 && !isNamed ? 2 : 0)
}

function questionOf(factors: readonly Factor[], readings: readonly Reading[], given: NameRoles): NameQuestion | undefined {
  const [best, ...others] = readings
  const close = others.find(({ score }) => best.score - score < CLOSE)
  if (!close) return undefined
  const at = factors.findIndex(({ slot }, i) => best.roles[i] !== close.roles[i] && !given[slot])
  if (at < 0) return undefined
  const ranked = [...new Set([best.roles[at], ...others.map(({ roles }) => roles[at])])]
  return { slot: factors[at].slot, texts: factors[at].texts, roles: ranked.slice(0, 4) }
}

function scoresOf(factor: Factor, evidence: Evidence, isFirst: boolean, isBound: boolean): Record<Role, number> {
  const said = saidOf(factor)
  const scores: Record<Role, number> = {
    drum: drumScore(factor, evidence) + (isFirst ? 0.5 : 0),
    microphone: microphoneScore(factor, evidence),
    level: levelScore(factor, evidence),
    take: takeScore(factor, evidence),
    note: noteScore(factor, isBound),
  }
  const other = otherThings(factor, evidence)
  scores.drum += other
  scores.take -= other
  scores.level -= other
  const isTie = said === 'microphone' ? evidence.asLong === undefined : !evidence.isHeard
  const counts = isTie ? UNHEARD * SAID : SAID
  if (said) scores[said as Role] += counts
  if (said && said !== 'drum') scores.drum -= counts / 2
  return scores
}

function microphoneScore({ kind, texts }: Factor, { asLong, sameStrike, groups, rangeDb }: Evidence): number {
  const form = kind === 'word' ? 0.5 : kind === 'letter' ? 0 : -1
  if (texts.length > MOST_MICROPHONES || groups === 0) return form - 4
  if (asLong === undefined) return form + heardScore(sameStrike) - (rangeDb > 15 ? 1 : 0)
  return form + (asLong > 0.8 ? 5 : asLong < 0.3 ? -5 : 10 * (asLong - 0.55))
}

/** Whether what differs in a factor alone is the same strike, by its length or by ear. */
function isSame({ asLong, sameStrike }: Pick<Evidence, 'asLong' | 'sameStrike'>): boolean {
  return asLong === undefined ? sameStrike !== undefined && sameStrike > 0.6 : asLong > 0.8
}

const OTHER_OCTAVES = 0.6
const HIGHEST_VELOCITY = 127

/** What the ear says of being the same strike, for or against. */
function heardScore(sameStrike: number | undefined): number {
  return sameStrike === undefined ? 0 : 7 * sameStrike - 2.5
}

/** From here on numbers count other things rather than takes, dB of unlikeness; each this many more say as much as a point does. */
const UNLIKE_DB = 5.4
const POINT_DB = 1
const MOST_UNLIKE = 2.5
/** Takes of one thing are tuned alike; a few things that are tuned apart are no takes, and of more the notes are told by pitch. */
const TUNED_APART = 0.075
const TUNED_ALIKE = 0.03
const MOST_TUNED = 5
const APART = 5
/** A few toms are counted because they are tuned apart, where no ear says otherwise: neither tuned alike nor struck from soft to hard. */
const TOMS = 4
const SOFT_TO_HARD_DB = 10

/** What the ear says for what is counted being things of their own, as kicks of a collection and toms are; nothing where a label says what it counts. */
function otherThings(factor: Factor, { unlike, pitchOctaves, areToms, repeats, rangeDb, asLong, sameStrike }: Evidence): number {
  const { kind, texts } = factor
  if ((kind !== 'number' && kind !== 'letter') || saidOf(factor) || isSame({ asLong, sameStrike })) return 0
  const areFew = texts.length <= MOST_TUNED
  if (areFew && pitchOctaves !== undefined && pitchOctaves > TUNED_APART) return APART
  const isOneTom = rangeDb > SOFT_TO_HARD_DB || (pitchOctaves !== undefined && pitchOctaves < TUNED_ALIKE)
  if (areFew && areToms && repeats < FEWEST_REPEATS && !isOneTom) return TOMS
  return unlike === undefined ? 0 : Math.min(MOST_UNLIKE, Math.max(0, (unlike - UNLIKE_DB) / POINT_DB))
}

function levelScore(
  { kind, texts, numberOf, values }: Factor,
  { isHeard, rangeDb, restDb, asLong, sameStrike, rises, centreOctaves, groups, repeats }: Evidence,
): number {
  if (kind === 'range') return 5
  const numbers = [...new Set(values)].flatMap((value) => numberOf(value) ?? [])
  const areVelocities = kind === 'number' && numbers.length > 1 && Math.max(...numbers) >= 90 && Math.max(...numbers) <= 127 && (Math.max(...numbers) - Math.min(...numbers)) / (numbers.length - 1) > 4 // prettier-ignore
  let score = areVelocities ? 3 : numbers.length > 0 && Math.min(...numbers) > HIGHEST_VELOCITY ? -3 : 0
  if (isSame({ asLong, sameStrike })) score -= 5
  if (texts.length > 16 && !areVelocities) score -= 2
  if (centreOctaves !== undefined && centreOctaves > OTHER_OCTAVES) score -= 2
  if (!isHeard) return score + (kind === 'number' ? 0.3 : 0) - (groups === 0 ? 1 : 0)
  const clear = rangeDb / (restDb + 0.7)
  // Of one file for each value nobody knows how much they differ by themselves.
  const most = repeats < FEWEST_REPEATS ? 1.5 : 4
  score += rangeDb > 3 && clear > 2 ? Math.min(most, 1 + rangeDb / 4) : -2.5
  return score + (kind === 'number' && Math.abs(rises) > 0.95 && texts.length > 2 ? 0.7 : 0)
}

function takeScore(
  { kind, texts, numberOf, values }: Factor,
  { isHeard, rangeDb, restDb, asLong, sameStrike, groups, repeats }: Evidence,
): number {
  const numbers = [...new Set(values)].flatMap((value) => numberOf(value) ?? []).sort((a, b) => a - b)
  const isCounting = numbers.length > 1 && numbers[0] <= 1 && numbers[numbers.length - 1] - numbers[0] <= 1.5 * numbers.length
  let score = kind === 'number' ? (isCounting ? 2.5 : 0.5) : kind === 'letter' ? (isCounting ? 1.5 : 0) : kind === 'range' ? -5 : -2.5
  if (texts.length > 8) score += 0.5
  if (isSame({ asLong, sameStrike })) score -= 5
  if (!isHeard) return score + (groups === 0 && kind === 'number' ? 0.5 : 0)
  return score + (rangeDb < 2.5 + restDb ? 1.5 : -Math.min(repeats < FEWEST_REPEATS ? 1 : 5, (rangeDb - restDb) / 2))
}

function drumScore({ kind }: Factor, { asLong, sameStrike, lengthOctaves, centreOctaves, groups }: Evidence): number {
  const form = kind === 'word' ? 1 : kind === 'letter' ? -0.5 : kind === 'note' ? 0 : -1.5
  const lengths = isSame({ asLong, sameStrike }) ? -4 : asLong === undefined ? 0 : lengthOctaves > 0.4 ? 1.5 : lengthOctaves < 0.3 ? -1 : 0
  // Other things sound otherwise; one thing struck harder is a little brighter.
  const centres = centreOctaves === undefined ? 0 : centreOctaves > OTHER_OCTAVES ? 2 : -1
  return form + lengths + centres + (groups === 0 ? 0.5 : 0)
}

/** Numbers in the range of notes that go with the drums, one for each. */
function noteScore({ kind, numberOf, values }: Factor, isBound: boolean): number {
  if (kind === 'note') return 3
  const numbers = [...new Set(values)].map((value) => numberOf(value))
  const areNotes = kind === 'number' && numbers.every((number) => number !== undefined && isNote(number))
  return areNotes ? (isBound ? 4 : -1.5) : -9
}
