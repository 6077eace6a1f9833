import { alignNames } from './align'
import { evidenceOf, lengthsTellOf } from './evidence'
import type { Evidence } from './evidence'
import { factorsOf } from './factors'
import type { Constant, Factor } from './factors'
import { rolesOf } from './roles'
import { strengthsOf } from './strengths'
import { pairsOf } from './strikes'
import { haveNotes, isNote, noteNumber, tokensOfSet } from './tokens'
import type { Likeness, NamedFile, NameFacts, NamePart, NameRole, NameRoles, NameSlot, ReadNames } from './types'
import { isLabelWord, strengthOf } from './words'

/**
 * Understands names by their columns: all names are laid under each other, what varies is parted into factors, and what
 * each factor stands for is decided for the whole set by what the files themselves tell. `given` are roles that someone
 * has said, by slot; `likeness` tells how alike files sound where that was heard; at most one question is left open, with its first answer taken already.
 */
export function readNames(files: readonly NamedFile[], given: NameRoles = {}, likeness?: Likeness): ReadNames {
  const { factors, constants } = partedOf(files)
  const evidence = heardOf(files, likeness)
  const { roles, question } = rolesOf(factors, evidence, constants, given)
  const facts = factsOf(files, factors, evidence, constants, roles)
  const slots = [...factors.map(({ slot, texts }): NameSlot => ({ slot, role: roles.get(slot)!, texts })), ...constants.map(constantSlot)]
  const parts = files.map((_, file) => partsOf(file, factors, constants))
  return { slots, parts, facts, ...(question ? { question } : {}) }
}

interface Known {
  readonly factors: readonly Factor[]
  readonly constants: readonly Constant[]
  heard?: { readonly likeness: Likeness | undefined; readonly evidence: readonly Evidence[] }
}

/** What names say does not hang on what someone says of them: a set that is read again is parted and heard once. */
const known = new WeakMap<readonly NamedFile[], Known>()

function partedOf(files: readonly NamedFile[]): Known {
  const before = known.get(files)
  if (before) return before
  const notes = haveNotes(files.map(({ name }) => name))
  const parted = factorsOf(alignNames(tokensOfSet(files, notes)), (drums, words) => strengthsOf(files, drums, words))
  known.set(files, parted)
  return parted
}

function heardOf(files: readonly NamedFile[], likeness: Likeness | undefined): readonly Evidence[] {
  const parted = partedOf(files)
  if (!parted.heard || parted.heard.likeness !== likeness)
    parted.heard = { likeness, evidence: evidenceOf(files, parted.factors, likeness) }
  return parted.heard.evidence
}

/** Pairs of files to be listened to, where names leave open which are the same strike and lengths do not tell. */
export function pairsToHear(files: readonly NamedFile[]): [number, number][] {
  const { factors } = partedOf(files)
  return lengthsTellOf(heardOf(files, undefined)) ? [] : pairsOf(factors)
}

const constantSlot = ({ column, text }: Constant): NameSlot => ({ slot: `part ${column}`, role: 'drum', texts: [text] })

/** What is shown of a name, in the order of its columns. */
function partsOf(file: number, factors: readonly Factor[], constants: readonly Constant[]): NamePart[] {
  const own = factors.flatMap((factor) => {
    const value = factor.values[file]
    const number = factor.numberOf(value)
    return value === ''
      ? []
      : [{ at: factor.columns[0], part: { slot: factor.slot, text: shownOf(factor, value), ...(number === undefined ? {} : { number }) } }]
  })
  const same = constants.map(({ column, text }) => ({ at: column, part: { slot: `part ${column}`, text } }))
  return [...own, ...same].sort((a, b) => a.at - b.at).map(({ part }) => part)
}

/** As it is written in most names. */
function shownOf({ texts }: Factor, value: string): string {
  return texts.find((text) => text.toLowerCase() === value || (/^\d+$/.test(text) && String(Number(text)) === value)) ?? value
}

function factsOf(
  files: readonly NamedFile[],
  factors: readonly Factor[],
  evidence: readonly Evidence[],
  constants: readonly Constant[],
  roles: ReadonlyMap<string, NameRole>,
): NameFacts[] {
  const of = (role: NameRole) => factors.filter(({ slot }) => roles.get(slot) === role)
  const [microphone] = of('microphone')
  const [take] = of('take')
  const [note] = of('note')
  const [velocity] = of('velocity')
  const [level] = of('level')
  const ranks = level && ranksOf(files, level, evidence[factors.indexOf(level)])
  const takes = take && orderOf(take)
  const fixedNote = constants.find(({ kind, text }) => kind === 'note' || isNoteNumber(kind, text))
  const counted = new Set(factors.flatMap(({ slot, columns }) => (roles.get(slot) === 'drum' ? [] : columns)))
  const alike = countedAlike(constants)
  const isCounting = (one: Constant) => (one.isLabel && counted.has(one.column + 1)) || alike.has(one)
  const others = constants.filter((one) => one !== fixedNote)
  const lent = lentNames(factors, of('drum'), roles)
  const names = drumNames(files, of('drum'), others, isCounting, lent)
  const facts = files.map((_, file): NameFacts => {
    const range = velocity?.rangeOf?.(velocity.values[file])
    const said = (factor: Factor | undefined) =>
      factor && factor.values[file] !== '' && lent.get(file) !== factor ? factor.values[file] : undefined
    const number = said(note) === undefined ? fixedNote && noteOf(fixedNote.text) : note.numberOf(note.values[file])
    return {
      drum: names[file],
      ...(number === undefined ? {} : { note: number }),
      ...(said(microphone) === undefined ? {} : { microphone: shownOf(microphone, microphone.values[file]) }),
      ...(range ? { range, level: range[0] } : {}),
      ...(ranks && said(level) !== undefined ? { level: ranks.get(level.values[file])! } : {}),
      ...(takes && said(take) !== undefined ? { take: takes.get(take.values[file])! } : {}),
    }
  })
  return takes ? withPlainTakes(facts) : facts
}

