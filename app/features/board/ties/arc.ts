export interface Spot {
  readonly x: number
  readonly y: number
}

/** A line from one rim to another: where it begins, is pulled to and ends, and the direction in which it comes in. */
export interface Arc {
  readonly from: Spot
  readonly pull: Spot
  readonly to: Spot
}

/** How far a line may swing out, in shares of its length, and to which side; the first that is free is taken. */
const SWINGS = [0.2, -0.2, 0.1, -0.1, 0.32, -0.32, 0.45, -0.45, 0.65, -0.65, 0.95, -0.95]
/** Where between its ends a line is pulled: in the middle, else nearer to one of them, so that it leaves or comes in from the side. */
const PULLED_AT = [0.5, 0.7, 0.3, 0.9, 0.1]
const SAMPLES = 36
const ROOM_PX = 8

/** Names stand under their pads: so far below the rim is their middle, px, and so high and wide they are about it. */
const NAME_PX = { below: 15, height: 12, width: 42 }
/** A name that is crossed can still be read. */
const NAME_COST = 0.3

/**
 * The line between two pads of one radius: the flattest that goes through no other pad and no name and stays on a board
 * of this width, else the one that does so least.
 */
export function arcBetween(a: Spot, b: Spot, radius: number, others: readonly Spot[], width = Infinity): Arc {
  let best: { arc: Arc; hits: number } | undefined
  for (const at of PULLED_AT)
    for (const swing of SWINGS) {
      const arc = swung(a, b, radius + 3, swing, at)
      const hits = crossings(arc, others, radius, width) + NAME_COST * namesCrossed(arc, [a, b, ...others], radius)
      if (!best || hits < best.hits) best = { arc, hits }
      if (hits === 0) return arc
    }
  return best!.arc
}

/** The line that is pulled out by a share of its length, `at` of the way from one to the other. */
function swung(a: Spot, b: Spot, radius: number, swing: number, at: number): Arc {
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const pull = { x: a.x + dx * at + dy * swing, y: a.y + dy * at - dx * swing }
  const rim = (centre: Spot) => {
    const far = Math.hypot(pull.x - centre.x, pull.y - centre.y) || 1
    return { x: centre.x + ((pull.x - centre.x) / far) * radius, y: centre.y + ((pull.y - centre.y) / far) * radius }
  }
  return { from: rim(a), pull, to: rim(b) }
}

/** A place on a line, `share` of the way along. */
export function alongArc({ from, pull, to }: Arc, share: number): Spot {
  const at = (p: number, q: number, r: number) => (1 - share) ** 2 * p + 2 * share * (1 - share) * q + share ** 2 * r
  return { x: at(from.x, pull.x, to.x), y: at(from.y, pull.y, to.y) }
}

/** How much of a line lies within other pads or beside the board, in samples of it. */
function crossings(arc: Arc, others: readonly Spot[], radius: number, width: number): number {
  return samplesOf(arc).filter(
    ({ x, y }) => x < 2 || x > width - 2 || others.some((other) => Math.hypot(other.x - x, other.y - y) < radius + ROOM_PX),
  ).length
}

function namesCrossed(arc: Arc, pads: readonly Spot[], radius: number): number {
  return samplesOf(arc).filter(({ x, y }) =>
    pads.some((pad) => Math.abs(pad.x - x) < NAME_PX.width && Math.abs(pad.y + radius + NAME_PX.below - y) < NAME_PX.height),
  ).length
}

const samplesOf = (arc: Arc) => Array.from({ length: SAMPLES + 1 }, (_, i) => alongArc(arc, i / SAMPLES))

/** A pad's line to itself: a loop at its upper right. */
export function loopAt({ x, y }: Spot, radius: number): string {
  const out = radius * 0.7
  return `M ${x + radius * 0.5} ${y - radius * 0.87} C ${x + radius + out} ${y - radius - out}, ${x + radius + out} ${y - radius * 0.2}, ${x + radius} ${y - radius * 0.1}`
}

export const arcPath = ({ from, pull, to }: Arc): string => `M ${from.x} ${from.y} Q ${pull.x} ${pull.y} ${to.x} ${to.y}`

const HEAD_PX = 9

/** A small head at the end of a line, which points the way the line comes in. */
export function headPath({ pull, to }: Arc): string {
  const far = Math.hypot(to.x - pull.x, to.y - pull.y) || 1
  const [ux, uy] = [(to.x - pull.x) / far, (to.y - pull.y) / far]
  const back = { x: to.x - ux * HEAD_PX, y: to.y - uy * HEAD_PX }
  const side = HEAD_PX * 0.55
  return `M ${to.x} ${to.y} L ${back.x - uy * side} ${back.y + ux * side} L ${back.x + uy * side} ${back.y - ux * side} Z`
}
