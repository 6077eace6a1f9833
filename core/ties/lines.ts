import type { PadId, TieId } from '../kit/ids'
import type { Kit, Tie } from '../kit/kit'

/** What lies between two pads: silences it, is in a choke group with it, shares a limit, strikes it along, takes turns, opens to it. */
export const lineKinds = ['choke', 'chokeGroup', 'limit', 'alsoStrike', 'takeTurns', 'openings'] as const
export type LineKind = (typeof lineKinds)[number]

/** One tie between two pads, as it is drawn. `isBothWays` lines have no direction. */
export interface TieLine {
  readonly tieId: TieId
  readonly kind: LineKind
  readonly from: PadId
  readonly to: PadId
  readonly isBothWays: boolean
}

/** Everything that ties pads of a kit to each other; of groups and rows each pad is drawn to the one after it. */
export function tieLines(kit: Kit): TieLine[] {
  return kit.ties.flatMap((tie) => linesOf(tie))
}

function linesOf(tie: Tie): TieLine[] {
  const { id: tieId, kind } = tie
  switch (kind) {
    case 'choke':
      return tie.to.map((to) => ({ tieId, kind, from: tie.from, to, isBothWays: false }))
    case 'alsoStrike':
      return tie.to.map(({ pad }) => ({ tieId, kind, from: tie.from, to: pad, isBothWays: false }))
    case 'chokeGroup':
    case 'limit':
    case 'takeTurns':
      return inRow(tie.pads).map(([from, to]) => ({ tieId, kind, from, to, isBothWays: true }))
    case 'openings':
      return inRow(inOrderOfOpening(tie)).map(([from, to]) => ({ tieId, kind, from, to, isBothWays: true }))
    default:
      return []
  }
}

const inRow = (pads: readonly PadId[]) => pads.slice(1).map((to, i) => [pads[i]!, to] as const)

/** The pads that a controller opens, from the most closed one on. */
export function inOrderOfOpening({ steps }: Extract<Tie, { kind: 'openings' }>): PadId[] {
  return [...steps].sort((a, b) => a.from - b.from).map(({ pad }) => pad)
}

/** All pads that a tie names, each once. */
export function padsOfTie(tie: Tie): PadId[] {
  switch (tie.kind) {
    case 'choke':
      return [...new Set([tie.from, ...tie.to])]
    case 'alsoStrike':
      return [...new Set([tie.from, ...tie.to.map(({ pad }) => pad)])]
    case 'openings':
      return inOrderOfOpening(tie)
    case 'spots':
      return tie.spots.map(({ pad }) => pad)
    case 'parts':
      return [...new Set(tie.parts.map(({ pad }) => pad))]
    default:
      return tie.pads
  }
}
