// Our own: the elements have nothing that is chosen by a drag over empty ground.
import { useState } from 'react'
import { View } from 'react-native'

import { usePalette } from '../theme/theme'
import { useElement } from './use-element'

/** A stretch of ground, px from the corner of the element. */
export interface Box {
  readonly left: number
  readonly top: number
  readonly width: number
  readonly height: number
}

interface Props {
  /** What was dragged over, once the pointer is let go, on the ground itself. */
  readonly onChoose: (box: Box, ground: HTMLElement) => void
}

/** A finger rests this long before it marks, so that it can still scroll. */
const REST_MS = 320
const MOVED_PX = 6

export const overlaps = (one: Box, other: Box): boolean =>
  one.left < other.left + other.width &&
  other.left < one.left + one.width &&
  one.top < other.top + other.height &&
  other.top < one.top + one.height

const boxOf = (x: number, y: number, toX: number, toY: number): Box => ({
  left: Math.min(x, toX),
  top: Math.min(y, toY),
  width: Math.abs(toX - x),
  height: Math.abs(toY - y),
})

/** Empty ground behind things: a drag over it, at once by mouse and after a rest by finger, marks what it goes over. */
export function Marquee({ onChoose }: Props) {
  const palette = usePalette()
  const [box, setBox] = useState<Box>()
  const ground = useElement({ onChoose, setBox }, attach)
  return (
    <View ref={ground} testID="ground" style={{ position: 'absolute', inset: 0 }}>
      {box && (
        <View
          style={{
            position: 'absolute',
            ...box,
            borderRadius: 6,
            borderWidth: 1.5,
            borderStyle: 'dashed',
            borderColor: palette.kelp,
            backgroundColor: palette.kelpWash,
            opacity: 0.7,
            pointerEvents: 'none',
          }}
        />
      )}
    </View>
  )
}

interface Told {
  readonly onChoose: (box: Box, ground: HTMLElement) => void
  readonly setBox: (box: Box | undefined) => void
}

/** Follows one pointer at a time; gives the way to let go of the element. */
function attach(element: HTMLElement, told: () => Told): () => void {
  let from: { id: number; x: number; y: number; isMarking: boolean } | undefined
  let rest: ReturnType<typeof setTimeout> | undefined
  const place = (event: PointerEvent): [number, number] => {
    const { left, top } = element.getBoundingClientRect()
    return [event.clientX - left, event.clientY - top]
  }
  const leave = () => {
    clearTimeout(rest)
    from = undefined
    told().setBox(undefined)
  }
  const mark = (id: number) => {
    if (from?.id !== id) return
    from.isMarking = true
    element.setPointerCapture(id)
    told().setBox(boxOf(from.x, from.y, from.x + 1, from.y + 1))
  }
  const down = (event: PointerEvent) => {
    if (event.target !== element || event.button > 0 || from) return
    const [x, y] = place(event)
    const id = event.pointerId
    from = { id, x, y, isMarking: false }
    if (event.pointerType === 'mouse') mark(id)
    else rest = setTimeout(() => mark(id), REST_MS)
  }
  const move = (event: PointerEvent) => {
    if (from?.id !== event.pointerId) return
    const [x, y] = place(event)
    if (from.isMarking) told().setBox(boxOf(from.x, from.y, x, y))
    else if (Math.hypot(x - from.x, y - from.y) > MOVED_PX) leave() // it scrolls
  }
  const up = (event: PointerEvent) => {
    if (from?.id !== event.pointerId) return
    const [x, y] = place(event)
    const box = boxOf(from.x, from.y, x, y)
    const isMeant = from.isMarking && event.type === 'pointerup' && Math.max(box.width, box.height) > MOVED_PX
    leave()
    if (isMeant) told().onChoose(box, element)
  }
  /** While it marks, a finger does not scroll. */
  const hold = (event: TouchEvent) => {
    if (from?.isMarking && event.cancelable) event.preventDefault()
  }
  const pairs = [['pointerdown', down], ['pointermove', move], ['pointerup', up], ['pointercancel', up]] as const // prettier-ignore
  for (const [type, listener] of pairs) element.addEventListener(type, listener)
  element.addEventListener('touchmove', hold, { passive: false })
  return () => {
    clearTimeout(rest)
    for (const [type, listener] of pairs) element.removeEventListener(type, listener)
    element.removeEventListener('touchmove', hold)
  }
}
