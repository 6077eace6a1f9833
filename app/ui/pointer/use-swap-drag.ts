import { useElement, useLatest } from './use-element'

const MOVED_PX = 8
const REST_MS = 300

export interface SwapDragHandlers<Id extends string> {
  /** What is under the pointer while another is dragged; undefined when the drag is over. */
  onOver(over: Id | undefined): void
  onDrop(dragged: Id, onto: Id): void
}

/**
 * Things dragged onto each other: at once by mouse, after a rest by finger, so that a finger can still scroll. They say
 * who they are by a data attribute, `name`.
 */
export function useSwapDrag<Id extends string>(name: string, handlers: SwapDragHandlers<Id>) {
  const latest = useLatest(handlers)
  return useElement((element) => {
    let from: { id: Id; x: number; y: number; pointer: number } | undefined
    let isDragging = false
    let resting: ReturnType<typeof setTimeout> | undefined
    const idAt = (x: number, y: number) =>
      document.elementFromPoint(x, y)?.closest<HTMLElement>(`[data-${name}]`)?.dataset[name] as Id | undefined
    const down = (event: PointerEvent) => {
      const id = idAt(event.clientX, event.clientY)
      if (!id || event.button > 0 || from) return
      from = { id, x: event.clientX, y: event.clientY, pointer: event.pointerId }
      if (event.pointerType !== 'mouse') resting = setTimeout(() => (isDragging = from !== undefined), REST_MS)
    }
    const move = (event: PointerEvent) => {
      if (!from || event.pointerId !== from.pointer) return
      const moved = Math.hypot(event.clientX - from.x, event.clientY - from.y) > MOVED_PX
      if (!isDragging && moved && event.pointerType === 'mouse') isDragging = true
      else if (!isDragging && moved) return stop()
      if (isDragging) latest.current.onOver(idAt(event.clientX, event.clientY))
    }
    const stop = () => {
      clearTimeout(resting)
      from = undefined
      isDragging = false
      latest.current.onOver(undefined)
    }
    const up = (event: PointerEvent) => {
      if (!from || event.pointerId !== from.pointer) return
      const onto = isDragging && event.type === 'pointerup' ? idAt(event.clientX, event.clientY) : undefined
      if (onto && onto !== from.id) latest.current.onDrop(from.id, onto)
      stop()
    }
    const holdScroll = (event: TouchEvent) => isDragging && event.preventDefault()
    element.addEventListener('pointerdown', down)
    element.addEventListener('touchmove', holdScroll, { passive: false })
    window.addEventListener('pointermove', move)
    window.addEventListener('pointerup', up)
    window.addEventListener('pointercancel', up)
    return () => {
      clearTimeout(resting)
      element.removeEventListener('pointerdown', down)
      element.removeEventListener('touchmove', holdScroll)
      window.removeEventListener('pointermove', move)
      window.removeEventListener('pointerup', up)
      window.removeEventListener('pointercancel', up)
    }
  })
}
