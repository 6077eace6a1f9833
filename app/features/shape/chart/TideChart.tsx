import { stretchOf } from '@heliaster/core/kit'
import type { PadSettings, Shape } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'
import Svg, { Path, Rect, Text as SvgText } from 'react-native-svg'

import { fonts, usePalette } from '../../../ui/theme/theme'
import { PointMarks } from './PointMarks'
import { SpectrumGround } from './SpectrumGround'
import { createGeometry, frequenciesOf } from './tide-geometry'
import type { Geometry } from './tide-geometry'
import { EnvelopeLine, PitchWords, Sinkings, SnapMarks, TimeMarks, UsefulWater } from './TideMarks'
import { useChartHand } from './use-chart-hand'
import { FIRST_SECONDS } from './use-drawn-hit'
import type { DrawnHit } from './use-drawn-hit'
import type { ChartWork } from './use-envelope'

interface Props {
  /** Time runs to the right; else down the screen. */
  readonly isWide: boolean
  /** As high as its place without it. */
  readonly heightPx?: number
  /** It is only looked at: a finger on it changes nothing. */
  readonly isStill?: boolean
  /** Only its beginning is shown, where kicks are made. */
  readonly isFirst?: boolean
  readonly drawn: DrawnHit | undefined
  /** Pitch of the hit where its envelope stands at 0. */
  readonly baseHz: number | undefined
  readonly shape: Shape
  readonly family: PadSettings['family']
  readonly work: ChartWork
  /** The hit's frequencies along time lie under it. */
  readonly showsSpectrum?: boolean
  /** Points are drawn to the hit's own places. */
  readonly isSnapping?: boolean
}

/**
 * The hit along time: down the screen on a phone, to the right on a wide one. Its width is the level as the engine makes it;
 * the envelopes are drawn on it, their points dragged, their ways bent.
 */
export function TideChart({
  isWide,
  isStill = false,
  isFirst = false,
  showsSpectrum = false,
  drawn,
  shape,
  work,
  isSnapping,
  ...props
}: Props) {
  const { layer, envelope } = work
  const palette = usePalette()
  const [box, setBox] = useState({ width: 0, height: 0 })
  /** While a point is held, the chart does not grow and shrink under it. */
  const [steady, setSteady] = useState<number>()
  const wanted = isFirst ? FIRST_SECONDS : (drawn?.seconds ?? 0.5)
  const geometry = createGeometry(isWide, box, steady ?? wanted)
  const scale = stretchOf(shape, layer)
  const onHold = (held: boolean) => setSteady(held ? geometry.seconds : undefined)
  const {
    ref,
    box: chosen,
    isHeld,
  } = useChartHand({ geometry, scale, isStill, snaps: isSnapping ? drawn?.snaps : undefined, work, onHold })
  const { seconds } = geometry
  const [lowHz, highHz] = frequenciesOf(layer, shape, props.baseHz)

  return (
    <View
      ref={ref}
      role={isStill ? 'img' : 'group'}
      aria-label={`Tide chart, ${drawn || isFirst ? `${seconds.toFixed(2)} s` : 'not drawn yet'}${isStill ? '' : '; points can be typed below'}`}
      onLayout={(event) => setBox({ width: event.nativeEvent.layout.width, height: event.nativeEvent.layout.height })}
      style={{
        height: props.heightPx,
        flex: props.heightPx === undefined ? 1 : undefined,
        borderRadius: 12,
        overflow: 'hidden',
        backgroundColor: palette.surface,
      }}
    >
      {box.width > 0 && drawn && showsSpectrum && <SpectrumGround drawn={drawn} geometry={geometry} lowHz={lowHz} highHz={highHz} />}
      {box.width > 0 && (
        <Svg width={box.width} height={box.height} aria-hidden style={{ position: 'absolute' }}>
          {layer === 'pitch' && <UsefulWater baseHz={props.baseHz} family={props.family} geometry={geometry} />}
          <Sinkings drawn={drawn} baseHz={props.baseHz} shape={shape} geometry={geometry} />
          <TimeMarks geometry={geometry} />
          {!drawn && <NotYet {...box} />}
          {drawn && <HitOutline drawn={drawn} geometry={geometry} isFirst={isFirst} isBare={showsSpectrum} />}
          {isSnapping && drawn && <SnapMarks snaps={drawn.snaps} geometry={geometry} />}
          {(['pitch', 'level'] as const).map(
            (name) =>
            <EnvelopeLine key={name} layer={name} envelope={shape.envelopes[name]} geometry={geometry} scale={stretchOf(shape, name)} active={layer === name} />, // prettier-ignore
          )}
          {(layer === 'filter1' || layer === 'filter2') && (
            <EnvelopeLine envelope={envelope} layer={layer} geometry={geometry} scale={scale} active />
          )}
          {!isStill && layer === 'pitch' && (
            <PitchWords envelope={envelope} baseHz={props.baseHz} geometry={geometry} scale={scale} chosen={work.chosen} />
          )}
          {chosen && <Rect {...chosen} fill={palette.kelpWash} fillOpacity={0.6} stroke={palette.kelp} strokeDasharray="3 3" />}
        </Svg>
      )}
      {box.width > 0 && !isStill && <PointMarks work={work} geometry={geometry} scale={scale} isHeld={isHeld} />}
    </View>
  )
}

function NotYet({ width, height }: { readonly width: number; readonly height: number }) {
  const palette = usePalette()
  return (
    <SvgText x={width / 2} y={height / 2 - 12} textAnchor="middle" fontFamily={fonts.text} fontSize={14} fill={palette.muted}>
      Drawing the hit
    </SvgText>
  )
}

interface OutlineProps {
  readonly drawn: DrawnHit
  readonly geometry: Geometry
  readonly isFirst: boolean
  /** Something lies under it that is to be seen. */
  readonly isBare: boolean
}

/** The hit: its level on both sides, or, seen from near, its wave. */
function HitOutline({ drawn, geometry, isFirst, isBare }: OutlineProps) {
  const palette = usePalette()
  if (isFirst) return <Path d={wave(drawn, geometry)} fill="none" stroke={palette.waterInk} strokeWidth={1.5} />
  return <Path d={outline(drawn, geometry)} fill={isBare ? 'none' : palette.water} stroke={palette.waterInk} strokeWidth={1} />
}

const HIGH = 0.92
const LEAST_PEAK = 0.05
const peakOf = (drawn: DrawnHit) => Math.max(LEAST_PEAK, ...drawn.levels)
const placed = (geometry: Geometry, seconds: number, across: number) =>
  geometry
    .place(seconds, across)
    .map((n) => n.toFixed(1))
    .join(' ')

function wave(drawn: DrawnHit, geometry: Geometry): string {
  const peak = peakOf(drawn)
  const step = FIRST_SECONDS / drawn.firstSamples.length
  return `M ${Array.from(drawn.firstSamples, (sample, i) => placed(geometry, i * step, (sample / peak) * HIGH)).join(' L ')}`
}

function outline(drawn: DrawnHit, geometry: Geometry): string {
  const peak = peakOf(drawn)
  const step = drawn.seconds / drawn.levels.length
  const side = (sign: number) =>
    Array.from(drawn.levels, (level, i) => placed(geometry, (i + 0.5) * step, sign * Math.max(0.004, (level / peak) * HIGH)))
  return `M ${[...side(1), ...side(-1).reverse()].join(' L ')} Z`
}
