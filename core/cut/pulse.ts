/** A strike as far as its time is asked for. */
export interface TimedStrike {
  readonly seconds: number
  /** How much it counts, above 0. */
  readonly strength: number
}

/**
 * The fastest even pulse that strikes fall on, in pairs: two strikes of the pulse make a pair, and the second stands at `swing` of it.
 * `places` says on which place of the pulse each strike falls, counted from 0 at `firstSeconds`.
 */
export interface Pulse {
  readonly pairSeconds: number
  readonly swing: number
  readonly firstSeconds: number
  readonly places: readonly number[]
  /** Up to 1: how many of the strikes lie on it, by their strength, beyond those that would by chance. */
  readonly confidence: number
}

const SHORTEST_PAIR = 0.17
const LONGEST_PAIR = 0.8
const SWINGS = [0.5, 0.54, 0.58, 0.62, 2 / 3, 0.71]
/** Hands stray by so much, s; and so many strikes belong to no pulse. */
const STRAY_SECONDS = 0.02
const OUTSIDE = 0.03
/** A swing that is none is the likelier one. */
const SWING_COST = 2.5
const PHASES = 28
const TABLE = 256
/** So much of a long recording is looked at to find the pulse. */
const LOOKED_AT_SECONDS = 40
const FEWEST = 6
const LEAST_CONFIDENCE = 0.45

/**
 * Finds the pulse by the likelihood of strikes that stray about its places (normal), beside some that belong to none, against strikes
 * anywhere: the coarsest pulse that explains them wins of itself. The line through the strikes on their places then says how long it
 * is (least squares, without those that lie off it). Undefined for fewer than six strikes, or where none explains most of them.
 */
export function pulseOf(strikes: readonly TimedStrike[]): Pulse | undefined {
  if (strikes.length < FEWEST) return undefined
  const first = Math.min(...strikes.map(({ seconds }) => seconds))
  const near = strikes.filter(({ seconds }) => seconds - first < LOOKED_AT_SECONDS)
  const span = Math.max(1, Math.max(...near.map(({ seconds }) => seconds)) - first)
  const total = near.reduce((sum, { strength }) => sum + strength, 0)
  const given = {
    at: Float64Array.from(near, ({ seconds }) => seconds - first),
    weight: Float64Array.from(near, ({ strength }) => (strength / total) * near.length),
    share: new Float64Array(near.length),
  }
  const ratio = 1 + (1.6 * STRAY_SECONDS) / span
  const found = SWINGS.map((swing) => {
    let best: Found = { score: -Infinity, pair: 0, swing, phase: 0 }
    for (let pair = SHORTEST_PAIR; pair <= LONGEST_PAIR; pair *= ratio) best = betterOf(best, fitted(given, pair, swing))
    return { ...best, score: best.score - turnedRound(given, best) }
  })
  const pulse = settled(strikes, first, found.reduce(betterOf))
  return pulse && finer(strikes, pulse)
}

/** In pairs that swing the first place has more than the second: where it has less, they were found the wrong way round. */
const TURNED_COST = 1.5

function turnedRound({ at, weight }: Given, { pair, swing, phase }: Found): number {
  if (swing === 0.5) return 0
  let [firsts, seconds] = [0, 0]
  for (let i = 0; i < at.length; i++) {
    const place = (at[i] / pair - phase + 2) % 1
    const near = (slot: number) => Math.min(Math.abs(place - slot), 1 - Math.abs(place - slot))
    if (near(0) < near(swing)) firsts += weight[i]
    else seconds += weight[i]
  }
  return TURNED_COST * Math.max(0, seconds - firsts)
}

interface Found {
  readonly score: number
  readonly pair: number
  readonly swing: number
  readonly phase: number
}

const betterOf = (one: Found, other: Found) => (other.score > one.score ? other : one)

interface Given {
  readonly at: Float64Array
  readonly weight: Float64Array
  /** Room to lay out where in its pair each strike falls. */
  readonly share: Float64Array
}

