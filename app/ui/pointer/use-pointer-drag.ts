import { useElement } from './use-element'

export interface DragHandlers {
  /** Where the pointer went down, in px from the element's corner. Returning false leaves the pointer alone. */
  onStart(x: number, y: number, event: PointerEvent): void | false
  onMove(x: number, y: number, event: PointerEvent): void
  onEnd(x: number, y: number, event: PointerEvent): void
}

const MEANT_PX = 5

interface Ways {
  /** A finger that moves up or down scrolls, and changes nothing: the drag begins when it moves sideways, or where it is lifted. */
  readonly isSideways?: boolean
}

/** One drag on one element, by finger, pen or mouse. The element keeps the pointer until it is let go. */
export function usePointerDrag(handlers: DragHandlers, { isSideways = false }: Ways = {}) {
  return useElement(handlers, (element, told) => {
    element.style.touchAction = isSideways ? 'pan-y' : 'none'
    let dragging: number | undefined
    let touched: PointerEvent | undefined
    const at = (event: PointerEvent): [number, number] => {
      const box = element.getBoundingClientRect()
      return [event.clientX - box.left, event.clientY - box.top]
    }
    const begin = (event: PointerEvent) => {
      touched = undefined
      if (told().onStart(...at(event), event) === false) return
      dragging = event.pointerId
      element.setPointerCapture(event.pointerId)
    }
    const down = (event: PointerEvent) => {
      if (dragging !== undefined || touched || event.button > 0) return
      if (isSideways && event.pointerType === 'touch') touched = event
      else begin(event)
    }
    const move = (event: PointerEvent) => {
      if (event.pointerId === touched?.pointerId && Math.abs(event.clientX - touched.clientX) > MEANT_PX) begin(event)
      else if (event.pointerId === dragging) told().onMove(...at(event), event)
    }
    const up = (event: PointerEvent) => {
      if (event.pointerId === touched?.pointerId) {
        if (event.type === 'pointerup') begin(event)
        touched = undefined
      }
      if (event.pointerId !== dragging) return
      dragging = undefined
      told().onEnd(...at(event), event)
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
