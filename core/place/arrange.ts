import type { BandId, MakeId, TurnId } from '../kit/ids'
import type { Band, Turn } from '../kit/kit'
import { createBand } from '../kit/make'
import { MOST_TURNS } from './place'

/** Rearranging the cells of a pad. A turn moves with the clips of all its rays: one strike stays one strike. */

/** Two turns change places, in one band or across bands. The same list where one of them is not there. */
export function swapTurns(bands: readonly Band[], one: TurnId, other: TurnId): Band[] {
  const all = bands.flatMap((band) => band.turns)
  const [a, b] = [one, other].map((id) => all.find((turn) => turn.id === id))
  if (!a || !b) return [...bands]
  const swapped = (turn: Turn) => (turn.id === a.id ? b : turn.id === b.id ? a : turn)
  return bands.map((band) => ({ ...band, turns: band.turns.map(swapped) }))
}

/** A turn becomes the last of another band, which has room for it. */
export function moveTurn(bands: readonly Band[], turnId: TurnId, to: BandId): Band[] {
  const turn = bands.flatMap((band) => band.turns).find(({ id }) => id === turnId)
  const target = bands.find(({ id }) => id === to)
  if (!turn || !target || target.turns.includes(turn) || target.turns.length >= MOST_TURNS) return [...bands]
  return bands.map((band) => {
    const rest = band.turns.filter(({ id }) => id !== turnId)
    return { ...band, turns: band.id === to ? [...rest, turn] : rest }
  })
}

/** A band and the one below become one, which answers the velocities of both; the clips of both are its turns. */
export function mergeDown(bands: readonly Band[], bandId: BandId): Band[] {
  const at = bands.findIndex(({ id }) => id === bandId)
  if (at < 1) return [...bands]
  const below = bands[at - 1]
  const turns = [...below.turns, ...bands[at].turns].slice(0, MOST_TURNS)
  return [...bands.slice(0, at - 1), { ...below, turns }, ...bands.slice(at + 1)]
}

/** One more band, empty, above the loudest, of whose velocities it takes the louder half. The same list where there is no room. */
export function addBand(makeId: MakeId, bands: readonly Band[]): Band[] {
  const last = bands[bands.length - 1]
  if (!last) return [createBand(makeId, 1, [])]
  const from = last.fromVelocity + Math.ceil((128 - last.fromVelocity) / 2)
  return from > 127 || from === last.fromVelocity ? [...bands] : [...bands, createBand(makeId, from, [])]
}

/** A band goes, and the one below answers its velocities; without one below, the one above does. */
export function removeBand(bands: readonly Band[], bandId: BandId): Band[] {
  const rest = bands.filter(({ id }) => id !== bandId)
  return rest.map((band, i) => (i === 0 ? { ...band, fromVelocity: 1 } : band))
}

/**
 * A turn goes. The last one of its band takes the band with it, so that no velocity is left silent that nobody chose; what is
 * said then. The only band stays, empty.
 */
export function withoutTurn(bands: readonly Band[], turnId: TurnId): { readonly bands: Band[]; readonly words?: string } {
  const at = bands.findIndex(({ turns }) => turns.some(({ id }) => id === turnId))
  const left = bands.map((band, i) => (i === at ? { ...band, turns: band.turns.filter(({ id }) => id !== turnId) } : band))
  if (at < 0 || left[at]!.turns.length > 0 || bands.length < 2) return { bands: left }
  const next = removeBand(left, bands[at]!.id)
  const taker = Math.max(0, at - 1)
  const from = next[taker]!.fromVelocity
  const to = (next[taker + 1]?.fromVelocity ?? 128) - 1
  return { bands: next, words: `Band ${at + 1} had no other turn and is gone; band ${taker + 1} now answers velocities ${from} to ${to}.` }
}

/** As `withoutTurn`, of several; what is said is said once for all. */
export function withoutTurns(bands: readonly Band[], turnIds: readonly TurnId[]): { readonly bands: Band[]; readonly words?: string } {
  let left: Band[] = [...bands]
  const said: string[] = []
  for (const turnId of turnIds) {
    const { bands: next, words } = withoutTurn(left, turnId)
    left = next
    if (words) said.push(words)
  }
  if (said.length < 2) return { bands: left, words: said[0] }
  return { bands: left, words: `${said.length} bands had no other turn and are gone; the bands beside them now answer their velocities.` }
}
