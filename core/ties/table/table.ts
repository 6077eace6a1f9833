import type { MakeId, PadId, TieId } from '../../kit/ids'
import type { Kit, Pad, Tie } from '../../kit/kit'
import { applyEdit } from '../../kit/kit-edit'
import type { KitEdit } from '../../kit/kit-edit'
import { createPad, freeNote } from '../../kit/make'
import { clipsOfPad, lenderOf, padById, padSettings } from '../../kit/resolve'
import { evenSteps, withoutPadInTie } from '../edits'
import { inOrderOfOpening, padsOfTie } from '../lines'
import { spotsOf, spotsProposed } from '../spots'
import type { SpotsTie } from '../spots'
import { readTable } from './read-table'
import type { TableReading } from './read-table'

export type OpeningsTie = Extract<Tie, { kind: 'openings' }>

const MOST_PADS = 128
/** The foot of a hat is this controller, by the MIDI standard. */
const FOOT = 4

/** A cell of a drum: its pad, and from whom its sounds are where it is empty. None is a hole: the opening before it sounds there. */
export interface TableCell {
  readonly pad?: Pad
  readonly lender?: Pad
}

export interface DrumTable {
  readonly drum?: SpotsTie
  /** Lowest values of the controller, ascending; one column that is always open where nothing opens it. */
  readonly columns: readonly number[]
  readonly rows: readonly {
    readonly name: string
    readonly padId: PadId
    readonly tie?: OpeningsTie
    readonly cells: readonly TableCell[]
  }[]
}

/** The openings that count for a pad: the first that name it. */
export function openingsOf(kit: Kit, padId: PadId): OpeningsTie | undefined {
  return kit.ties.find((tie): tie is OpeningsTie => tie.kind === 'openings' && tie.steps.some(({ pad }) => pad === padId))
}

/** The drum that a pad is of, by spots and openings; nothing where it is the only one. */
export function drumTable(kit: Kit, padId: PadId): DrumTable | undefined {
  const opened = openingsOf(kit, padId)
  const spotPad = spotsOf(kit, padId) ? padId : opened && inOrderOfOpening(opened).find((one) => spotsOf(kit, one))
  const drum = spotPad && spotsOf(kit, spotPad)
  if (!drum && !opened) return undefined
  const spots = drum?.spots ?? [{ pad: inOrderOfOpening(opened!)[0]!, name: '' }]
  const ties = spots.map(({ pad }) => openingsOf(kit, pad))
  const columns = [...new Set(ties.flatMap((tie) => tie?.steps.map(({ from }) => from) ?? []))].sort((a, b) => a - b)
  const rows = spots.map(({ pad, name }, i) => {
    const tie = ties[i]
    const cells = (columns.length > 0 ? columns : [0]).map((from, column): TableCell => {
      const step = tie ? tie.steps.find((one) => one.from === from) : column === 0 ? { pad } : undefined
      const own = step && padById(kit, step.pad)
      const lender = own && lenderOf(kit, own)
      return { ...(own ? { pad: own } : {}), ...(lender ? { lender } : {}) }
    })
    return { name, padId: pad, cells, ...(tie ? { tie } : {}) }
  })
  return { ...(drum ? { drum } : {}), columns: columns.length > 0 ? columns : [0], rows }
}

/** The edits that move a threshold of all spots together; it stays between its neighbours. */
export function withThreshold(table: DrumTable, column: number, to: number): KitEdit[] {
  const { columns, rows } = table
  const from = columns[column]!
  const low = column > 0 ? columns[column - 1]! + 1 : 0
  const high = column + 1 < columns.length ? columns[column + 1]! - 1 : 127
  const value = Math.max(low, Math.min(high, Math.round(to)))
  return rows.flatMap(({ tie }): KitEdit[] => {
    if (!tie || value === from || !tie.steps.some((step) => step.from === from)) return []
    return [{ type: 'putTie', tie: { ...tie, steps: tie.steps.map((step) => (step.from === from ? { ...step, from: value } : step)) } }]
  })
}

