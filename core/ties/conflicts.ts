import type { PadId } from '../kit/ids'
import type { Kit, Pad, Tie } from '../kit/kit'
import { chokedBy } from '../kit/resolve'
import { listed, nameOf } from './words'

/** Two pads that both sound and silence each other by one strike, and what comes of it. */
export interface Conflict {
  /** The pad that is struck. */
  readonly pad: Pad
  readonly other: Pad
  /** `struckAlong`: the other is silenced, then sounds. `cutOff`: the other sounds and silences the one that was struck. */
  readonly wins: 'struckAlong' | 'cutOff'
  readonly words: string
}

/** Pads that set off and silence the same other, or set off one that silences them. */
export function tieConflicts(kit: Kit): Conflict[] {
  const silences = (one: PadId, other: PadId) => chokedBy(kit, one).some(({ padId }) => padId === other)
  return kit.ties.flatMap((tie) => {
    const pad = tie.kind === 'alsoStrike' ? kit.pads.find(({ id }) => id === tie.from) : undefined
    if (tie.kind !== 'alsoStrike' || !pad) return []
    return tie.to.flatMap(({ pad: to }): Conflict[] => {
      const other = kit.pads.find(({ id }) => id === to)
      if (!other || other === pad) return []
      const [one, two] = [nameOf(kit, pad.id), nameOf(kit, other.id)]
      if (silences(to, pad.id))
        return [{ pad, other, wins: 'cutOff', words: `${one} strikes ${two} along, and ${two} silences ${one}: ${two} wins, and ${one} stops as soon as it sounds.` }] // prettier-ignore
      if (silences(pad.id, to))
        return [{ pad, other, wins: 'struckAlong', words: `${one} silences ${two} and strikes it along: the strike wins. What still sounds of ${two} stops, then ${two} sounds anew.` }] // prettier-ignore
      return []
    })
  })
}

/** Pads that set each other off in a circle: each list comes back to its first. A strike goes round once and stops where it began. */
export function circlesOf(kit: Kit): PadId[][] {
  const along = new Map<PadId, PadId[]>()
  for (const tie of kit.ties) if (tie.kind === 'alsoStrike') along.set(tie.from, [...(along.get(tie.from) ?? []), ...targets(tie)])
  const passes = (pad: PadId) => kit.ties.some((tie) => tie.kind === 'alsoStrike' && tie.from === pad && tie.passOn)
  const found = new Map<string, PadId[]>()
  for (const start of along.keys()) {
    const way = wayBack(along, passes, start)
    if (way) found.set([...way].sort().join(' '), way)
  }
  return [...found.values()]
}

/** Each circle in a sentence. */
export function circleWords(kit: Kit): string[] {
  return circlesOf(kit).map(
    (way) =>
      `${listed(way.map((padId) => nameOf(kit, padId)))} strike each other along in a circle: a strike goes round once and stops where it began.`,
  )
}

const targets = (tie: Extract<Tie, { kind: 'alsoStrike' }>) => tie.to.map(({ pad }) => pad)

/** The shortest way from a pad along strikes that are passed on back to itself. */
function wayBack(along: ReadonlyMap<PadId, readonly PadId[]>, passes: (pad: PadId) => boolean, start: PadId): PadId[] | undefined {
  const ways: PadId[][] = [[start]]
  const seen = new Set<PadId>()
  for (let way = ways.shift(); way; way = ways.shift()) {
    const last = way[way.length - 1]!
    if (way.length > 1 && !passes(way[way.length - 2]!)) continue
    for (const next of along.get(last) ?? []) {
      if (next === start && (way.length === 1 || passes(way[way.length - 2]!))) return way
      if (!seen.has(next)) {
        seen.add(next)
        ways.push([...way, next])
      }
    }
  }
  return undefined
}
