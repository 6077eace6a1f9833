import type { PadId } from '../../kit/ids'
import type { Clip, Kit, Pad, Ray } from '../../kit/kit'
import { hash32, Purpose } from '../strike/chance'

/** What the plain model of the rules picks: whose sounds a pad without any has, which clip a ray borrows, and rounds in an order of chance. */

/**
 * A pad that has nothing sounds what the nearest other opening of its drum has, and where its drum has none what the nearest other
 * spot has: one step away in the row before two, the one before it first.
 */
export function borrowing(kit: Kit, pad: Pad): Pad & { readonly poolOf?: PadId } {
  const hasSounds = ({ bands, rays }: Pad) => [bands, ...rays.map(({ source }) => (source.kind === 'clips' ? (source.bands ?? []) : []))].some((list) => list.some(({ turns }) => turns.length > 0)) // prettier-ignore
  if (hasSounds(pad) || pad.own.mode === 'silencer') return pad
  const rows: (PadId | undefined)[][] = []
  for (const tie of kit.ties) if (tie.kind === 'openings') rows.push([...tie.steps].sort((a, b) => a.from - b.from).map((step) => step.pad))
  for (const tie of kit.ties) if (tie.kind === 'spots') rows.push(tie.spots.map((spot) => spot.pad))
  for (const row of rows) {
    if (!row.includes(pad.id)) continue
    for (let step = 1; step < row.length; step++)
      for (const place of [row.indexOf(pad.id) - step, row.indexOf(pad.id) + step]) {
        const other = kit.pads.find(({ id }) => id === row[place])
        if (other && other !== pad && hasSounds(other)) return { ...pad, rays: other.rays, bands: other.bands, poolOf: other.id }
      }
  }
  return pad
}

/** A ray that borrows takes the clip of the nearest band, the softer one first. */
export function nearestClip(pad: Pad, band: number, turn: number, ray: Ray): Clip | undefined {
  for (let away = 1; away < pad.bands.length; away++)
    for (const at of [band - away, band + away]) {
      const clip = pad.bands[at]?.turns[turn % Math.max(1, pad.bands[at].turns.length)]?.clips[ray.id]
      if (clip && clip !== 'intendedSilence') return clip
    }
  return undefined
}

/** Each once a round in an order of chance; a round that would begin with the last of the one before swaps its first two. */
export function shuffled(seed: number, key: number, list: number, count: number, of: number): number {
  if (of < 2) return 0
  const round = Math.floor(count / of)
  if (of === 2) return ((hash32(seed, key, list, Purpose.shuffle) & 1) + (count % 2)) & 1
  const order = mixed(seed, key, list, round, of)
  if (round > 0 && mixed(seed, key, list, round - 1, of)[of - 1] === order[0]) [order[0], order[1]] = [order[1], order[0]]
  return order[count % of]
}

function mixed(seed: number, key: number, list: number, round: number, of: number): number[] {
  const order = Array.from({ length: of }, (_, i) => i)
  for (let i = of - 1; i > 0; i--) {
    const j = Math.floor((hash32(seed, key, round * 128 + list, Purpose.shuffle * 65536 + i) / 4294967296) * (i + 1))
    ;[order[i], order[j]] = [order[j], order[i]]
  }
  return order
}
