import type { NameFacts, NamedFile, ReadNames } from './names/types'
import { compareNames } from './natural-order'
import { notesByPitch } from './notes-by-pitch'
import { evenEdges, MOST_TURNS } from './place'

/** A turn of a pad as names make it: the files of one strike, by microphone. Places are places among all files. */
export interface PlannedTurn {
  readonly take: number
  readonly files: ReadonlyMap<string, number>
}

export interface PlannedBand {
  readonly fromVelocity: number
  readonly turns: readonly PlannedTurn[]
}

/** A pad as names make it. `microphones` holds one empty name where none is told apart. */
export interface PlannedPad {
  readonly name: string
  readonly note?: number
  readonly microphones: readonly string[]
  readonly bands: readonly PlannedBand[]
  /** Cells that the rest of the set leads one to expect and no file fills, in words. */
  readonly gaps: readonly string[]
}

export interface NamePlan {
  readonly pads: readonly PlannedPad[]
  /** Files that find no place, each with its reason. */
  readonly unplaced: readonly { readonly file: number; readonly reason: string }[]
}

const MOST_BANDS = 127
const MOST_MICROPHONES = 32

/** Where each file goes, or why it goes nowhere. Nothing is made yet. */
export function planByNames(files: readonly NamedFile[], { facts: said }: Pick<ReadNames, 'facts'>): NamePlan {
  const facts = notesByPitch(files, said)
  const unplaced: { file: number; reason: string }[] = []
  const groups = groupsOf(facts)
  const strays = straysOf(groups)
  const pads: PlannedPad[] = []
  for (const group of groups) {
    const stray = strays.get(group)
    if (stray) for (const file of group.files) unplaced.push({ file, reason: stray })
    else pads.push(padOf(group, files, facts, unplaced))
  }
  return { pads: pads.filter((pad) => pad.bands.length > 0), unplaced: unplaced.sort((a, b) => a.file - b.file) }
}

interface Group {
  readonly drum: string
  readonly name: string
  readonly note?: number
  readonly files: readonly number[]
}

function groupsOf(facts: readonly NameFacts[]): Group[] {
  const notes = new Map<string, Set<number>>()
  for (const { drum, note } of facts) if (note !== undefined) notes.set(keyOf(drum), (notes.get(keyOf(drum)) ?? new Set()).add(note))
  const groups = new Map<string, { drum: string; note?: number; files: number[] }>()
  facts.forEach(({ drum, note }, file) => {
    const hasSeveral = (notes.get(keyOf(drum))?.size ?? 0) > 1
    const key = hasSeveral ? `${keyOf(drum)} ${note ?? ''}` : keyOf(drum)
    const group = groups.get(key) ?? { drum, files: [], ...(hasSeveral || note !== undefined ? { note } : {}) }
    group.files.push(file)
    groups.set(key, group)
  })
  return [...groups.values()]
    .map((group) => ({
      ...group,
      name: spoken(group.drum) + ((notes.get(keyOf(group.drum))?.size ?? 0) > 1 ? ` ${group.note ?? ''}` : ''),
    }))
    .sort((a, b) => compareNames(a.name, b.name))
}

const keyOf = (drum: string) => drum.toLowerCase()
const spoken = (drum: string) => (drum[0]?.toUpperCase() ?? '') + drum.slice(1)

/** One or two files whose name is that of a whole set with a word more are no drum of their own. */
function straysOf(groups: readonly Group[]): Map<Group, string> {
  const strays = new Map<Group, string>()
  for (const group of groups)
    for (const other of groups) {
      if (other === group || other.files.length < 10 * group.files.length || other.files.length < 6) continue
      const [own, whole] = [keyOf(group.drum).split(' '), keyOf(other.drum).split(' ')]
      const more = own.filter((word) => !whole.includes(word))
      if (whole.every((word) => own.includes(word)) && more.length > 0)
        strays.set(group, `Its name has “${more.join(' ')}”, which no other of ${other.name} has.`)
    }
  return strays
}

const FACTS = [
  ['microphone', 'which microphone heard it'],
  ['level', 'how hard it was struck'],
  ['take', 'which take it is'],
] as const
/** What this share of a set's names say is expected of all of them. */
const MOST_SAY = 0.6
/** Of this share of names without a microphone the lack of it says which it is. */
const PLAIN = 0.1

function padOf(
  group: Group,
  files: readonly NamedFile[],
  facts: readonly NameFacts[],
  unplaced: { file: number; reason: string }[],
): PlannedPad {
  const share = (fact: (typeof FACTS)[number][0]) =>
    group.files.filter((file) => facts[file][fact] !== undefined).length / group.files.length
  // Where many names leave the microphone out, that is a microphone too: the plain one.
  const said = FACTS.filter(([fact]) => share(fact) > (fact === 'microphone' ? 1 - PLAIN : MOST_SAY))
  const whole = group.files.filter((file) => {
    const lacking = said.find(([fact]) => facts[file][fact] === undefined)
    if (lacking) unplaced.push({ file, reason: `Its name does not say ${lacking[1]}, as the others of ${group.name} do.` })
    return !lacking
  })
  const microphones = distinct(whole.map((file) => facts[file].microphone ?? '')).sort(compareNames)
  const levels = distinct(whole.map((file) => facts[file].level ?? 0)).sort((a, b) => a - b)
  if (levels.length > MOST_BANDS || microphones.length > MOST_MICROPHONES) {
    const reason = `${group.name} would have ${levels.length} bands of ${microphones.length} microphones; a pad holds ${MOST_BANDS} of ${MOST_MICROPHONES}.`
    unplaced.push(...whole.map((file) => ({ file, reason })))
    return { name: group.name, microphones: [''], bands: [], gaps: [] }
  }
  const edges = edgesOf(whole, levels, facts)
  const bands = levels.map((level, i): PlannedBand => {
    const turns = new Map<number, Map<string, number>>()
    const own = whole.filter((file) => (facts[file].level ?? 0) === level).sort((a, b) => compareNames(files[a].name, files[b].name))
    for (const file of own) {
      const take = facts[file].take ?? 0
      const microphone = facts[file].microphone ?? ''
      const turn = turns.get(take) ?? new Map<string, number>()
      const there = turn.get(microphone)
      if (there !== undefined) unplaced.push({ file, reason: `It would lie where “${files[there].name}” lies.` })
      else if (turns.size >= MOST_TURNS && !turns.has(take)) unplaced.push({ file, reason: `A band holds ${MOST_TURNS} turns.` })
      else turns.set(take, turn.set(microphone, file))
    }
    return { fromVelocity: edges[i], turns: [...turns].sort(([a], [b]) => a - b).map(([take, own]) => ({ take, files: own })) }
  })
  const plan = { name: group.name, microphones, bands, ...(group.note === undefined ? {} : { note: group.note }) }
  return { ...plan, gaps: gapsOf(plan) }
}

