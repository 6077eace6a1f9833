import type { RefObject } from 'react'
import type { View } from 'react-native'

import { scrollAtEdge } from '../../../ui/pointer/scroll-at-edge'
import { useElement } from '../../../ui/pointer/use-element'
import { HIT_ROW_HEIGHT } from './HitRow'
import type { Verdict } from './HitRow'

/** Rows, from one through another, that are judged alike. */
export interface Painted {
  readonly verdict: Verdict
  readonly from: number
  readonly to: number
}

interface Handlers {
  /** The rows that the drag went over so far. */
  onPaint(painted: Painted): void
  /** It is let go of; nothing where it was taken away. */
  onDone(painted: Painted | undefined): void
}

/** A drag that begins on a sign of a row and goes down or up, by mouse or finger, judges row after row; a tap stays the sign's own. */
export function useJudgeDrag(handlers: Handlers): RefObject<View | null> {
  return useElement(handlers, attach)
}

interface Begun {
  readonly pointerId: number
  readonly content: HTMLElement
  readonly verdict: Verdict
  readonly from: number
  to: number
}

function attach(element: HTMLElement, told: () => Handlers): () => void {
  let drag: Begun | undefined
  const rowAt = (content: HTMLElement, y: number) => Math.floor((y - content.getBoundingClientRect().top) / HIT_ROW_HEIGHT)
  const isPaint = ({ from, to }: Begun) => from !== to
  const down = (event: PointerEvent) => {
    const sign = (event.target as HTMLElement).closest<HTMLElement>('[data-judge]')
    const content = sign?.closest<HTMLElement>('[data-rows]')
    if (!sign || !content || event.button > 0 || drag) return
    const from = rowAt(content, event.clientY)
    const verdict = sign.dataset.judge as Verdict
    drag = { pointerId: event.pointerId, content, verdict, from, to: from }
  }
  const move = (event: PointerEvent) => {
    if (drag?.pointerId !== event.pointerId) return
    const list = drag.content.parentElement
    const wasPaint = isPaint(drag)
    drag.to = rowAt(drag.content, event.clientY)
    if (!wasPaint && !isPaint(drag)) return
    if (!wasPaint) element.setPointerCapture(event.pointerId)
    if (list) scrollAtEdge(list, event.clientY)
    told().onPaint(drag)
  }
  const up = (event: PointerEvent) => {
    if (drag?.pointerId !== event.pointerId) return
    const done = drag
    drag = undefined
    if (isPaint(done) || element.hasPointerCapture(event.pointerId)) told().onDone(event.type === 'pointerup' ? done : undefined)
  }
  /** A finger on a sign judges, and does not scroll. */
  const hold = (event: TouchEvent) => {
    if (drag && event.cancelable) event.preventDefault()
  }
  const pairs = [['pointerdown', down], ['pointermove', move], ['pointerup', up], ['pointercancel', up]] as const // prettier-ignore
  for (const [type, listener] of pairs) element.addEventListener(type, listener)
  element.addEventListener('touchmove', hold, { passive: false })
  return () => {
    for (const [type, listener] of pairs) element.removeEventListener(type, listener)
    element.removeEventListener('touchmove', hold)
  }
}
