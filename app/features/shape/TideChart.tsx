import type { Envelope, PadSettings, Shape } from '@heliaster/core/kit'
import { bendToK, bent } from '@heliaster/core/engine'
import { useRef, useState } from 'react'
import { View } from 'react-native'
import Svg, { Circle, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg'

import { fonts, usePalette } from '../../ui/theme'
import { usePointerDrag } from '../../ui/use-pointer-drag'
import { PITCH_RANGE_CENTS } from './envelope-edits'
import type { Layer } from './envelope-edits'
import type { DrawnHit } from './use-drawn-hit'

interface Props {
  readonly isWide: boolean
  readonly drawn: DrawnHit | undefined
  /** Pitch of the hit where its envelope stands at 0. */
  readonly baseHz: number | undefined
  readonly shape: Shape
  readonly family: PadSettings['family']
  readonly layer: Layer
  readonly point: number | undefined
  readonly onPoint: (index: number | undefined) => void
  readonly onMove: (index: number, seconds: number, value: number) => void
  readonly onMoved: () => void
  readonly onAdd: (seconds: number, value: number) => void
}

const REACH_PX = 26
/** Where the fundamental of a family usually lies, in Hz: the water that carries it. */
const USEFUL_HZ: Partial<Record<PadSettings['family'], [number, number]>> = {
  kick: [40, 60],
  tom: [80, 250],
  snare: [150, 280],
  bell: [400, 2000],
}

/**
 * The hit along time: down the screen on a phone, to the right on a wide one. Its width is the level as the engine
 * makes it; the envelopes are drawn on it and their points dragged. A tap beside the points makes a new one.
 */
export function TideChart(props: Props) {
  const { isWide, drawn, shape, layer, point } = props
  const palette = usePalette()
  const [box, setBox] = useState({ width: 0, height: 0 })
  const held = useRef<{ index: number; moved: boolean }>(undefined)
  const [heldSeconds, setHeldSeconds] = useState<number>()
  const seconds = heldSeconds ?? drawn?.seconds ?? 0.5
  const geometry = createGeometry(isWide, box, seconds)
  const { points } = shape[layer]
  const scale = layer === 'amp' ? shape.decayScale : 1

  const ref = usePointerDrag({
    onStart(x, y) {
      const index = nearest(
        points.map((one) => geometry.place(one.seconds * scale, share(one.value, layer))),
        x,
        y,
      )
      if (index !== undefined) {
        held.current = { index, moved: false }
        setHeldSeconds(seconds)
        props.onPoint(index)
        return
      }
      held.current = undefined
      if (points.length > 0) {
        const at = geometry.read(x, y)
        props.onAdd(at.seconds / scale, valueOf(at.share, layer))
      }
    },
    onMove(x, y) {
      if (!held.current) return
      held.current.moved = true
      const at = geometry.read(x, y)
      props.onMove(held.current.index, Math.max(0, at.seconds) / scale, valueOf(at.share, layer))
    },
    onEnd() {
      if (held.current?.moved) props.onMoved()
      held.current = undefined
      setHeldSeconds(undefined)
    },
  })

  return (
    <View
      ref={ref}
      role="img"
      aria-label={`Tide chart, ${seconds.toFixed(2)} s; points can be typed below`}
      onLayout={(event) => setBox({ width: event.nativeEvent.layout.width, height: event.nativeEvent.layout.height })}
      style={{
        height: isWide ? undefined : 268,
        flex: isWide ? 1 : undefined,
        borderRadius: 12,
        overflow: 'hidden',
        backgroundColor: palette.surface,
      }}
    >
      {box.width > 0 && (
        <Svg width={box.width} height={box.height}>
          {layer === 'pitch' && <UsefulWater {...props} geometry={geometry} />}
          <TimeMarks geometry={geometry} seconds={seconds} isWide={isWide} />
          {!drawn && (
            <SvgText
              x={box.width / 2}
              y={box.height / 2 - 12}
              textAnchor="middle"
              fontFamily={fonts.text}
              fontSize={14}
              fill={palette.muted}
            >
              Drawing the hit
            </SvgText>
          )}
          {drawn && <Path d={outline(drawn, geometry)} fill={palette.water} stroke={palette.waterInk} strokeWidth={1} />}
          <EnvelopeLine envelope={shape.pitch} layer="pitch" geometry={geometry} seconds={seconds} active={layer === 'pitch'} />
          <EnvelopeLine
            envelope={shape.amp}
            layer="amp"
            geometry={geometry}
            seconds={seconds}
            scale={shape.decayScale}
            active={layer === 'amp'}
          />
          {points.map((one, index) => {
            const [x, y] = geometry.place(one.seconds * scale, share(one.value, layer))
            return (
              <G key={index}>
                <Circle
                  cx={x}
                  cy={y}
                  r={index === point ? 11 : 8}
                  fill={index === point ? palette.coral : palette.raised}
                  stroke={layer === 'amp' ? palette.kelp : palette.coral}
                  strokeWidth={2.5}
                />
                {layer === 'pitch' && (
                  <SvgText
                    x={Math.min(box.width - 60, x + 14)}
                    y={Math.max(14, y - 8)}
                    fontFamily={fonts.figures}
                    fontSize={11}
                    fill={palette.ink}
                  >
                    {pitchWords(one.value, props.baseHz)}
                  </SvgText>
                )}
              </G>
            )
          })}
        </Svg>
      )}
    </View>
  )
}

/** The share across the chart, -1..1, that a value stands at. Levels grow from the middle, pitch passes through it. */
function share(value: number, layer: Layer): number {
  return layer === 'amp' ? value : Math.max(-1, Math.min(1, value / PITCH_RANGE_CENTS))
}

function valueOf(across: number, layer: Layer): number {
  return layer === 'amp' ? Math.min(1, Math.max(0, across)) : across * PITCH_RANGE_CENTS
}

function pitchWords(cents: number, baseHz: number | undefined): string {
  return baseHz ? `${(baseHz * 2 ** (cents / 1200)).toFixed(0)} Hz` : `${(cents / 100).toFixed(1)} st`
}

function createGeometry(isWide: boolean, { width, height }: { width: number; height: number }, seconds: number) {
  const pad = 20
  const along = (isWide ? width : height) - 2 * pad
  const half = (isWide ? height : width) / 2 - pad
  const middle = (isWide ? height : width) / 2
  return {
    width,
    height,
    middle,
    half,
    place(at: number, across: number): [number, number] {
      const a = pad + (at / seconds) * along
      return isWide ? [a, middle - across * half] : [middle + across * half, a]
    },
    read(x: number, y: number): { seconds: number; share: number } {
      const a = isWide ? x : y
      const b = isWide ? middle - y : x - middle
      return { seconds: ((a - pad) / along) * seconds, share: Math.max(-1, Math.min(1, b / half)) }
    },
  }
}
type Geometry = ReturnType<typeof createGeometry>

function nearest(places: readonly [number, number][], x: number, y: number): number | undefined {
  let best: number | undefined
  let least = REACH_PX
  places.forEach(([px, py], index) => {
    const away = Math.hypot(px - x, py - y)
    if (away < least) {
      least = away
      best = index
    }
  })
  return best
}

function outline(drawn: DrawnHit, geometry: Geometry): string {
  const peak = Math.max(0.05, ...drawn.levels)
  const step = drawn.seconds / drawn.levels.length
  const side = (sign: number) =>
    Array.from(drawn.levels, (level, i) =>
      geometry
        .place((i + 0.5) * step, sign * Math.max(0.004, (level / peak) * 0.92))
        .map((n) => n.toFixed(1))
        .join(' '),
    )
  return `M ${[...side(1), ...side(-1).reverse()].join(' L ')} Z`
}

interface LineProps {
  readonly envelope: Envelope
  readonly layer: Layer
  readonly geometry: Geometry
  readonly seconds: number
  readonly scale?: number
  readonly active: boolean
}

function EnvelopeLine({ envelope, layer, geometry, seconds, scale = 1, active }: LineProps) {
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
  const color = layer === 'amp' ? palette.kelp : palette.coral
  return (
    <>
      <Path d={line(geometry, path)} stroke={color} strokeWidth={active ? 2.5 : 1.25} fill="none" opacity={active ? 1 : 0.55} />
      {layer === 'amp' && (
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

function TimeMarks({ geometry, seconds, isWide }: { readonly geometry: Geometry; readonly seconds: number; readonly isWide: boolean }) {
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

/** The pitch a family is useful at, where the pitch of the hit is known. */
function UsefulWater({ baseHz, family, geometry, isWide }: Props & { readonly geometry: Geometry }) {
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