const distinct = <T>(values: readonly T[]): T[] => [...new Set(values)]

/** Lowest velocities of the bands: as the names say, whether they give ranges, lowest or highest velocities; else even. */
function edgesOf(group: readonly number[], levels: readonly number[], facts: readonly NameFacts[]): number[] {
  const count = levels.length
  const isWhole = levels.every((level) => Number.isInteger(level) && level >= 1 && level <= 127)
  const hasRanges = group.every((file) => facts[file].range)
  if (hasRanges) return levels.map((level, i) => (i === 0 ? 1 : level))
  if (isWhole && count > 1 && levels[count - 1] === 127) return levels.map((_, i) => (i === 0 ? 1 : levels[i - 1] + 1))
  if (isWhole && count > 1 && levels[0] === 1 && levels[count - 1] > 64) return [...levels]
  return evenEdges(count)
}

/** Bands mostly share their takes, or count on through all of them; then each is measured by its own. */
const MOST_SHARED = 0.8

/** The cells of a pad as its names lead one to expect them: a row for each microphone, a column for each strike. */
export interface PlannedCells {
  readonly rows: readonly string[]
  readonly columns: readonly { readonly band: number; readonly take: number }[]
  /** Whether there is a file, by row and column. */
  readonly filled: readonly (readonly boolean[])[]
}

export function cellsOfPlan({ microphones, bands }: Pick<PlannedPad, 'microphones' | 'bands'>): PlannedCells {
  const all = distinct(bands.flatMap((band) => band.turns.map((turn) => turn.take))).sort((a, b) => a - b)
  const isShared = bands.every((band) => band.turns.length >= MOST_SHARED * all.length)
  const columns = bands.flatMap(({ turns }, band) => (isShared ? all : turns.map(({ take }) => take)).map((take) => ({ band, take })))
  const has = (microphone: string, band: number, take: number) =>
    bands[band].turns.some((turn) => turn.take === take && turn.files.has(microphone))
  return {
    rows: microphones,
    columns,
    filled: microphones.map((microphone) => columns.map(({ band, take }) => has(microphone, band, take))),
  }
}

/** How many cells have no file, of how many, and where most of them are, in one sentence; nothing where none lacks. */
export function holesInWords(plan: Pick<NamePlan, 'pads'>): string | undefined {
  const cells = plan.pads.map((pad) => ({ pad, ...cellsOfPlan(pad) }))
  const where = new Map<string, number>()
  let holes = 0
  for (const { pad, rows, columns, filled } of cells)
    filled.forEach((row, i) =>
      row.forEach((is, k) => {
        if (is) return
        holes++
        const parts = [
          plan.pads.length > 1 ? pad.name : '',
          rows.length > 1 ? rows[i] || 'the plain one' : pad.bands.length > 1 ? `band ${columns[k].band + 1}` : `take ${columns[k].take}`,
        ]
        const key = parts.filter(Boolean).join(', ')
        where.set(key, (where.get(key) ?? 0) + 1)
      }),
    )
  if (holes === 0) return undefined
  const all = cells.reduce((sum, { rows, columns }) => sum + rows.length * columns.length, 0)
  const most = [...where].sort(([, a], [, b]) => b - a)
  const named = most.slice(0, MOST_WHERE).map(([key, count]) => (count > 1 ? `${key} (${count})` : key))
  return `${holes} of ${all} cells ${holes === 1 ? 'has' : 'have'} no file: ${named.join('; ')}${most.length > MOST_WHERE ? `; and ${most.length - MOST_WHERE} more places` : ''}.`
}

const MOST_WHERE = 4

function gapsOf({ microphones, bands }: Omit<PlannedPad, 'gaps'>): string[] {
  const all = distinct(bands.flatMap((band) => band.turns.map((turn) => turn.take)))
  const isShared = bands.every((band) => band.turns.length >= MOST_SHARED * all.length)
  const gaps: string[] = []
  bands.forEach((band, i) => {
    const where = bands.length > 1 ? `band ${i + 1}, ` : ''
    for (const take of isShared ? all : []) if (!band.turns.some((turn) => turn.take === take)) gaps.push(`${where}take ${take}`)
    band.turns.forEach((turn) => {
      const missing = microphones.filter((microphone) => !turn.files.has(microphone))
      if (missing.length > 0) gaps.push(`${missing.map((name) => name || 'the plain one').join(' and ')}, ${where}take ${turn.take}`)
    })
  })
  return gaps
}
