import { valueOf } from '@heliaster/core/kit'
import type { Clip, TurnId } from '@heliaster/core/kit'
import type { Cells, TakeTarget } from '@heliaster/core/place'
import { View } from 'react-native'

import type { useClipLooks } from '../../../../audio/files/clip-look'
import { NumberField } from '../../../../ui/controls/Slider'
import { TOUCH } from '../../../../ui/theme/theme'
import { BandEnd } from './BandEnd'
import { Cell } from './Cell'
import type { middleOf } from './CellFace'
import { onCellKey } from './cell-keys'

interface Props {
  readonly cells: Cells
  /** Of the band among those of the cells, the softest 0. */
  readonly index: number
  /** Side of a cell, px. */
  readonly size: number
  readonly lookOf: ReturnType<typeof useClipLooks>
  /** Of all cells of the pad, and the middle of this band, dB. */
  readonly loudestDb: number
  readonly middleDb: ReturnType<typeof middleOf>
  readonly isChosen: (id: TurnId) => boolean
  /** The turn that sounded last, if it is of this band. */
  readonly litTurn: number | undefined
  readonly onHear: (turnId: TurnId, clip: Clip | 'intendedSilence' | undefined) => void
  readonly onMark: (id: TurnId) => void
  readonly onSwap: (one: TurnId, other: TurnId) => void
  readonly onEdge: (velocity: number) => void
  readonly onRecord: (target: TakeTarget) => void
}

export const EDGE_WIDTH = TOUCH

/** One band of a pad: where it begins, its turns, and the place for one more. */
export function BandRow(props: Props) {
  const { cells, index, size, lookOf, loudestDb, middleDb, isChosen, litTurn, onHear, onMark, onSwap, onEdge, onRecord } = props
  const { ray, bands } = cells
  const band = bands[index]
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4, pointerEvents: 'box-none' }}>
      <NumberField
        label={`Band ${index + 1} begins at velocity`}
        text={String(band.fromVelocity)}
        unit="↑"
        width={EDGE_WIDTH}
        onNumber={onEdge}
      />
      {band.turns.map((turn, turnIndex) => {
        const clip = turn.clips[ray.id]
        return (
          <Cell
            key={turn.id}
            id={turn.id}
            band={index + 1}
            turn={turnIndex + 1}
            clip={clip}
            look={clip && clip !== 'intendedSilence' ? lookOf(clip) : undefined}
            gainDb={valueOf(band, 'gainDb')}
            loudestDb={loudestDb}
            middleDb={middleDb}
            size={size}
            isChosen={isChosen(turn.id)}
            isLit={litTurn === turnIndex}
            onPress={() => onHear(turn.id, clip)}
            onMark={() => onMark(turn.id)}
            onKey={(event) => onCellKey(event, cells.bands, turn.id, onSwap)}
          />
        )
      })}
      <BandEnd
        id={band.id}
        band={index + 1}
        isEmpty={band.turns.length === 0}
        size={size}
        onRecord={() => onRecord({ kind: 'band', bandId: band.id, rayId: ray.id })}
      />
    </View>
  )
}
