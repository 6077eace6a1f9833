import { bendToK, bent } from '@heliaster/core/engine'
import { stretchOf } from '@heliaster/core/kit'
import type { Envelope, PadSettings, Shape } from '@heliaster/core/kit'
import { envelopeAt, sinkingsOf, usefulHz } from '@heliaster/core/shaping'
import type { Chosen, SnapPlaces } from '@heliaster/core/shaping'
import { G, Line, Path, Rect, Text as SvgText } from 'react-native-svg'

import { fonts, usePalette } from '../../../ui/theme/theme'
import type { Layer } from '@heliaster/core/shaping'
import { share } from './tide-geometry'
import type { Geometry } from './tide-geometry'
import type { DrawnHit } from './use-drawn-hit'

interface LineProps {
  readonly envelope: Envelope
  readonly layer: Layer
  readonly geometry: Geometry
  readonly scale?: number
  readonly active: boolean
}

export function EnvelopeLine({ envelope, layer, geometry, scale = 1, active }: LineProps) {
  const palette = usePalette()
  const { seconds } = geometry
  if (envelope.points.length === 0)
    return layer === 'pitch' ? (
      <Path
        d={line(geometry, [
          [0, 0],
          [seconds, 0],
        ])}
        stroke={palette.muted}
        strokeWidth={1}
        strokeDasharray="2 5"
      />
    ) : null
  const path = traced(envelope, layer, seconds, scale)
  const color = layer === 'level' ? palette.kelp : layer === 'pitch' ? palette.coral : palette.waterInk
  return (
    <>
      <Path d={line(geometry, path)} stroke={color} strokeWidth={active ? 2.5 : 1.25} fill="none" opacity={active ? 1 : 0.55} />
      {layer === 'level' && (
        <Path
          d={line(
            geometry,
            path.map(([at, across]) => [at, -across] as const),
          )}
          stroke={color}
          strokeWidth={1}
          fill="none"
          opacity={active ? 0.6 : 0.35}
        />
      )}
    </>
  )
}

/** The envelope as the engine runs it, bends and all. */
export function traced(envelope: Envelope, layer: Layer, seconds: number, scale: number): [number, number][] {
  const { points } = envelope
  const path: [number, number][] = [[0, share(points[0].value, layer)]]
  points.forEach((to, index) => {
    const from = points[index - 1]
    for (let i = 1; from && i < 24; i++) {
      const u = i / 24
      path.push([(from.seconds + (to.seconds - from.seconds) * u) * scale, share(bent(from.value, to.value, u, bendToK(to.bend)), layer)])
    }
    path.push([to.seconds * scale, share(to.value, layer)])
  })
  path.push([Math.max(seconds, path[path.length - 1][0]), share(points[points.length - 1].value, layer)])
  return path
}

function line(geometry: Geometry, path: readonly (readonly [number, number])[]): string {
  return `M ${path
    .map(([at, across]) =>
      geometry
        .place(at, across)
        .map((n) => n.toFixed(1))
        .join(' '),
    )
    .join(' L ')}`
}

const STEPS = [0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2]

interface Grounded {
  readonly geometry: Geometry
}

export function TimeMarks({ geometry }: Grounded) {
  const palette = usePalette()
  const { seconds, isWide } = geometry
  const step = STEPS.find((one) => seconds / one <= 7) ?? 5
  const marks = Array.from({ length: Math.floor(seconds / step + 1e-6) }, (_, i) => (i + 1) * step)
  return marks.map((at) => {
    const [x, y] = geometry.place(at, 0)
    return (
      <G key={at}>
        <Line
          x1={isWide ? x : 0}
          x2={isWide ? x : geometry.width}
          y1={isWide ? 0 : y}
          y2={isWide ? geometry.height : y}
          stroke={palette.faint}
          strokeWidth={1}
        />
        <SvgText x={isWide ? x + 4 : 8} y={isWide ? geometry.height - 6 : y - 4} fontFamily={fonts.figures} fontSize={11} fill={palette.muted}>
          {isWide && x > geometry.width - 56 ? '' : at < 1 ? `${Math.round(at * 1000)} ms` : `${at.toFixed(1)} s`}
        </SvgText>
      </G>
    )
  }) // prettier-ignore
}

/** A stretch of time over all values, px. */
function bandOf({ place, isWide, width, height }: Geometry, from: number, to: number) {
  const [[x1, y1], [x2, y2]] = [place(from, 0), place(to, 0)]
  return isWide ? { x: x1, width: x2 - x1, y: 0, height } : { x: 0, width, y: y1, height: y2 - y1 }
}