/** Of alike names that are counted, the one without a number is the take before them, where they begin with 2 or that is the way of the set. */
function withPlainTakes(facts: readonly NameFacts[]): NameFacts[] {
  const groups = new Map<string, NameFacts[]>()
  const keyOf = ({ drum, note, level, microphone }: NameFacts) => [drum.toLowerCase(), note, level, microphone].join('|')
  for (const one of facts) groups.set(keyOf(one), [...(groups.get(keyOf(one)) ?? []), one])
  const counted = [...groups.values()].flatMap((own) => {
    const takes = own.flatMap(({ take }) => take ?? [])
    return takes.length > 0 ? [{ own, takes, hasPlain: takes.length === own.length - 1 }] : []
  })
  const isWay = 2 * counted.filter(({ hasPlain }) => hasPlain).length >= counted.length
  const first = new Map<NameFacts, number>()
  for (const { own, takes, hasPlain } of counted) {
    const before = Math.min(...takes) - 1
    if (hasPlain && (isWay || before === 1))
      first.set(
        own.find(({ take }) => take === undefined)!,
        before,
      )
  }
  return facts.map((one) => (first.has(one) ? { ...one, take: first.get(one)! } : one))
}

/** Labels with the number behind them that all names have alike, as the “r1” of a set of single takes: both say nothing of the drum. */
function countedAlike(constants: readonly Constant[]): Set<Constant> {
  const pairs = constants.flatMap((label) => {
    const number = constants.find(({ kind, column }) => kind === 'number' && column === label.column + 1)
    return label.kind === 'word' && isLabelWord(label.text) && number ? [label, number] : []
  })
  return new Set(pairs)
}

const noteOf = (text: string) => noteNumber(text) ?? Number(text)
const isNoteNumber = (kind: Constant['kind'], text: string) => kind === 'number' && /^\d{2,3}$/.test(text) && isNote(Number(text))

/**
 * Where a name has no word in the place of drums, and one in another place that no name of a drum has, that is its drum's: as
 * “hat” beside “soft keel” and “hard keel”. By files, the factor that lends it.
 */
function lentNames(factors: readonly Factor[], drums: readonly Factor[], roles: ReadonlyMap<string, NameRole>): Map<number, Factor> {
  const lent = new Map<number, Factor>()
  const words = factors.filter(({ slot, kind }) => kind === 'word' && ['level', 'microphone'].includes(roles.get(slot)!))
  if (drums.length === 0) return lent
  const hasDrum = (file: number) => drums.some(({ values }) => values[file] !== '')
  for (const factor of words) {
    const withDrum = new Set(factor.values.filter((_, file) => hasDrum(file)))
    factor.values.forEach((value, file) => {
      if (value !== '' && !hasDrum(file) && !lent.has(file) && !withDrum.has(value)) lent.set(file, factor)
    })
  }
  return lent
}

/** The words of the drum in the order in which they stand: those that vary, and those that all names have. */
function drumNames(
  files: readonly NamedFile[],
  drums: readonly Factor[],
  constants: readonly Constant[],
  isCounting: (constant: Constant) => boolean,
  lent: ReadonlyMap<number, Factor>,
): string[] {
  const hasName = drums.length > 0 || constants.some((one) => one.kind === 'word' && !isCounting(one))
  const same = constants.filter((one) => !isCounting(one) || (!hasName && !isLabelWord(one.text)))
  return files.map((_, file) => {
    const lender = lent.get(file)
    const words = [
      ...[...drums, ...(lender ? [lender] : [])].flatMap((factor) =>
        factor.values[file] === '' ? [] : [{ at: factor.columns[0], text: shownOf(factor, factor.values[file]) }],
      ),
      ...same.map(({ column, text }) => ({ at: column, text })),
    ]
    const inOrder = words.sort((a, b) => a.at - b.at).map(({ text }) => text)
    return inOrder.join(' ') || 'Pad'
  })
}

/** How hard each value is: numbers as they stand, or turned where the loudest has the lowest; words by their loudness. */
function ranksOf(files: readonly NamedFile[], factor: Factor, { effectDb, rises, isHeard }: Evidence): Map<string, number> {
  const values = [...new Set(factor.values)].filter(Boolean)
  const isNumber = values.every((value) => factor.numberOf(value) !== undefined)
  if (isNumber && factor.kind === 'number')
    return new Map(values.map((value) => [value, factor.numberOf(value)! * (rises < -0.5 ? -1 : 1)]))
  // What is loud enough to be heard and was never heard beside another is the only one of its drums, and has no order.
  const isLoud = (value: string) => factor.values.every((own, file) => own !== value || Number.isFinite(files[file].loudnessDb))
  const heard = isHeard && values.every((value) => effectDb.has(value) || isLoud(value))
  const said = values.every((value) => strengthOf(value) !== undefined)
  const rank = (value: string) =>
    said && !heard ? strengthOf(value)! : heard ? (effectDb.get(value) ?? 0) : factor.texts.indexOf(shownOf(factor, value))
  const sorted = [...values].sort((a, b) => rank(a) - rank(b))
  return new Map(sorted.map((value, i) => [value, i]))
}

function orderOf(factor: Factor): Map<string, number> {
  const values = [...new Set(factor.values)].filter(Boolean)
  return new Map(values.map((value) => [value, factor.numberOf(value) ?? factor.texts.indexOf(shownOf(factor, value))]))
}
