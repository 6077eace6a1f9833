// Our own: it moves with each frame of the screen, past React, which the elements' progress cannot.
import { useEffect, useRef } from 'react'
import { View } from 'react-native'

import { usePalette } from '../theme/theme'
import { whileMoving } from './while-moving'

const LOWEST_DB = -54

/** A level on a line, from -54 dB to 0. `level` is asked each frame and never becomes state of the page. */
export function Meter({ level, label }: { readonly level: () => number; readonly label: string }) {
  const palette = usePalette()
  const bar = useRef<View>(null)
  const latest = useRef(level)
  useEffect(() => {
    latest.current = level
  })
  useEffect(() => {
    let shown = -1
    return whileMoving(() => {
      const db = 20 * Math.log10(latest.current() + 1e-6)
      const share = Math.round(Math.min(1, Math.max(0, 1 - db / LOWEST_DB)) * 100)
      const element = bar.current as unknown as HTMLElement | null
      const moves = element !== null && share !== shown
      if (moves) {
        element.style.width = `${share}%`
        element.style.backgroundColor = db > -0.3 ? palette.coral : palette.kelp
        shown = share
      }
      return moves
    })
  }, [palette])
  return (
    <View role="img" aria-label={label} style={{ height: 6, borderRadius: 3, backgroundColor: palette.faint, overflow: 'hidden' }}>
      <View ref={bar} style={{ height: 6, width: 0 }} />
    </View>
  )
}