interface WaterProps extends Grounded {
  readonly baseHz: number | undefined
  readonly family: PadSettings['family']
}

/** The pitch a family is useful at, where the pitch of the hit is known. */
export function UsefulWater({ baseHz, family, geometry }: WaterProps) {
  const palette = usePalette()
  const { isWide } = geometry
  const range = usefulHz(family)
  if (!range || !baseHz) return null
  const [low, high] = range.map((hz) => share(1200 * Math.log2(hz / baseHz), 'pitch'))
  if (high - low < 0.001) return null
  const [x1, y1] = geometry.place(0, low)
  const [x2, y2] = geometry.place(0, high)
  const box = isWide ? { x: 0, width: geometry.width, y: y2, height: y1 - y2 } : { x: x1, width: x2 - x1, y: 0, height: geometry.height }
  return (
    <>
      <Rect {...box} fill={palette.kelpWash} />
      <SvgText x={isWide ? 8 : x1 + 4} y={isWide ? y2 + 14 : geometry.height - 8} fontFamily={fonts.figures} fontSize={11} fill={palette.ink}>
        {`${range[0]}-${range[1]} Hz`}
      </SvgText>
    </>
  ) // prettier-ignore
}

interface SinkingProps extends Grounded {
  readonly drawn: DrawnHit | undefined
  readonly baseHz: number | undefined
  readonly shape: Shape
}

/** The pitch of a hit along time, Hz, where it is known; `baseHz` is where its envelope stands at 0. */
export function pitchAlong(shape: Shape, baseHz: number): (seconds: number) => number {
  const { pitch } = shape.envelopes
  const scale = stretchOf(shape, 'pitch')
  return (seconds) => (pitch.points.length === 0 ? baseHz : baseHz * 2 ** (envelopeAt(pitch, seconds / scale) / 1200))
}

/** Where the pitch is too deep to be heard while the level is up. */
export function Sinkings({ drawn, baseHz, shape, geometry }: SinkingProps) {
  const palette = usePalette()
  if (!drawn || !baseHz) return null
  const found = sinkingsOf(drawn.levels, drawn.seconds, pitchAlong(shape, baseHz))
  return found.map(({ fromSeconds, toSeconds }) => (
    <Rect key={fromSeconds} {...bandOf(geometry, fromSeconds, toSeconds)} fill={palette.coral} fillOpacity={0.18} />
  ))
}

/** Where points are drawn to: when the hit is loudest, and when it has died away. */
export function SnapMarks({ snaps, geometry }: Grounded & { readonly snaps: SnapPlaces }) {
  const palette = usePalette()
  const marks = [
    ['attack', snaps.attackSeconds],
    ['end', snaps.endSeconds],
  ] as const
  return marks.map(([word, at]) => {
    if (at > geometry.seconds) return null
    const { x, y, width, height } = bandOf(geometry, at, at)
    return (
      <G key={word}>
        <Line x1={x} y1={y} x2={x + width} y2={y + height} stroke={palette.kelp} strokeDasharray="4 3" />
        <SvgText x={x + 4} y={geometry.isWide ? 14 : y - 4} fontFamily={fonts.figures} fontSize={11} fill={palette.kelp}>
          {word}
        </SvgText>
      </G>
    )
  })
}

interface PitchWordsProps extends Grounded {
  readonly envelope: Envelope
  readonly baseHz: number | undefined
  readonly scale: number
  readonly chosen: Chosen
}

/** Most points that all have room for their pitch; of more, only the chosen ones say it. */
const TOLD_POINTS = 5

/** The pitch at each point. */
export function PitchWords({ envelope: { points }, baseHz, geometry, scale, chosen }: PitchWordsProps) {
  const palette = usePalette()
  return points.map(({ seconds, value }, index) => {
    if (seconds * scale > geometry.seconds || (points.length > TOLD_POINTS && !chosen.includes(index))) return null
    const [x, y] = geometry.place(seconds * scale, share(value, 'pitch'))
    return (
      <SvgText key={index} x={Math.min(geometry.width - 60, x + 14)} y={Math.max(14, y - 8)} fontFamily={fonts.figures} fontSize={11} fill={palette.ink}>
        {baseHz ? `${(baseHz * 2 ** (value / 1200)).toFixed(0)} Hz` : `${(value / 100).toFixed(1)} st`}
      </SvgText>
    )
  }) // prettier-ignore
}
