import { useElement } from './use-element'

export interface TouchHandlers {
  /** A finger, pen or button went down: where, in px from the element's corner, and within which size. */
  onDown(touch: Touch): void
  /** It moved while it was down. */
  onMove?(touch: Touch): void
  /** It came up, or can be told of no longer. */
  onUp(id: number): void
}

export interface Touch {
  /** Tells fingers apart. */
  readonly id: number
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly event: PointerEvent
}

interface Ways {
  /** A finger that slides off the element is followed until it is lifted. */
  readonly keepsPointer?: boolean
}

/** Every finger on an element for itself, as many as there are. What is down when the element goes is let go. */
export function useTouches(handlers: TouchHandlers, { keepsPointer = false }: Ways = {}) {
  return useElement(handlers, (element, told) => {
    element.style.touchAction = 'none'
    const down = new Set<number>()
    const touchOf = (event: PointerEvent): Touch => {
      const box = element.getBoundingClientRect()
      const { width, height } = box
      return { id: event.pointerId, x: event.clientX - box.left, y: event.clientY - box.top, width, height, event }
    }
    const onDown = (event: PointerEvent) => {
      if (event.button > 0) return
      down.add(event.pointerId)
      if (keepsPointer) element.setPointerCapture(event.pointerId)
      told().onDown(touchOf(event))
    }
    const onMove = (event: PointerEvent) => {
      if (down.has(event.pointerId)) told().onMove?.(touchOf(event))
    }
    const onUp = (event: PointerEvent) => {
      if (down.delete(event.pointerId)) told().onUp(event.pointerId)
    }
    const ups = ['pointerup', 'pointercancel', 'pointerleave'] as const
    element.addEventListener('pointerdown', onDown)
    element.addEventListener('pointermove', onMove)
    for (const type of ups) element.addEventListener(type, onUp)
    return () => {
      element.removeEventListener('pointerdown', onDown)
      element.removeEventListener('pointermove', onMove)
      for (const type of ups) element.removeEventListener(type, onUp)
      for (const id of down) told().onUp(id)
    }
  })
}
