import { bandHz, SPECTRUM_HZ } from '@heliaster/core/cut'
import type { OwnSettings, PadSettings } from '@heliaster/core/kit'
import type { FilterSetting } from '@heliaster/core/shaping'
import { useRef, useState } from 'react'
import { View } from 'react-native'
import Svg, { G, Line, Path, Text as SvgText } from 'react-native-svg'

import { PointMark } from '../../../ui/controls/PointMark'
import { usePointerDrag } from '../../../ui/pointer/use-pointer-drag'
import { fonts, usePalette } from '../../../ui/theme/theme'
import type { DrawnHit } from '../chart/use-drawn-hit'
import { filterNames, filterOf, filterWords, movedFilter, pointOf, togetherDb } from './filter-moves'
import type { FilterName } from './filter-moves'

interface Props {
  readonly settings: PadSettings
  readonly drawn: DrawnHit | undefined
  readonly onChange: (own: OwnSettings) => void
  readonly onDone: () => void
  readonly heightPx?: number
}

const USUAL_PX = 190
/** The spectrum's range below the loudest of the clip, dB; filters have the same px for a dB, round the middle. */
const RANGE_DB = 72
const HEAD_DB = 6
const MARKS_HZ = [50, 200, 1000, 5000] as const
const NEAR_PX = 30
const KEY_CENTS = 100
const KEY_DB = 0.5
const CURVE_POINTS = 120

interface Box {
  readonly width: number
  readonly height: number
}

/** What the hit is made of, before and after it is shaped, and its filters over it: their points are dragged. */
export function SpectrumChart({ settings, drawn, onChange, onDone, heightPx: height = USUAL_PX }: Props) {
  const palette = usePalette()
  const [width, setWidth] = useState(0)
  const [chosen, choose] = useState<FilterName>('filter1')
  const held = useRef<{ name: FilterName; from: FilterSetting; x: number; y: number }>(undefined)
  const octaves = Math.log2(SPECTRUM_HZ[1] / SPECTRUM_HZ[0])
  const xOf = (hz: number) => (Math.log2(hz / SPECTRUM_HZ[0]) / octaves) * width
  const perDb = height / RANGE_DB
  const yOf = (db: number) => height / 2 - db * perDb
  const points = filterNames.flatMap((name) => {
    const filter = filterOf(settings, name)
    if (filter.kind === 'off') return []
    const { hz, db } = pointOf(filter)
    return [{ name, filter, x: xOf(hz), y: Math.min(height - 8, Math.max(8, yOf(db))) }]
  })
  const drag = usePointerDrag({
    onStart(x, y) {
      const far = points.map((point) => Math.hypot(point.x - x, point.y - y))
      const nearest = points[far.indexOf(Math.min(...far))]
      if (!nearest || Math.min(...far) > NEAR_PX) return false
      held.current = { name: nearest.name, from: nearest.filter, x, y }
      choose(nearest.name)
      return undefined
    },
    onMove(x, y) {
      if (!held.current) return
      const { name, from } = held.current
      onChange(movedFilter(name, from, ((x - held.current.x) / width) * octaves * 1200, (held.current.y - y) / perDb))
    },
    onEnd() {
      held.current = undefined
      onDone()
    },
  })
  const nudge = (name: FilterName, filter: FilterSetting, byX: number, byY: number) => {
    onChange(movedFilter(name, filter, byX * KEY_CENTS, byY * KEY_DB))
    onDone()
  }
  return (
    <View
      ref={drag}
      role="group"
      aria-label="Spectrum of the hit, with its filters"
      onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}
      style={{ height, borderRadius: 10, overflow: 'hidden', backgroundColor: palette.surface }}
    >
      <Svg width={width} height={height} aria-hidden style={{ position: 'absolute' }}>
        {drawn && <Path d={spectrumPath(drawn.spectrumDb, topOf(drawn), { width, height })} fill={palette.water} />}
        {drawn && (
          <Path
            d={spectrumPath(drawn.clipSpectrumDb, topOf(drawn), { width, height })}
            fill="none"
            stroke={palette.muted}
            strokeDasharray="2 3"
          />
        )}
        {MARKS_HZ.map((hz) => (
          <G key={hz}>
            <Line x1={xOf(hz)} x2={xOf(hz)} y1={0} y2={height} stroke={palette.line} />
            <SvgText x={xOf(hz) + 4} y={height - 6} fontFamily={fonts.figures} fontSize={11} fill={palette.ink}>
              {hz < 1000 ? `${hz} Hz` : `${hz / 1000} kHz`}
            </SvgText>
          </G>
        ))}
        {points.length > 0 && (
          <Path d={curvePath((hz) => yOf(togetherDb(settings, hz)), { width, height })} fill="none" stroke={palette.kelp} strokeWidth={2} />
        )}
      </Svg>
      {points.map(({ name, filter, x, y }) => (
        <PointMark
          key={name}
          x={x}
          y={y}
          label={name === 'filter1' ? 'Filter' : 'Second filter'}
          words={filterWords(filter)}
          isChosen={name === chosen}
          onFocus={() => choose(name)}
          onMove={(byX, byY) => nudge(name, filter, byX, byY)}
        />
      ))}
    </View>
  )
}

/** The loudest band of either, with a little room above it. */
function topOf({ spectrumDb, clipSpectrumDb }: DrawnHit): number {
  return Math.max(-60, ...clipSpectrumDb, ...spectrumDb) + HEAD_DB
}

function spectrumPath(bands: Float32Array, topDb: number, { width, height }: Box): string {
  const y = (db: number) => Math.min(height, ((topDb - Math.max(topDb - RANGE_DB, db)) / RANGE_DB) * height).toFixed(1)
  const line = Array.from(bands, (db, i) => `${(((i + 0.5) / bands.length) * width).toFixed(1)} ${y(db)}`)
  return `M0 ${height}L${line.join('L')}L${width} ${height}Z`
}

function curvePath(yOf: (hz: number) => number, { width, height }: Box): string {
  const at = (i: number) => bandHz(i - 0.5, CURVE_POINTS)
  return Array.from({ length: CURVE_POINTS + 1 }, (_, i) => {
    const y = Math.min(height + 4, Math.max(-4, yOf(at(i))))
    return `${i === 0 ? 'M' : 'L'}${((i / CURVE_POINTS) * width).toFixed(1)} ${y.toFixed(1)}`
  }).join('')
}
