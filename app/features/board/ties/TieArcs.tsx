import type { Kit, TieId } from '@heliaster/core/kit'
import { tieLines } from '@heliaster/core/ties'
import type { TieLine } from '@heliaster/core/ties'
import { useMemo } from 'react'
import { View } from 'react-native'
import Svg, { G, Path } from 'react-native-svg'

import { useSession } from '../../../kit-view'
import { usePalette } from '../../../ui/theme/theme'
import { arcBetween, arcPath, headPath, loopAt } from './arc'
import type { Board, Spot } from './arc'
import { TIE_LOOKS } from './tie-looks'

interface Props {
  readonly kit: Kit
  readonly centreOf: (index: number) => Spot
  readonly radiusOf: (index: number) => number
  readonly width: number
  readonly height: number
  /** The tie that is looked at; the others step back. */
  readonly chosen?: TieId
}

/** All ties as lines from rim to rim, each kind with a stroke of its own; where a strike goes, its lines are lit. */
export function TieArcs({ kit, centreOf, radiusOf, width, height, chosen }: Props) {
  const sounding = useSession((state) => state.sounding) // lines from pads that sound, and to those that sound with them, are lit
  const lines = useMemo(() => tieLines(kit), [kit])
  const places = useMemo(() => new Map(kit.pads.map(({ id }, index) => [id, index])), [kit.pads])
  const centres = kit.pads.map((_, index) => centreOf(index))
  const board = { width, height }
  return (
    <View pointerEvents="none" style={{ position: 'absolute', left: 0, top: 0 }}>
      <Svg width={width} height={height} aria-hidden>
        {lines.map((line) => {
          const [from, to] = [places.get(line.from), places.get(line.to)]
          if (from === undefined || to === undefined || (from !== to && isSame(centres[from]!, centres[to]!))) return null
          const others = centres.filter((_, i) => i !== from && i !== to)
          const isLit = sounding.includes(line.from) && (sounding.includes(line.to) || line.kind === 'choke' || line.kind === 'chokeGroup')
          return (
            <Line
              key={`${line.tieId} ${line.from} ${line.to}`}
              line={line}
              a={centres[from]!}
              b={centres[to]!}
              radius={Math.min(radiusOf(from), radiusOf(to))}
              others={others}
              board={board}
              isFaint={chosen !== undefined && chosen !== line.tieId}
              isLit={isLit}
            />
          )
        })}
      </Svg>
    </View>
  )
}

/** What sounds from one face has no line between. */
const isSame = (a: Spot, b: Spot) => a.x === b.x && a.y === b.y

interface LineProps {
  readonly line: TieLine
  readonly a: Spot
  readonly b: Spot
  readonly radius: number
  readonly others: readonly Spot[]
  readonly board: Board
  readonly isFaint: boolean
  readonly isLit: boolean
}

function Line({ line, a, b, radius, others, board, isFaint, isLit }: LineProps) {
  const palette = usePalette()
  const { colour, dash, hasHead } = TIE_LOOKS[line.kind]
  const arc = line.from === line.to ? undefined : arcBetween(a, b, radius, others, board)
  const stroke = palette[colour]
  return (
    <G opacity={isFaint ? 0.25 : 1}>
      <Path
        d={arc ? arcPath(arc) : loopAt(a, radius)}
        stroke={stroke}
        strokeWidth={isLit ? 4 : 2}
        strokeDasharray={isLit ? undefined : dash}
        strokeLinecap="round"
        fill="none"
      />
      {arc && hasHead && <Path d={headPath(arc)} fill={stroke} />}
    </G>
  )
}
