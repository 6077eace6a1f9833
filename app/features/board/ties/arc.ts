export interface Spot {
  readonly x: number
  readonly y: number
}

/** A line from one rim to another: where it begins, what it is pulled to as it leaves and as it comes in, and where it ends. */
export interface Arc {
  readonly from: Spot
  readonly out: Spot
  readonly into: Spot
  readonly to: Spot
}

/** What lines are drawn on, px from its corner. */
export interface Board {
  readonly width: number
  readonly height: number
}
const BOUNDLESS: Board = { width: Infinity, height: Infinity }
/** A line is so wide, and stays that far inside. */
const EDGE_PX = 2

/** How far a line may swing out, in shares of its length, and to which side; the first that is free is taken. */
const SWINGS = [0.2, -0.2, 0.1, -0.1, 0.32, -0.32, 0.45, -0.45, 0.65, -0.65, 0.95, -0.95]
/** Where between its ends a line is pulled: in the middle, else nearer to one of them, so that it leaves or comes in from the side. */
const PULLED_AT = [0.5, 0.7, 0.3, 0.9, 0.1]
const SAMPLES = 36
/** Between rows a line keeps so far from what stands over and under it, px. */
const GAP_PX = 12
const ROOM_PX = 8

/** Names stand under their pads: so far below the rim is their middle, px, and so high and wide they are about it. */
const NAME_PX = { below: 15, height: 12, width: 42 }
/** A name that is crossed can still be read. */
const NAME_COST = 0.3

/**
 * The line between two pads of one radius: the flattest that goes through no other pad and no name and stays on a board
 * of this size, else the one that does so least.
 */
export function arcBetween(a: Spot, b: Spot, radius: number, others: readonly Spot[], board: Board = BOUNDLESS): Arc {
  let best: { arc: Arc; hits: number } | undefined
  for (const arc of ways(a, b, radius)) {
    const hits = crossings(arc, others, radius, board) + NAME_COST * namesCrossed(arc, [a, b, ...others], radius)
    if (!best || hits < best.hits) best = { arc, hits }
    if (hits === 0) break
  }
  return best!.arc
}

/** Bows, the flattest first, then ways through the gap between two rows. */
function* ways(a: Spot, b: Spot, radius: number): Generator<Arc> {
  for (const at of PULLED_AT) for (const swing of SWINGS) yield swung(a, b, radius + 3, swing, at)
  if (Math.min(Math.abs(a.x - b.x), Math.abs(a.y - b.y)) < radius) return
  const [upper, lower] = a.y < b.y ? [a, b] : [b, a]
  for (const y of [lower.y - radius - GAP_PX, upper.y + radius + NAME_PX.below + NAME_PX.height + GAP_PX]) {
    // Beside the name under the upper one, and from afar over the lower one.
    const beside = { x: upper.x + Math.sign(lower.x - upper.x) * (radius + NAME_PX.width / 2), y }
    const over = { x: lower.x + (upper.x - lower.x) * 0.3, y }
    const [out, into] = a === upper ? [beside, over] : [over, beside]
    yield { from: rimTowards(a, out, radius + 3), out, into, to: rimTowards(b, into, radius + 3) }
  }
}

/** The line that is pulled out by a share of its length, `at` of the way from one to the other. */
function swung(a: Spot, b: Spot, radius: number, swing: number, at: number): Arc {
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const pull = { x: a.x + dx * at + dy * swing, y: a.y + dy * at - dx * swing }
  const [from, to] = [rimTowards(a, pull, radius), rimTowards(b, pull, radius)]
  const nearer = (end: Spot) => ({ x: end.x + (2 / 3) * (pull.x - end.x), y: end.y + (2 / 3) * (pull.y - end.y) })
  return { from, out: nearer(from), into: nearer(to), to }
}

/** Where a rim is passed on the way to a place. */
function rimTowards(centre: Spot, place: Spot, radius: number): Spot {
  const far = Math.hypot(place.x - centre.x, place.y - centre.y) || 1
  return { x: centre.x + ((place.x - centre.x) / far) * radius, y: centre.y + ((place.y - centre.y) / far) * radius }
}

/** A place on a line, `share` of the way along. */
export function alongArc({ from, out, into, to }: Arc, share: number): Spot {
  const [left, gone] = [1 - share, share]
  const at = (p: number, q: number, r: number, t: number) =>
    left ** 3 * p + 3 * left ** 2 * gone * q + 3 * left * gone ** 2 * r + gone ** 3 * t
  return { x: at(from.x, out.x, into.x, to.x), y: at(from.y, out.y, into.y, to.y) }
}

/** How much of a line lies within other pads or beside the board, in samples of it. */
function crossings(arc: Arc, others: readonly Spot[], radius: number, { width, height }: Board): number {
  const isOff = (at: number, size: number) => at < EDGE_PX || at > size - EDGE_PX
  return samplesOf(arc).filter(
    ({ x, y }) => isOff(x, width) || isOff(y, height) || others.some((other) => Math.hypot(other.x - x, other.y - y) < radius + ROOM_PX),
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

export const arcPath = ({ from, out, into, to }: Arc): string =>
  `M ${from.x} ${from.y} C ${out.x} ${out.y}, ${into.x} ${into.y}, ${to.x} ${to.y}`

const HEAD_PX = 9

/** A small head at the end of a line, which points the way the line comes in. */
export function headPath({ into, to }: Arc): string {
  const far = Math.hypot(to.x - into.x, to.y - into.y) || 1
  const [ux, uy] = [(to.x - into.x) / far, (to.y - into.y) / far]
  const back = { x: to.x - ux * HEAD_PX, y: to.y - uy * HEAD_PX }
  const side = HEAD_PX * 0.55
  return `M ${to.x} ${to.y} L ${back.x - uy * side} ${back.y + ux * side} L ${back.x + uy * side} ${back.y - ux * side} Z`
}