/** How well strikes fall on a pulse at its best phase. */
function fitted({ at, weight, share }: Given, pair: number, swing: number): Found {
  const table = tableOf(pair, swing)
  for (let i = 0; i < at.length; i++) share[i] = (at[i] / pair) % 1
  let most = -Infinity
  let phase = 0
  for (let step = 0; step < PHASES; step++) {
    let score = swing === 0.5 ? 0 : -SWING_COST
    for (let i = 0; i < share.length; i++) {
      const place = share[i] - step / PHASES
      score += weight[i] * table[((place < 0 ? place + 1 : place) * TABLE) | 0]
    }
    if (score > most) {
      most = score
      phase = step / PHASES
    }
  }
  return { score: most, pair, swing, phase }
}

const tables = new Map<number, Float64Array>()
const MOST_TABLES = 4000

/** The logarithm of how much likelier a strike is at each place of a pair than anywhere. */
function tableOf(pair: number, swing: number): Float64Array {
  const stray = STRAY_SECONDS / pair
  const key = Math.round(stray * 2000) * 100 + Math.round(swing * 99)
  const known = tables.get(key)
  if (known) return known
  const bell = (away: number) => Math.exp(-0.5 * (away / stray) ** 2) / (stray * Math.sqrt(2 * Math.PI))
  const table = Float64Array.from({ length: TABLE }, (_, i) => {
    const place = (i + 0.5) / TABLE
    const near = (slot: number) => bell(Math.min(Math.abs(place - slot), 1 - Math.abs(place - slot)))
    return Math.log(((1 - OUTSIDE) * (near(0) + near(swing))) / 2 + OUTSIDE)
  })
  if (tables.size >= MOST_TABLES) tables.clear()
  tables.set(key, table)
  return table
}

/** Every strike on its place, and the pulse by the line through them: pair, phase and swing together. */
function settled(strikes: readonly TimedStrike[], origin: number, found: Found): Pulse | undefined {
  let { pair, swing } = found
  let first = origin + found.phase * found.pair
  let places: number[] = []
  for (let round = 0; round < 4; round++) {
    places = followed(strikes, first, pair, swing)
    const line = lineThrough(strikes, places, first, pair, swing)
    if (!line) return undefined
    ;({ first, pair, swing } = line)
  }
  const lowest = 2 * Math.floor(Math.min(...places) / 2)
  const on = strikes.reduce((sum, strike, i) => sum + (awayFrom(strike, places[i]!, first, pair, swing) < STRAY_SECONDS ? strike.strength : 0), 0) // prettier-ignore
  const share = on / strikes.reduce((sum, { strength }) => sum + strength, 0)
  const byChance = Math.min(0.95, (4 * STRAY_SECONDS) / pair)
  const confidence = (share - byChance) / (1 - byChance)
  if (confidence < LEAST_CONFIDENCE) return undefined
  const isStraight = Math.abs(swing - 0.5) < 0.02
  return { pairSeconds: pair, swing: isStraight ? 0.5 : Math.min(0.75, Math.max(0.5, swing)), firstSeconds: first + (lowest / 2) * pair, places: places.map((place) => place - lowest), confidence } // prettier-ignore
}

/** So many strikes between the places make a finer pulse, and so many of them lie together. */
const FEWEST_BETWEEN = 3
const SHARE_BETWEEN = 0.04
const TOGETHER = 0.6

/**
 * A straight pulse is found even where a few strikes fall between its places: where they lie together, each about as far along, they
 * are the second ones of pairs that are half as long.
 */
