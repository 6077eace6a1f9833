import { useElement, useLatest } from './use-element'

export interface DragHandlers {
  /** Where the pointer went down, in px from the element's corner. Returning false leaves the pointer alone. */
  onStart(x: number, y: number, event: PointerEvent): void | false
  onMove(x: number, y: number, event: PointerEvent): void
  onEnd(x: number, y: number, event: PointerEvent): void
}

/** One drag on one element, by finger, pen or mouse. The element keeps the pointer until it is let go. */
export function usePointerDrag(handlers: DragHandlers) {
  const latest = useLatest(handlers)
  return useElement((element) => {
    element.style.touchAction = 'none'
    let dragging: number | undefined
    const at = (event: PointerEvent): [number, number] => {
      const box = element.getBoundingClientRect()
      return [event.clientX - box.left, event.clientY - box.top]
    }
    const down = (event: PointerEvent) => {
      if (dragging !== undefined || event.button > 0) return
      if (latest.current.onStart(...at(event), event) === false) return
      dragging = event.pointerId
      element.setPointerCapture(event.pointerId)
    }
    const move = (event: PointerEvent) => {
      if (event.pointerId === dragging) latest.current.onMove(...at(event), event)
    }
    const up = (event: PointerEvent) => {
      if (event.pointerId !== dragging) return
      dragging = undefined
      latest.current.onEnd(...at(event), event)
    }
    element.addEventListener('pointerdown', down)
    element.addEventListener('pointermove', move)
    element.addEventListener('pointerup', up)
    element.addEventListener('pointercancel', up)
    return () => {
      element.removeEventListener('pointerdown', down)
      element.removeEventListener('pointermove', move)
      element.removeEventListener('pointerup', up)
      element.removeEventListener('pointercancel', up)
    }
  })
}
