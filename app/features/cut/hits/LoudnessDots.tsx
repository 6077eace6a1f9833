import type { Band, Clip } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'
import Svg, { Circle, Line, Path, Rect, Text as SvgText } from 'react-native-svg'

import { fonts, usePalette } from '../../../ui/theme/theme'

interface Props {
  readonly bands: readonly Band[]
  /** Loudness of each hit as it was struck, by its marker. */
  readonly loudnessOf: ReadonlyMap<string, number>
  readonly height: number
}

const LEFT = 46
const BOTTOM = 18

interface Dot {
  readonly velocity: number
  readonly db: number
  readonly band: number
}

/** Every hit as a dot on loudness against velocity: the bands as columns, the line of their means through them. */
export function LoudnessDots({ bands, loudnessOf, height }: Props) {
  const palette = usePalette()
  const [width, setWidth] = useState(320)
  const dots = bands.flatMap((band, index) => dotsOf(band, index, bands[index + 1]?.fromVelocity ?? 128, loudnessOf))
  if (dots.length === 0) return null
  const [low, high] = [Math.floor(Math.min(...dots.map((dot) => dot.db)) - 1), Math.ceil(Math.max(...dots.map((dot) => dot.db)) + 1)]
  const x = (velocity: number) => LEFT + ((velocity - 1) / 127) * (width - LEFT - 4)
  const y = (db: number) => 4 + ((high - db) / Math.max(1, high - low)) * (height - BOTTOM - 8)
  const means = bands.flatMap((band, index) => {
    const own = dots.filter((dot) => dot.band === index)
    if (own.length === 0) return []
    const until = bands[index + 1]?.fromVelocity ?? 128
    return [{ x: x((band.fromVelocity + until) / 2), y: y(own.reduce((sum, dot) => sum + dot.db, 0) / own.length) }]
  })
  const label = { fill: palette.muted, fontSize: 11, fontFamily: fonts.figures }
  return (
    <View onLayout={(event) => setWidth(event.nativeEvent.layout.width)}>
      <Svg width={width} height={height} role="img" aria-label={`${dots.length} hits on loudness against velocity, ${bands.length} bands`}>
        {bands.map((band, index) => {
          const until = bands[index + 1]?.fromVelocity ?? 128
          return (
            <Rect
              key={band.id}
              x={x(band.fromVelocity)}
              y={0}
              width={x(until) - x(band.fromVelocity)}
              height={height - BOTTOM}
              fill={index % 2 === 0 ? palette.water : palette.faint}
            />
          )
        })}
        <Path
          d={means.map((point, i) => `${i === 0 ? 'M' : 'L'}${point.x} ${point.y}`).join('')}
          stroke={palette.kelp}
          strokeWidth={1.5}
          fill="none"
        />
        {dots.map((dot, i) => (
          <Circle key={i} cx={x(dot.velocity)} cy={y(dot.db)} r={3.5} fill={palette.waterInk} />
        ))}
        <Line x1={LEFT} x2={width - 4} y1={height - BOTTOM} y2={height - BOTTOM} stroke={palette.line} />
        <SvgText {...label} x={0} y={y(high - 1) + 8}>
          {`${high - 1} dB`}
        </SvgText>
        <SvgText {...label} x={0} y={y(low + 1)}>
          {`${low + 1} dB`}
        </SvgText>
        {bands.map((band) => (
          <SvgText key={band.id} {...label} x={x(band.fromVelocity) + 2} y={height - 4}>
            {band.fromVelocity}
          </SvgText>
        ))}
      </Svg>
    </View>
  )
}

/** The turns of a band side by side over its velocities. */
function dotsOf(band: Band, index: number, until: number, loudnessOf: ReadonlyMap<string, number>): Dot[] {
  return band.turns.flatMap((turn, i) => {
    const clip = Object.values(turn.clips).find((one): one is Clip => one !== 'intendedSilence')
    const db = clip && loudnessOf.get(clip.fromHit?.markerId ?? '')
    if (!clip || db === undefined) return []
    return [
      { band: index, db: db + clip.gainDb, velocity: band.fromVelocity + ((i + 0.5) / band.turns.length) * (until - band.fromVelocity) },
    ]
  })
}