function finer(strikes: readonly TimedStrike[], pulse: Pulse): Pulse {
  const { pairSeconds, swing, firstSeconds } = pulse
  const step = pairSeconds / 2
  if (swing !== 0.5 || step < SHORTEST_PAIR) return pulse
  const shares = strikes.map(({ seconds }, i) => (seconds - placeSeconds(pulse.places[i]!, firstSeconds, pairSeconds, swing)) / step)
  const between = shares
    .filter((share) => Math.abs(share) * step > 2.5 * STRAY_SECONDS)
    .map((share) => (share + 1) % 1)
    .sort((a, b) => a - b)
  const middle = between[between.length >> 1]
  if (middle === undefined || between.length < Math.max(FEWEST_BETWEEN, SHARE_BETWEEN * strikes.length)) return pulse
  const near = between.filter((share) => Math.abs(share - middle) * step < 2.5 * STRAY_SECONDS)
  if (near.length < TOGETHER * between.length || middle < 0.42 || middle > 0.78) return pulse
  const found = { score: 0, pair: step, swing: near.reduce((sum, share) => sum + share, 0) / near.length, phase: 0 }
  return settled(strikes, firstSeconds, found) ?? pulse
}

/** When a place of a pulse is, s. */
export const secondsOfPlace = ({ firstSeconds, pairSeconds, swing }: Pulse, place: number) => placeSeconds(place, firstSeconds, pairSeconds, swing) // prettier-ignore
const placeSeconds = (place: number, first: number, pair: number, swing: number) => first + (Math.floor(place / 2) + (place & 1 ? swing : 0)) * pair // prettier-ignore
const awayFrom = ({ seconds }: TimedStrike, place: number, first: number, pair: number, swing: number) => Math.abs(seconds - placeSeconds(place, first, pair, swing)) // prettier-ignore

/** How fast the pulse that is followed learns from a strike that lies off its place. */
const LEARNS = 0.08

/** The place of each strike, followed from the first to the last: hands that grow faster or slower take the pulse along. */
function followed(strikes: readonly TimedStrike[], first: number, pair: number, swing: number): number[] {
  const order = strikes.map((_, i) => i).sort((a, b) => strikes[a]!.seconds - strikes[b]!.seconds)
  const places = new Array<number>(strikes.length).fill(0)
  let drift = 0
  for (const i of order) {
    const at = (strikes[i]!.seconds - first - drift) / pair
    const whole = Math.floor(at)
    const options = [2 * whole, 2 * whole + 1, 2 * whole + 2]
    const place = options.reduce((best, one) =>
      Math.abs(placeShare(one, swing) - at) < Math.abs(placeShare(best, swing) - at) ? one : best,
    )
    places[i] = place
    const off = (at - placeShare(place, swing)) * pair
    if (Math.abs(off) < 2.5 * STRAY_SECONDS) drift += LEARNS * off
  }
  return places
}

const placeShare = (place: number, swing: number) => Math.floor(place / 2) + (place % 2 === 0 ? 0 : swing)

/** Least squares of time over pairs, and the mean place of the second of a pair. */
function lineThrough(strikes: readonly TimedStrike[], places: readonly number[], first: number, pair: number, swing: number) {
  const rows = strikes.flatMap(({ seconds, strength }, i) => {
    const off = seconds - placeSeconds(places[i]!, first, pair, swing)
    return Math.abs(off) < 2.5 * STRAY_SECONDS ? [{ x: placeShare(places[i]!, swing), y: seconds, weight: Math.sqrt(strength), isSecond: places[i]! % 2 !== 0 }] : [] // prettier-ignore
  })
  const weight = rows.reduce((sum, row) => sum + row.weight, 0)
  if (rows.length < FEWEST / 2 || weight === 0) return undefined
  const meanX = rows.reduce((sum, row) => sum + row.weight * row.x, 0) / weight
  const meanY = rows.reduce((sum, row) => sum + row.weight * row.y, 0) / weight
  const spread = rows.reduce((sum, row) => sum + row.weight * (row.x - meanX) ** 2, 0)
  if (spread === 0) return undefined
  const slope = rows.reduce((sum, row) => sum + row.weight * (row.x - meanX) * (row.y - meanY), 0) / spread
  const start = meanY - slope * meanX
  const late = (of: boolean) => {
    const some = rows.filter(({ isSecond }) => isSecond === of)
    return some.length < 3 ? 0 : some.reduce((sum, { x, y }) => sum + (y - start - slope * x), 0) / some.length
  }
  return { first: start + late(false), pair: slope, swing: swing + (late(true) - late(false)) / slope }
}
