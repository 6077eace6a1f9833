import { useElement, useLatest } from '../../ui/use-element'

export interface WavePointerHandlers {
  /** A finger or button that went down and up again without moving. */
  onTap(x: number, y: number): void
  /** Whether a drag from here moves something (true), or pans. */
  canGrab(x: number, y: number): boolean
  onGrabMove(x: number): void
  onGrabEnd(): void
  onPan(byX: number): void
  /** Two fingers or a wheel: a factor below 1 is closer. */
  onZoom(factor: number, x: number): void
}

const TAP_PX = 6

/** Fingers, mouse and wheel on the waveform: tap, pan, pinch, and drags of markers. */
export function useWavePointers(handlers: WavePointerHandlers) {
  const latest = useLatest(handlers)
  return useElement((element) => {
    element.style.touchAction = 'none'
    const points = new Map<number, { x: number; y: number }>()
    let mode: 'none' | 'maybeTap' | 'pan' | 'grab' | 'pinch' = 'none'
    let from = { x: 0, y: 0 }
    const at = (event: MouseEvent) => {
      const box = element.getBoundingClientRect()
      return { x: event.clientX - box.left, y: event.clientY - box.top }
    }
    const spread = () => {
      const [a, b] = [...points.values()]
      return { distance: Math.max(8, Math.hypot(a.x - b.x, a.y - b.y)), middle: (a.x + b.x) / 2 }
    }
    const down = (event: PointerEvent) => {
      if (event.button > 0) return
      element.setPointerCapture(event.pointerId)
      const point = at(event)
      points.set(event.pointerId, point)
      if (points.size === 2 && mode !== 'grab') mode = 'pinch'
      else if (points.size === 1) {
        from = point
        mode = latest.current.canGrab(point.x, point.y) ? 'grab' : 'maybeTap'
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
        latest.current.onPan(now.middle - old.middle)
        latest.current.onZoom(old.distance / now.distance, now.middle)
        return
      }
      points.set(event.pointerId, point)
      if (mode === 'maybeTap' && Math.hypot(point.x - from.x, point.y - from.y) > TAP_PX) mode = 'pan'
      if (mode === 'grab') latest.current.onGrabMove(point.x)
      if (mode === 'pan') latest.current.onPan(point.x - before.x)
    }
    const up = (event: PointerEvent) => {
      if (!points.delete(event.pointerId)) return
      if (mode === 'grab') latest.current.onGrabEnd()
      if (mode === 'maybeTap' && event.type === 'pointerup') latest.current.onTap(from.x, from.y)
      mode = points.size > 0 ? 'pan' : 'none'
    }
    const wheel = (event: WheelEvent) => {
      event.preventDefault()
      const { x } = at(event)
      if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) latest.current.onPan(-(event.deltaX || event.deltaY))
      else latest.current.onZoom(Math.exp(event.deltaY * 0.0025), x)
    }
    element.addEventListener('pointerdown', down)
    element.addEventListener('pointermove', move)
    element.addEventListener('pointerup', up)
    element.addEventListener('pointercancel', up)
    element.addEventListener('wheel', wheel, { passive: false })
    return () => {
      element.removeEventListener('pointerdown', down)
      element.removeEventListener('pointermove', move)
      element.removeEventListener('pointerup', up)
      element.removeEventListener('pointercancel', up)
      element.removeEventListener('wheel', wheel)
    }
  })
}