/** An empty pad for a cell that has none, leaning on the drum's first; it borrows from the nearest until it is filled. None where the kit is full. */
export function withCell(makeId: MakeId, kit: Kit, padId: PadId, row: number, column: number, existing?: PadId): KitEdit[] | undefined {
  const table = drumTable(kit, padId)
  const at = table?.rows[row]
  if (!table || !at || at.cells[column]?.pad) return undefined
  const building = new Building(makeId, kit)
  const leader = padById(kit, table.rows[0]!.padId)!
  const pad = existing ?? building.empty(leader, `${padSettings(kit, padById(kit, at.padId)!).name} ${openWords(table.columns, column).toLowerCase()}`) // prettier-ignore
  if (!pad) return undefined
  if (existing) building.takeOut(existing)
  const first = { from: table.columns[0]!, pad: at.padId }
  const tie = at.tie ?? { ...building.openings([]), steps: column === 0 ? [] : [first] }
  building.put({ type: 'putTie', tie: { ...tie, steps: [...tie.steps, { from: table.columns[column]!, pad }] } })
  return building.edits
}

/** One more degree of opening for each spot, with empty pads that borrow; the thresholds lie evenly again. None where the kit is full. */
export function withOpening(makeId: MakeId, kit: Kit, padId: PadId): KitEdit[] | undefined {
  const building = new Building(makeId, kit)
  const spots = drumTable(kit, padId)?.rows ?? [{ padId, tie: undefined }]
  const leader = padById(kit, spots[0]!.padId)!
  for (const { padId: spot, tie } of spots) {
    const pads = tie ? inOrderOfOpening(tie) : [spot]
    const pad = building.empty(leader, `${padSettings(kit, padById(kit, spot)!).name} open ${pads.length > 1 ? pads.length : ''}`.trim())
    if (!pad) return undefined
    building.put({ type: 'putTie', tie: { ...(tie ?? building.openings([])), steps: evenSteps([...pads, pad]) } })
  }
  return building.edits
}

/** What a column is called: closed, open, and how far between. */
export function openWords(columns: readonly number[], column: number): string {
  if (columns.length < 2) return 'Always'
  if (column === 0) return 'Closed'
  return column === columns.length - 1 ? 'Open' : `${Math.round((100 * column) / (columns.length - 1))} % open`
}

/**
 * The edits that make one drum of pads as their names were read: its spots on one face, each opened by the foot in even steps.
 * Holes get empty pads that borrow, as far as the kit has room. Pads leave the spots and openings in which they were.
 */
export function tableEdits(makeId: MakeId, kit: Kit, { name, spots, openings, cells }: TableReading): KitEdit[] {
  const building = new Building(makeId, kit)
  const all = cells.flat().filter((cell) => cell !== undefined)
  for (const pad of all) building.takeOut(pad)
  const leader = padById(kit, all[0]!)!
  const filled = cells.map((row, i) =>
    row.map(
      (cell, k) => cell ?? building.empty(leader, [name, spots[i]!.toLowerCase(), openings[k]!.toLowerCase()].filter(Boolean).join(' ')),
    ),
  )
  const present = filled.map((row) => row.filter((cell) => cell !== undefined))
  if (openings.length > 1)
    for (const row of filled) {
      const steps = evenSteps(row as PadId[]).filter(({ pad }) => pad !== undefined)
      if (steps.length > 1) building.put({ type: 'putTie', tie: building.openings(steps) })
    }
  const rows = spots.flatMap((spot, i) =>
    present[i]!.length > 0 ? [{ name: spot || unsaid(kit, leader, spots), pad: present[i]![0]! }] : [],
  )
  if (rows.length > 1) {
    const id = makeId<TieId>('tie')
    building.put({ type: 'putTie', tie: { id, kind: 'spots', name: name || padSettings(kit, leader).name, spots: rows } })
  }
  return building.edits
}

/** What a spot is called that names leave out: the first that the family proposes and no other is. */
function unsaid(kit: Kit, leader: Pad, taken: readonly string[]): string {
  const proposed = spotsProposed(padSettings(kit, leader).family)
  return proposed.find((name) => !taken.some((one) => one.toLowerCase() === name.toLowerCase())) ?? 'Middle'
}

