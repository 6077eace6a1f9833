import type { Band, BandId } from '@heliaster/core/kit'
import { useRef } from 'react'
import { View } from 'react-native'

import { Text } from '../../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../../ui/theme/theme'
import { usePointerDrag } from '../../../../ui/pointer/use-pointer-drag'

interface Props {
  readonly bands: readonly Band[]
  readonly chosen: BandId | undefined
  readonly onChoose: (bandId: BandId) => void
  readonly onSlide: (bandId: BandId, fromVelocity: number) => void
  readonly onDone: () => void
}

/** So far from an edge, in px, a finger still takes it. */
const REACH_PX = TOUCH / 2

/** Velocity 1 to 127 with the edges of the bands, which are dragged; where bands cross-fade the line slopes. */
export function VelocityBar({ bands, chosen, onChoose, onSlide, onDone }: Props) {
  const palette = usePalette()
  const width = useRef(1)
  const grabbed = useRef<number>(undefined)
  const velocityOf = (x: number) => 1 + (x / width.current) * 127
  const share = (velocity: number) => (velocity - 1) / 127
  const held = (index: number, velocity: number) =>
    Math.round(Math.min((bands[index + 1]?.fromVelocity ?? 128) - 1, Math.max(bands[index - 1].fromVelocity + 1, velocity)))
  const drag = usePointerDrag({
    onStart(x) {
      const at = velocityOf(x)
      const near = bands.map((band, i) => [i, Math.abs(band.fromVelocity - at)] as const).slice(1)
      const [index, distance] = near.sort((a, b) => a[1] - b[1])[0] ?? [0, Infinity]
      grabbed.current = (distance / 127) * width.current < REACH_PX ? index : undefined
      const band = bands.findLast((one) => one.fromVelocity <= at) ?? bands[0]
      onChoose(grabbed.current === undefined ? band.id : bands[index].id)
    },
    onMove: (x) => grabbed.current !== undefined && onSlide(bands[grabbed.current].id, held(grabbed.current, velocityOf(x))),
    onEnd: () => grabbed.current !== undefined && onDone(),
  })
  return (
    <View
      ref={drag}
      aria-label="Velocities of the bands"
      role="group"
      onLayout={(event) => (width.current = event.nativeEvent.layout.width)}
      style={{ height: TOUCH + 14 }}
    >
      <View style={{ position: 'absolute', top: 22, left: 0, right: 0, height: 2, backgroundColor: palette.line }} />
      {bands.map((band, i) => {
        const to = bands[i + 1]?.fromVelocity ?? 128
        const left = share(band.fromVelocity)
        return (
          <View
            key={band.id}
            style={{
              position: 'absolute',
              top: 12,
              height: 20,
              left: `${left * 100}%`,
              width: `${(share(to) - left) * 100}%`,
              borderRadius: 10,
              backgroundColor: palette.kelp,
              opacity: band.turns.length === 0 ? 0.08 : 0.2 + (0.55 * (i + 1)) / bands.length,
              borderWidth: band.id === chosen ? 2 : 0,
              borderColor: palette.ink,
            }}
          />
        )
      })}
      {bands.slice(1).map((band, i) => {
        const widest = band.fromVelocity - bands[i].fromVelocity
        const blend = Math.min(band.blendVelocities, widest)
        return (
          <View
            key={band.id}
            role="slider"
            tabIndex={0}
            aria-label={`Band ${i + 2} begins at velocity`}
            aria-valuemin={bands[i].fromVelocity + 1}
            aria-valuemax={(bands[i + 2]?.fromVelocity ?? 128) - 1}
            aria-valuenow={band.fromVelocity}
            {...{
              onKeyDown: (event: { key: string; preventDefault(): void }) => {
                const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key]
                if (by === undefined) return
                event.preventDefault()
                onSlide(band.id, held(i + 1, band.fromVelocity + by))
                onDone()
              },
            }}
            style={{
              position: 'absolute',
              top: 4,
              left: `${share(band.fromVelocity) * 100}%`,
              marginLeft: -TOUCH / 2,
              width: TOUCH,
              alignItems: 'center',
            }}
          >
            {blend > 0 && (
              <View
                style={{
                  position: 'absolute',
                  top: 16,
                  right: TOUCH / 2,
                  height: 4,
                  width: (blend / 127) * width.current,
                  backgroundColor: palette.coral,
                }}
              />
            )}
            <View style={{ width: 4, height: 36, borderRadius: 2, backgroundColor: band.id === chosen ? palette.coral : palette.ink }} />
            <Text look="figures" tone="muted" style={{ fontSize: 11, lineHeight: 14 }}>
              {band.fromVelocity}
            </Text>
          </View>
        )
      })}
    </View>
  )
}
