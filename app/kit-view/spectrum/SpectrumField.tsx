import { bandHz, SPECTRUM_HZ } from '@heliaster/core/cut'
import { useRef, useState } from 'react'
import { View } from 'react-native'
import Svg, { G, Line, Path, Text as SvgText } from 'react-native-svg'

import { PointMark } from '../../ui/controls/PointMark'
import { usePointerDrag } from '../../ui/pointer/use-pointer-drag'
import { fonts, usePalette } from '../../ui/theme/theme'

/** A filter's point over a spectrum. */
export interface SpectrumPoint<Key extends string, Setting> {
  readonly key: Key
  readonly label: string
  /** What it says of itself, for who cannot see where it is. */
  readonly words: string
  readonly hz: number
  readonly db: number
  /** What it stands for as it is now: a drag moves it from there. */
  readonly setting: Setting
}

interface Props<Key extends string, Setting> {
  readonly label: string
  readonly heightPx?: number
  /** dB in bands from 20 Hz to 20 kHz: as it was, and as it is. */
  readonly before: Float32Array | undefined
  readonly after: Float32Array | undefined
  readonly points: readonly SpectrumPoint<Key, Setting>[]
  /** What all points together do to a frequency, dB. */
  readonly curveDb: (hz: number) => number
  readonly onChoose?: (key: Key) => void
  /** A point was moved from its setting, sideways and upwards. */
  readonly onMove: (key: Key, from: Setting, byCents: number, byDb: number) => void
  readonly onDone: () => void
}

const USUAL_PX = 190
/** The spectrum's range below the loudest of the two, dB; points have the same px for a dB, round the middle. */
const RANGE_DB = 72
const HEAD_DB = 6
const MARKS_HZ = [50, 200, 1000, 5000] as const
const NEAR_PX = 30
const KEY_CENTS = 100
const KEY_DB = 0.5
const CURVE_POINTS = 120
const OCTAVES = Math.log2(SPECTRUM_HZ[1] / SPECTRUM_HZ[0])

/** What a sound is made of, before and after, and the filters between over it: their points are dragged, or moved by keys. */
export function SpectrumField<Key extends string, Setting>(props: Props<Key, Setting>) {
  const { label, heightPx: height = USUAL_PX, before, after, curveDb, onMove, onDone } = props
  const palette = usePalette()
  const [width, setWidth] = useState(0)
  const [chosen, setChosen] = useState<Key>()
  const held = useRef<{ key: Key; from: Setting; x: number; y: number }>(undefined)
  const xOf = (hz: number) => (Math.log2(hz / SPECTRUM_HZ[0]) / OCTAVES) * width
  const perDb = height / RANGE_DB
  const yOf = (db: number) => height / 2 - db * perDb
  const points = props.points.map((point) => ({ ...point, x: xOf(point.hz), y: Math.min(height - 8, Math.max(8, yOf(point.db))) }))
  const choose = (key: Key) => {
    setChosen(key)
    props.onChoose?.(key)
  }
  const drag = usePointerDrag({
    onStart(x, y) {
      const far = points.map((point) => Math.hypot(point.x - x, point.y - y))
      const nearest = points[far.indexOf(Math.min(...far))]
      if (!nearest || Math.min(...far) > NEAR_PX) return false
      held.current = { key: nearest.key, from: nearest.setting, x, y }
      choose(nearest.key)
      return undefined
    },
    onMove(x, y) {
      if (!held.current) return
      const { key, from } = held.current
      onMove(key, from, ((x - held.current.x) / width) * OCTAVES * 1200, (held.current.y - y) / perDb)
    },
    onEnd() {
      held.current = undefined
      onDone()
    },
  })
  const box = { width, height }
  const top = topOf(before, after)
  return (
    <View
      ref={drag}
      role="group"
      aria-label={label}
      onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}
      style={{ height, borderRadius: 10, overflow: 'hidden', backgroundColor: palette.surface }}
    >
      <Svg width={width} height={height} aria-hidden style={{ position: 'absolute' }}>
        {after && <Path d={spectrumPath(after, top, box)} fill={palette.water} />}
        {before && <Path d={spectrumPath(before, top, box)} fill="none" stroke={palette.muted} strokeDasharray="2 3" />}
        {MARKS_HZ.map((hz) => (
          <G key={hz}>
            <Line x1={xOf(hz)} x2={xOf(hz)} y1={0} y2={height} stroke={palette.line} />
            <SvgText x={xOf(hz) + 4} y={height - 6} fontFamily={fonts.figures} fontSize={11} fill={palette.ink}>
              {hz < 1000 ? `${hz} Hz` : `${hz / 1000} kHz`}
            </SvgText>
          </G>
        ))}
        {points.length > 0 && <Path d={curvePath((hz) => yOf(curveDb(hz)), box)} fill="none" stroke={palette.kelp} strokeWidth={2} />}
      </Svg>
      {points.map(({ key, label: name, words, x, y, setting }) => (
        <PointMark
          key={key}
          x={x}
          y={y}
          label={name}
          words={words}
          isChosen={key === (chosen ?? points[0]!.key)}
          onFocus={() => choose(key)}
          onMove={(byX, byY) => {
            onMove(key, setting, byX * KEY_CENTS, byY * KEY_DB)
            onDone()
          }}
        />
      ))}
    </View>
  )
}

interface Box {
  readonly width: number
  readonly height: number
}

/** The loudest band of either, with a little room above it. */
function topOf(before: Float32Array | undefined, after: Float32Array | undefined): number {
  return Math.max(-60, ...(before ?? []), ...(after ?? [])) + HEAD_DB
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
