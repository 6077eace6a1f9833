import { bendToK, bent } from '@heliaster/core/engine'
import type { Envelope, PadSettings } from '@heliaster/core/kit'
import { G, Line, Path, Rect, Text as SvgText } from 'react-native-svg'

import { fonts, usePalette } from '../../../ui/theme/theme'
import type { Layer } from '@heliaster/core/shaping'
import { share } from './tide-geometry'
import type { Geometry } from './tide-geometry'

interface LineProps {
  readonly envelope: Envelope
  readonly layer: Layer
  readonly geometry: Geometry
  readonly seconds: number
  readonly scale?: number
  readonly active: boolean
}

export function EnvelopeLine({ envelope, layer, geometry, seconds, scale = 1, active }: LineProps) {
  const palette = usePalette()
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
function traced(envelope: Envelope, layer: Layer, seconds: number, scale: number): [number, number][] {
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

export function TimeMarks({
  geometry,
  seconds,
  isWide,
}: {
  readonly geometry: Geometry
  readonly seconds: number
  readonly isWide: boolean
}) {
  const palette = usePalette()
  const step = STEPS.find((one) => seconds / one <= 7) ?? 5
  const marks = Array.from({ length: Math.floor(seconds / step) }, (_, i) => (i + 1) * step)
  return (
    <>
      {marks.map((at) => {
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
            <SvgText
              x={isWide ? x + 4 : 8}
              y={isWide ? geometry.height - 6 : y - 4}
              fontFamily={fonts.figures}
              fontSize={11}
              fill={palette.muted}
            >
              {isWide && x > geometry.width - 56 ? '' : at < 1 ? `${Math.round(at * 1000)} ms` : `${at.toFixed(1)} s`}
            </SvgText>
          </G>
        )
      })}
    </>
  )
}

/** Where the fundamental of a family usually lies, in Hz: the water that carries it. */
const USEFUL_HZ: Partial<Record<PadSettings['family'], [number, number]>> = {
  kick: [40, 60],
  tom: [80, 250],
  snare: [150, 280],
  bell: [400, 2000],
}

interface WaterProps {
  readonly baseHz: number | undefined
  readonly family: PadSettings['family']
  readonly geometry: Geometry
  readonly isWide: boolean
}

/** The pitch a family is useful at, where the pitch of the hit is known. */
export function UsefulWater({ baseHz, family, geometry, isWide }: WaterProps) {
  const palette = usePalette()
  const range = USEFUL_HZ[family]
  if (!range || !baseHz) return null
  const cents = range.map((hz) => 1200 * Math.log2(hz / baseHz))
  const [low, high] = cents.map((value) => share(value, 'pitch'))
  if (high - low < 0.001) return null
  const [x1, y1] = geometry.place(0, low)
  const [x2, y2] = geometry.place(0, high)
  const box = isWide ? { x: 0, width: geometry.width, y: y2, height: y1 - y2 } : { x: x1, width: x2 - x1, y: 0, height: geometry.height }
  return (
    <>
      <Rect {...box} fill={palette.kelpWash} />
      <SvgText
        x={isWide ? 8 : x1 + 4}
        y={isWide ? y2 + 14 : geometry.height - 8}
        fontFamily={fonts.figures}
        fontSize={11}
        fill={palette.ink}
      >
        {`${range[0]}-${range[1]} Hz`}
      </SvgText>
    </>
  )
}
