import { bandsOfRay } from '../kit/resolve'
import type { BandId, PadId, RayId, TurnId } from '../kit/ids'
import type { Band, Clip, Kit, Pad } from '../kit/kit'

/** One cell of a kit, as a walk through all of them comes to it. */
export interface WalkedCell {
  readonly padId: PadId
  readonly bandId: BandId
  readonly turnId: TurnId
  /** The ray that has bands of its own; none where the cell is seen by all that share theirs. */
  readonly rayId?: RayId
  /** From 1, as people count; and which velocities, with both ends, the band answers. */
  readonly band: number
  readonly bands: number
  readonly turn: number
  readonly turns: number
  readonly fromVelocity: number
  readonly toVelocity: number
}

/** Every cell that has a clip, pad by pad, soft to loud, turn by turn; then the cells of rays with bands of their own. */
export function cellsToWalk(kit: Kit): WalkedCell[] {
  return kit.pads.flatMap((pad) => [
    ...cellsOfBands(pad, pad.bands),
    ...pad.rays.flatMap((ray) =>
      ray.source.kind === 'clips' && ray.source.bands
        ? cellsOfBands(pad, ray.source.bands).map((cell) => ({ ...cell, rayId: ray.id }))
        : [],
    ),
  ])
}

function cellsOfBands(pad: Pad, bands: readonly Band[]): WalkedCell[] {
  return bands.flatMap((band, i) =>
    band.turns.flatMap((turn, j) =>
      clipsIn(turn).length === 0
        ? []
        : [
            {
              padId: pad.id,
              bandId: band.id,
              turnId: turn.id,
              band: i + 1,
              bands: bands.length,
              turn: j + 1,
              turns: band.turns.length,
              fromVelocity: band.fromVelocity,
              toVelocity: (bands[i + 1]?.fromVelocity ?? 128) - 1,
            },
          ],
    ),
  )
}

const clipsIn = ({ clips }: Band['turns'][number]): Clip[] =>
  Object.values(clips).filter((clip): clip is Clip => clip !== undefined && clip !== 'intendedSilence')

/** What sounds in a cell, as text that changes when another clip is put there; nothing where it is gone. */
export function clipsOfCell(kit: Kit, { padId, turnId, rayId }: Pick<WalkedCell, 'padId' | 'turnId' | 'rayId'>): string | undefined {
  const pad = kit.pads.find(({ id }) => id === padId)
  const ray = pad?.rays.find(({ id }) => id === rayId)
  const bands = pad && (ray ? bandsOfRay(pad, ray) : pad.bands)
  const turn = bands?.flatMap(({ turns }) => turns).find(({ id }) => id === turnId)
  return turn && clipsIn(turn).map(({ audio, startFrame, endFrame }) => `${audio}:${startFrame}-${endFrame}`).join(' ') // prettier-ignore
}

/** Whether a cell was kept, or is to be struck again, with what sounded in it then. */
export interface Judged {
  readonly verdict: 'keep' | 'redo'
  readonly was: string
}

/** What is still to be struck again: cells that were so judged, are there yet, and sound as they did then. */
export function stillToRedo(kit: Kit, judged: Readonly<Record<string, Judged>>): WalkedCell[] {
  return cellsToWalk(kit).filter((cell) => {
    const said = judged[cell.turnId]
    return said?.verdict === 'redo' && clipsOfCell(kit, cell) === said.was
  })
}

/** Where a walk goes on: at the first cell that nobody has judged as it sounds now; nothing where all are. */
export function firstUnjudged(kit: Kit, judged: Readonly<Record<string, Judged>>): number | undefined {
  const cells = cellsToWalk(kit)
  const at = cells.findIndex((cell) => judged[cell.turnId]?.was !== clipsOfCell(kit, cell))
  return at < 0 ? undefined : at
}

/** A cell in words: "band 3 of 5 (velocity 52 to 76), turn 2 of 6". */
export function cellWords({ band, bands, turn, turns, fromVelocity, toVelocity }: WalkedCell): string {
  const parts = [
    bands > 1 ? `band ${band} of ${bands} (velocity ${fromVelocity} to ${toVelocity})` : '',
    turns > 1 ? `turn ${turn} of ${turns}` : '',
  ].filter(Boolean)
  return parts.length > 0 ? parts.join(', ') : 'its only cell'
}
