import { useElement } from '../../../ui/pointer/use-element'

export interface WavePointerHandlers {
  /** A finger or button that went down and up again without moving. */
  onTap(x: number, y: number): void
  /** Whether a drag from here moves something (true), or pans. `isMarking`: Shift is held, or the finger rested before it moved. */
  canGrab(x: number, y: number, isMarking: boolean): boolean
  onGrabMove(x: number): void
  onGrabEnd(): void
  onPan(byX: number): void
  /** Two fingers or a wheel: a factor below 1 is closer. */
  onZoom(factor: number, x: number): void
  /** A wheel with Ctrl or Alt: a factor above 1 draws the wave taller. */
  onHeight(factor: number): void
}

const TAP_PX = 6
/** A finger that rests this long begins to mark. */
const REST_MS = 420
/** How long a view that was flung goes on, and how slow it has to be to stop. */
const GLIDE_MS = 320
const STILL_PX_PER_MS = 0.03

/** Fingers, mouse and wheel on the waveform: tap, pan, pinch, and drags of markers. */
export function useWavePointers(handlers: WavePointerHandlers) {
  return useElement(handlers, (element, told) => {
    element.style.touchAction = 'none'
    const points = new Map<number, { x: number; y: number }>()
    let mode: 'none' | 'maybeTap' | 'pan' | 'grab' | 'pinch' = 'none'
    let from = { x: 0, y: 0 }
    let speed = 0 // of a pan, px per ms
    let movedAt = 0
    let gliding = 0
    let resting: ReturnType<typeof setTimeout> | undefined
    const at = (event: MouseEvent) => {
      const box = element.getBoundingClientRect()
      return { x: event.clientX - box.left, y: event.clientY - box.top }
    }
    const spread = () => {
      const [a, b] = [...points.values()]
      return { distance: Math.max(8, Math.hypot(a.x - b.x, a.y - b.y)), middle: (a.x + b.x) / 2 }
    }
    const glide = (before: number) => {
      gliding = requestAnimationFrame((now) => {
        const ms = Math.min(50, now - before)
        told().onPan(speed * ms)
        speed *= Math.exp(-ms / GLIDE_MS)
        if (Math.abs(speed) > STILL_PX_PER_MS) glide(now)
      })
    }
    const down = (event: PointerEvent) => {
      if (event.button > 0) return
      cancelAnimationFrame(gliding)
      speed = 0
      element.setPointerCapture(event.pointerId)
      const point = at(event)
      points.set(event.pointerId, point)
      clearTimeout(resting)
      if (points.size === 2 && mode !== 'grab') mode = 'pinch'
      else if (points.size === 1) {
        from = point
        mode = told().canGrab(point.x, point.y, event.shiftKey) ? 'grab' : 'maybeTap'
        if (mode === 'maybeTap')
          resting = setTimeout(() => {
            if (mode === 'maybeTap' && told().canGrab(from.x, from.y, true)) mode = 'grab'
          }, REST_MS)
      }
    }
    const move = (event: PointerEvent) => {
      const before = points.get(event.pointerId)
      if (!before) return
      const point = at(event)
      if (mode === 'pinch' && points.size === 2) {
        const old = spread()
        points.set(event.pointerId, point)
        const now = spread()
        told().onPan(now.middle - old.middle)
        told().onZoom(old.distance / now.distance, now.middle)
        return
      }
      points.set(event.pointerId, point)
      if (mode === 'maybeTap' && Math.hypot(point.x - from.x, point.y - from.y) > TAP_PX) mode = 'pan'
      if (mode === 'grab') told().onGrabMove(point.x)
      if (mode === 'pan') {
        const ms = Math.max(1, event.timeStamp - movedAt)
        speed = 0.6 * speed + (0.4 * (point.x - before.x)) / ms
        told().onPan(point.x - before.x)
      }
      movedAt = event.timeStamp
    }
    const up = (event: PointerEvent) => {
      if (!points.delete(event.pointerId)) return
      clearTimeout(resting)
      if (mode === 'grab') told().onGrabEnd()
      if (mode === 'maybeTap' && event.type === 'pointerup') told().onTap(from.x, from.y)
      const isFlung = mode === 'pan' && points.size === 0 && event.timeStamp - movedAt < 60
      mode = points.size > 0 ? 'pan' : 'none'
      if (isFlung && Math.abs(speed) > STILL_PX_PER_MS) glide(performance.now())
    }
    const wheel = (event: WheelEvent) => {
      event.preventDefault()
      const { x } = at(event)
      if (event.ctrlKey || event.altKey) told().onHeight(Math.exp(-event.deltaY * 0.0025))
      else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) told().onPan(-(event.deltaX || event.deltaY))
      else told().onZoom(Math.exp(event.deltaY * 0.0025), x)
    }
    element.addEventListener('pointerdown', down)
    element.addEventListener('pointermove', move)
    element.addEventListener('pointerup', up)
    element.addEventListener('pointercancel', up)
    element.addEventListener('wheel', wheel, { passive: false })
    return () => {
      cancelAnimationFrame(gliding)
      clearTimeout(resting)
      element.removeEventListener('pointerdown', down)
      element.removeEventListener('pointermove', move)
      element.removeEventListener('pointerup', up)
      element.removeEventListener('pointercancel', up)
      element.removeEventListener('wheel', wheel)
    }
  })
}
