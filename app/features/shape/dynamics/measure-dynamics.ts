import { strikeLoudness } from '@heliaster/core/audio'
import { strikeCentreHz } from '@heliaster/core/cut'
import type { Kit, Pad, Turn } from '@heliaster/core/kit'

import { drawStrike } from '../../../audio/engine/draw'

/** How a pad answers one velocity. */
export interface DynamicsPoint {
  readonly velocity: number
  readonly band: number
  /** LUFS; -Infinity where nothing sounds. */
  readonly loudness: number
  /** Where the middle of its sound lies, Hz; nothing where nothing sounds. */
  readonly brightHz?: number
}

/** A strike is as loud as its loudest 100 ms: so much of it is drawn. */
const SECONDS = 0.35
const RATE = 48000
/** Pads of many bands are measured at so many velocities. */
const MOST_POINTS = 48

/** The velocities that tell most: where each band begins, its middle, and where it ends. */
export function tellingVelocities(pad: Pad): { readonly velocity: number; readonly band: number }[] {
  const all = pad.bands.flatMap(({ fromVelocity: from }, band) => {
    const to = endOf(pad, band)
    const places = to - from > 8 ? [from, middleOf(pad, band), to] : [...new Set([from, to])]
    return places.map((velocity) => ({ velocity, band }))
  })
  const every = Math.ceil(all.length / MOST_POINTS)
  return all.filter((_, i) => i % every === 0)
}

async function measured(kit: Kit, pad: Pad, velocity: number): Promise<Pick<DynamicsPoint, 'loudness' | 'brightHz'>> {
  const { left, right } = await drawStrike(kit, pad, velocity, SECONDS, RATE)
  const loudness = strikeLoudness([left, right], RATE)
  if (!Number.isFinite(loudness)) return { loudness: -Infinity }
  const mono = left.map((sample, i) => (sample + right[i]!) / 2)
  return { loudness, brightHz: strikeCentreHz({ sampleRateHz: RATE, channels: [mono] }) }
}

/** Loudness and brightness over velocity, by the engine; `isStill` says whether anyone still wants to know, who is told of the way. */
export async function measureDynamics(
  kit: Kit,
  pad: Pad,
  isStill: () => boolean,
  onSoFar: (points: readonly DynamicsPoint[]) => void = () => undefined,
): Promise<DynamicsPoint[] | undefined> {
  const points: DynamicsPoint[] = []
  for (const at of tellingVelocities(pad)) {
    if (!isStill()) return undefined
    points.push({ ...at, ...(await measured(kit, pad, at.velocity)) })
    onSoFar([...points])
  }
  return points
}

/** How loud each band is at its middle, all of its turns together: one turn alone may be the odd one. */
export async function measureBands(kit: Kit, pad: Pad, isStill = () => true): Promise<{ velocity: number; loudness: number }[]> {
  const bands = []
  for (const [i, band] of pad.bands.entries()) {
    const velocity = middleOf(pad, i)
    const levels: number[] = []
    for (const turn of band.turns) if (isStill()) levels.push((await measured(kit, withOnly(pad, i, turn), velocity)).loudness)
    const heard = levels.filter(Number.isFinite)
    bands.push({ velocity, loudness: heard.length === 0 ? -Infinity : heard.reduce((sum, level) => sum + level, 0) / heard.length })
  }
  return bands
}

const endOf = (pad: Pad, band: number) => (pad.bands[band + 1]?.fromVelocity ?? 128) - 1
const middleOf = (pad: Pad, band: number) => Math.round((pad.bands[band]!.fromVelocity + endOf(pad, band)) / 2)

/** The same points as all turns of their bands are on average, where one turn of each was measured. */
export async function withAllTurns(kit: Kit, pad: Pad, points: readonly DynamicsPoint[], isStill: () => boolean): Promise<DynamicsPoint[]> {
  const bands = await measureBands(kit, pad, isStill)
  const offsets = bands.map(({ velocity, loudness }, band) => {
    const own = points.filter((point) => point.band === band)
    const nearest = own.sort((a, b) => Math.abs(a.velocity - velocity) - Math.abs(b.velocity - velocity))[0]
    const offset = nearest ? loudness - nearest.loudness : 0
    return Number.isFinite(offset) ? offset : 0
  })
  return points.map((point) => ({ ...point, loudness: point.loudness + offsets[point.band]! }))
}

function withOnly(pad: Pad, band: number, turn: Turn): Pad {
  return { ...pad, bands: pad.bands.map((one, i) => (i === band ? { ...one, turns: [turn] } : one)) }
}

/** Steps between neighbouring bands, dB: how much louder one begins than the one below ends. */
export function stepsOf(points: readonly DynamicsPoint[]): { readonly velocity: number; readonly db: number }[] {
  return points.slice(1).flatMap((point, i) => {
    const before = points[i]!
    const db = point.loudness - before.loudness
    return point.band !== before.band && Number.isFinite(db) ? [{ velocity: point.velocity, db }] : []
  })
}
