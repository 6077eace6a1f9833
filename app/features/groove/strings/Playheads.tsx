import { stringOf, stringBeats } from '@heliaster/core/groove'
import { useEffect, useEffectEvent, useRef } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { grooveBeat, grooveState } from '../../../audio/playing/groove-player'
import { Canvas } from '../../../ui/drawing/Canvas'
import { usePalette } from '../../../ui/theme/theme'
import { drawBead } from './draw-beads'
import { beadX, beadY, END_PX, lineY, RULER_PX, rowsIn, stepPx, stepX } from './strings-layout'
import type { Sight, StringsLayout } from './strings-layout'

interface Props {
  readonly layout: StringsLayout
  readonly sight: Sight
}

/** So long a bead stays lit after it sounded, beats. */
const LIT_BEATS = 0.2

/** Where each string is, and the beads that sound now, over the strings; drawn with every picture while the groove plays. */
export function Playheads({ layout, sight }: Props) {
  const palette = usePalette()
  const canvas = useRef<HTMLCanvasElement>(null)
  const isPlaying = useStore(grooveState, (state) => state.playing)
  const draw = useEffectEvent(() => {
    const on = canvas.current?.getContext('2d')
    if (!on) return
    const scale = window.devicePixelRatio || 1
    on.setTransform(scale, 0, 0, scale, 0, 0)
    on.clearRect(0, 0, sight.width, sight.height)
    const beat = grooveBeat()
    if (beat === undefined) return
    on.save()
    on.beginPath()
    on.rect(0, RULER_PX, sight.width, sight.height)
    on.clip()
    on.translate(-sight.left, -sight.top)
    const [first, last] = rowsIn(layout, sight)
    for (let row = first; row < last; row++) {
      const string = stringOf(layout.groove, layout.padIds[row]!)
      const around = stringBeats(layout.groove, string)
      const now = beat % around
      on.fillStyle = palette.coral
      on.fillRect(END_PX + now * layout.pxPerBeat - 1, lineY(row) - 9, 2, 13)
      for (const bead of string.beads) {
        const x = beadX(layout, string, bead)
        const ago = (((now - (x - END_PX) / layout.pxPerBeat) % around) + around) % around
        if (ago > LIT_BEATS || x > END_PX + around * layout.pxPerBeat) continue
        const look = { x, y: beadY(row, bead.velocity), lineY: lineY(row), stepX: stepX(layout, string, bead.step), stepPx: stepPx(layout, string) }
        drawBead(on, palette, bead, { ...look, isChosen: false, isSounding: true })
      }
    }
    on.restore()
  })
  useEffect(() => {
    let next = 0
    const loop = () => {
      draw()
      next = requestAnimationFrame(loop)
    }
    if (isPlaying) loop()
    else draw()
    return () => cancelAnimationFrame(next)
  }, [isPlaying])
  return (
    <View aria-hidden style={{ position: 'absolute', left: 0, top: 0, width: sight.width, height: sight.height, pointerEvents: 'none' }}>
      <Canvas ref={canvas} height={sight.height} label="Where the groove is" />
    </View>
  )
} // prettier-ignore
