import { stretchOf } from '@heliaster/core/kit'
import type { PadSettings, Shape } from '@heliaster/core/kit'
import { useRef, useState } from 'react'
import { View } from 'react-native'
import Svg, { Circle, G, Path, Text as SvgText } from 'react-native-svg'

import { fonts, usePalette } from '../../../ui/theme/theme'
import { usePointerDrag } from '../../../ui/pointer/use-pointer-drag'
import type { Layer } from '@heliaster/core/shaping'
import { createGeometry, share, valueOf } from './tide-geometry'
import type { Geometry } from './tide-geometry'
import { EnvelopeLine, TimeMarks, UsefulWater } from './TideMarks'
import type { DrawnHit } from './use-drawn-hit'

interface Props {
  /** Time runs to the right; else down the screen. */
  readonly isWide: boolean
  /** As high as its place without it. */
  readonly heightPx?: number
  /** It is only looked at: a finger on it changes nothing. */
  readonly isStill?: boolean
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
  const { points } = shape.envelopes[layer]
  const scale = stretchOf(shape, layer)

  const ref = usePointerDrag({
    onStart(x, y) {
      if (props.isStill) return false
      const index = nearest(
        points.map((one) => geometry.place(one.seconds * scale, share(one.value, layer))),
        x,
        y,
      )
      if (index !== undefined) {
        held.current = { index, moved: false }
        setHeldSeconds(seconds)
        props.onPoint(index)
        return undefined
      }
      held.current = undefined
      if (points.length > 0) {
        const at = geometry.read(x, y)
        props.onAdd(at.seconds / scale, valueOf(at.share, layer))
      }
      return undefined
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
      aria-label={`Tide chart, ${seconds.toFixed(2)} s${props.isStill ? '' : '; points can be typed below'}`}
      onLayout={(event) => setBox({ width: event.nativeEvent.layout.width, height: event.nativeEvent.layout.height })}
      style={{
        height: props.heightPx,
        flex: props.heightPx === undefined ? 1 : undefined,
        borderRadius: 12,
        overflow: 'hidden',
        backgroundColor: palette.surface,
      }}
    >
      {box.width > 0 && (
        <Svg width={box.width} height={box.height}>
          {layer === 'pitch' && <UsefulWater baseHz={props.baseHz} family={props.family} geometry={geometry} isWide={isWide} />}
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
          <EnvelopeLine
            envelope={shape.envelopes.pitch}
            layer="pitch"
            geometry={geometry}
            seconds={seconds}
            scale={stretchOf(shape, 'pitch')}
            active={layer === 'pitch'}
          />
          <EnvelopeLine
            envelope={shape.envelopes.level}
            layer="level"
            geometry={geometry}
            seconds={seconds}
            scale={stretchOf(shape, 'level')}
            active={layer === 'level'}
          />
          {(layer === 'filter1' || layer === 'filter2') && (
            <EnvelopeLine envelope={shape.envelopes[layer]} layer={layer} geometry={geometry} seconds={seconds} scale={scale} active />
          )}
          {(props.isStill ? [] : points).map((one, index) => {
            const [x, y] = geometry.place(one.seconds * scale, share(one.value, layer))
            return (
              <G key={index}>
                <Circle
                  cx={x}
                  cy={y}
                  r={index === point ? 11 : 8}
                  fill={index === point ? palette.coral : palette.raised}
                  stroke={layer === 'level' ? palette.kelp : layer === 'pitch' ? palette.coral : palette.waterInk}
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

function pitchWords(cents: number, baseHz: number | undefined): string {
  return baseHz ? `${(baseHz * 2 ** (cents / 1200)).toFixed(0)} Hz` : `${(cents / 100).toFixed(1)} st`
}

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