/** Edits that go on from each other. */
class Building {
  readonly edits: KitEdit[] = []

  constructor(
    private readonly makeId: MakeId,
    private kit: Kit,
  ) {}

  put(edit: KitEdit): void {
    this.edits.push(edit)
    this.kit = applyEdit(this.kit, edit)
  }

  /** Out of all spots and openings. */
  takeOut(padId: PadId): void {
    for (const tie of this.kit.ties)
      if ((tie.kind === 'spots' || tie.kind === 'openings') && padsOfTie(tie).includes(padId)) for (const edit of withoutPadInTie(tie, padId)) this.put(edit) // prettier-ignore
  }

  /** An empty pad at the end that takes all but its name from the leader; none where the kit is full. */
  empty(leader: Pad, name: string): PadId | undefined {
    if (this.kit.pads.length >= MOST_PADS) return undefined
    const pad = createPad(this.makeId, {}, freeNote(this.kit))
    this.put({ type: 'addPad', pad: { ...pad, own: { name: name.slice(0, 120) }, leansOn: leader.id }, index: this.kit.pads.length })
    return pad.id
  }

  openings(steps: OpeningsTie['steps']): OpeningsTie {
    return { id: this.makeId<TieId>('tie'), kind: 'openings', controller: FOOT, steps, chokeAt: 0 }
  }
}

/** How long what fills a pad sounds, s: the longest of its clips, in the middle of them; 0 where it is empty. */
function ringSeconds(kit: Kit, pad: Pad): number {
  const lengths = clipsOfPad(pad)
    .map(({ audio, startFrame, endFrame }) => (endFrame - startFrame) / (kit.audio[audio]?.sampleRateHz ?? 48000))
    .sort((a, b) => a - b)
  return lengths[Math.floor(lengths.length / 2)] ?? 0
}

/** Pads read as one drum by their names; none where they fit no table. */
export function readPads(kit: Kit, padIds: readonly PadId[]): TableReading | undefined {
  const pads = padIds.flatMap((id) => padById(kit, id) ?? [])
  return readTable(pads.map((pad) => ({ padId: pad.id, name: padSettings(kit, pad).name, ringSeconds: ringSeconds(kit, pad) })))
}

const wordsOf = (kit: Kit, pad: Pad): readonly string[] =>
  [
    ...padSettings(kit, pad)
      .name.toLowerCase()
      .matchAll(/\p{L}+/gu),
  ].map(([word]) => word)

const padsIn = ({ cells }: TableReading): PadId[] => cells.flat().filter((cell) => cell !== undefined)

/** The drum that a pad and others are, as their names tell: of all whose names share a word with it, the largest that fits. */
export function tableProposed(kit: Kit, padId: PadId, among: readonly PadId[] = kit.pads.map(({ id }) => id)): TableReading | undefined {
  const pad = padById(kit, padId)
  if (!pad) return undefined
  const pads = among.flatMap((id) => padById(kit, id) ?? [])
  const readings = [...new Set(wordsOf(kit, pad))].flatMap((word) => {
    const sharing = pads.filter((one) => wordsOf(kit, one).includes(word))
    return readPads(kit, sharing.map(({ id }) => id)) ?? [] // prettier-ignore
  })
  const isDrum = ({ isSaid, spots, openings }: TableReading) => isSaid || (spots.length > 1 && openings.length > 1)
  return readings.filter(isDrum).sort((a, b) => padsIn(b).length - padsIn(a).length)[0]
}

/** The drums that pads are, as words say that are known; no pad is of two. */
export function tablesSaid(kit: Kit, padIds: readonly PadId[]): TableReading[] {
  const left = new Set(padIds)
  return padIds.flatMap((padId) => {
    const reading = left.has(padId) ? tableProposed(kit, padId, [...left]) : undefined
    if (!reading?.isSaid) return []
    for (const pad of padsIn(reading)) left.delete(pad)
    return [reading]
  })
}
