import type { Pad } from '@heliaster/core/kit'
import { cellsOfPlan, holesInWords } from '@heliaster/core/place'
import type { NamePlan, PlannedPad } from '@heliaster/core/place'
import { View } from 'react-native'
import Svg, { G, Rect, Text as SvgText } from 'react-native-svg'

import { Star } from '../../ui/drawing/Star'
import { Text } from '../../ui/layout/Text'
import { fonts, usePalette } from '../../ui/theme/theme'

const MOST_STARS = 24
const MOST_LINES = 40

interface Props {
  readonly plan?: NamePlan
  readonly pads: readonly Pad[]
  readonly nameOf: (pad: Pad) => string
}

/** The pads as they would be, each as its filled star. */
export function Stars({ plan, pads, nameOf }: Props) {
  const isOne = pads.length === 1
  return (
    <View role="group" style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 14, justifyContent: 'center' }} aria-label="What will be made">
      {pads.slice(0, MOST_STARS).map((pad, i) => (
        <View key={pad.id} style={{ alignItems: 'center', width: isOne ? '100%' : 92, gap: 4 }}>
          <Star size={isOne ? 150 : 64} turns={pad.bands.map((band) => band.turns.length)} />
          <Text look="label" numberOfLines={2} style={{ textAlign: 'center' }}>
            {nameOf(pad)}
          </Text>
          {plan?.pads[i] && (
            <Text look="small" tone="muted" numberOfLines={isOne ? 2 : 3} style={{ textAlign: 'center', fontSize: 12, lineHeight: 15 }}>
              {shapeWords(plan.pads[i])}
            </Text>
          )}
        </View>
      ))}
      {pads.length > MOST_STARS && <Text tone="muted">{`and ${pads.length - MOST_STARS} more`}</Text>}
    </View>
  )
}

function shapeWords({ microphones, bands }: Pick<PlannedPad, 'microphones' | 'bands'>): string {
  const turns = bands.map((band) => band.turns.length)
  const [least, most] = [Math.min(...turns), Math.max(...turns)]
  const each = bands.length > 1 ? ' each' : ''
  return [
    microphones.length > 1 ? `${microphones.length} microphones: ${microphones.join(', ')}` : '',
    bands.length > 1 ? `${bands.length} bands` : '',
    `${least === most ? most : `${least} to ${most}`} ${most === 1 ? 'turn' : 'turns'}${each}`,
  ]
    .filter(Boolean)
    .join('; ')
}

/** Cells without a file, in a sentence and a picture, and files without a cell, each with its reason. */
export function Gaps({ plan, names }: { readonly plan: NamePlan; readonly names: readonly string[] }) {
  const holes = holesInWords(plan)
  if (!holes && plan.unplaced.length === 0) return null
  return (
    <View style={{ gap: 6 }} role="alert">
      {holes && (
        <>
          <Text look="small">{holes}</Text>
          {plan.pads
            .filter(({ gaps }) => gaps.length > 0)
            .slice(0, MOST_PICTURES)
            .map((pad) => (
              <Holes key={pad.name} pad={pad} isNamed={plan.pads.length > 1} />
            ))}
        </>
      )}
      {plan.unplaced.slice(0, MOST_LINES).map(({ file, reason }) => (
        <Text key={file} look="small" tone="coral">
          {`${names[file]}: ${reason}`}
        </Text>
      ))}
      {plan.unplaced.length > MOST_LINES && <Text look="small" tone="coral">{`And ${plan.unplaced.length - MOST_LINES} more.`}</Text>}
    </View>
  )
}

const MOST_PICTURES = 6
const CELL = 12
const GAP = 3
const BAND_GAP = 6
const NAME_WIDTH = 64

/** A pad's cells: a row for each microphone, strikes from soft to hard; those without a file are hollow. */
function Holes({ pad, isNamed }: { readonly pad: PlannedPad; readonly isNamed: boolean }) {
  const palette = usePalette()
  const { rows, columns, filled } = cellsOfPlan(pad)
  const x = (column: number) => NAME_WIDTH + column * (CELL + GAP) + columns[column].band * BAND_GAP
  const width = x(columns.length - 1) + CELL + 2
  const height = rows.length * (CELL + GAP) + 2
  return (
    <View style={{ gap: 2 }}>
      {isNamed && <Text look="label">{pad.name}</Text>}
      <Svg width="100%" height={height} viewBox={`0 0 ${Math.max(width, 340)} ${height}`} preserveAspectRatio="xMinYMin meet">
        {rows.map((name, row) => (
          <G key={name}>
            <SvgText x={0} y={row * (CELL + GAP) + CELL - 1} fontFamily={fonts.text} fontSize={11} fill={palette.muted}>
              {(name || 'plain').slice(0, 10)}
            </SvgText>
            {columns.map((_, column) => (
              <Rect
                key={column}
                x={x(column)}
                y={row * (CELL + GAP) + 1}
                width={CELL}
                height={CELL}
                rx={2}
                fill={filled[row][column] ? palette.kelp : 'none'}
                stroke={filled[row][column] ? palette.kelp : palette.coral}
                strokeWidth={1.5}
              />
            ))}
          </G>
        ))}
      </Svg>
    </View>
  )
}
