import { valueOf } from '@heliaster/core/kit'
import type { Band, Clip, RayId } from '@heliaster/core/kit'

import type { ClipLook } from '../../../../audio/files/clip-look'
import { MiniWave, Outline } from '../../../../kit-view/MiniWave'
import { Text } from '../../../../ui/layout/Text'

interface Props {
  readonly clip: Clip | 'intendedSilence' | undefined
  readonly look: ClipLook | undefined
  /** Level of the band. */
  readonly gainDb: number
  /** Loudness of the loudest cell shown. */
  readonly loudestDb: number
  /** Loudness in the middle of its band. */
  readonly middleDb: number
  readonly turn: number
  readonly cell: number
}

/** Cells this much softer than the loudest are drawn at the lowest height. */
const RANGE_DB = 36
const LOWEST_SHARE = 0.18
/** A cell so far from the others of its band is perhaps in the wrong one. */
const ODD_DB = 6

/** What is in a cell: its waveform, lower where it is softer, and its loudness as a figure, in coral where it is odd. */
export function CellFace({ clip, look, gainDb, loudestDb, middleDb, turn, cell }: Props) {
  if (clip && clip !== 'intendedSilence' && !look && isWhole(clip))
    return <MiniWave audio={clip.audio} width={cell - 10} height={cell - 20} />
  if (!clip || clip === 'intendedSilence' || !look)
    return (
      <Text look="figures" tone={clip ? 'ink' : 'muted'}>
        {clip === 'intendedSilence' ? '–' : clip ? turn + 1 : '?'}
      </Text>
    )
  const loudnessDb = look.loudnessDb + clip.gainDb + gainDb
  const share = Math.max(LOWEST_SHARE, 1 - Math.max(0, loudestDb - loudnessDb) / RANGE_DB)
  return (
    <>
      <Outline low={look.low} high={look.high} width={cell - 10} height={cell - 20} share={share} />
      <Text
        look="figures"
        tone={Math.abs(loudnessDb - middleDb) > ODD_DB ? 'coral' : 'muted'}
        style={{ position: 'absolute', bottom: 1, right: 3, fontSize: 10, lineHeight: 12 }}
      >
        {Number.isFinite(loudnessDb) ? Math.round(loudnessDb) : '∞'}
      </Text>
    </>
  )
}

/** The small picture of a whole file, which is there at once, stands only for clips that are. */
function isWhole(clip: Clip): boolean {
  return clip.startFrame === 0 && clip.fromHit === undefined && clip.fadeOutSeconds === 0
}

/** The clips of a ray's cells, each with the level of its band. */
export function clipsIn(bands: readonly Band[], rayId: RayId): { clip: Clip; gainDb: number }[] {
  return bands.flatMap((band) =>
    band.turns.flatMap((turn) => {
      const clip = turn.clips[rayId]
      return clip && clip !== 'intendedSilence' ? [{ clip, gainDb: valueOf(band, 'gainDb') }] : []
    }),
  )
}

/** The middle of the loudness of a band's cells, as far as they are known; NaN before any is. */
export function middleOf(band: Band, rayId: RayId, lookOf: (clip: Clip) => ClipLook | undefined): number {
  const known = clipsIn([band], rayId)
    .flatMap(({ clip, gainDb }) => (lookOf(clip) ? [lookOf(clip)!.loudnessDb + clip.gainDb + gainDb] : []))
    .sort((a, b) => a - b)
  return known.length > 2 ? known[Math.floor(known.length / 2)] : NaN
}
