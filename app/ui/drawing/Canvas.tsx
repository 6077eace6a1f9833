// The elements draw nothing; waves are drawn by hand.
import { useEffect, useRef } from 'react'
import type { Ref } from 'react'
import { View } from 'react-native'
import { unstable_createElement } from 'react-native-web'

interface Props {
  readonly ref?: Ref<HTMLCanvasElement>
  readonly height: number
  readonly label: string
  /** Called when the canvas has got another size, in device pixels. */
  readonly onSize?: (width: number, height: number) => void
}

/** A canvas as wide as its place, at the screen's own resolution. */
export function Canvas({ ref, height, label, onSize }: Props) {
  const own = useRef<HTMLCanvasElement>(null)
  const latest = useRef(onSize)
  useEffect(() => {
    latest.current = onSize
  })
  useEffect(() => {
    const canvas = own.current
    if (!canvas) return undefined
    const fit = () => {
      const scale = window.devicePixelRatio || 1
      const width = Math.max(1, Math.round(canvas.clientWidth * scale))
      const tall = Math.max(1, Math.round(canvas.clientHeight * scale))
      if (canvas.width === width && canvas.height === tall) return
      canvas.width = width
      canvas.height = tall
      latest.current?.(width, tall)
    }
    const observer = new ResizeObserver(fit)
    observer.observe(canvas)
    fit()
    return () => observer.disconnect()
  }, [])
  const take = (canvas: HTMLCanvasElement | null) => {
    own.current = canvas
    if (typeof ref === 'function') ref(canvas)
    else if (ref) ref.current = canvas
  }
  return (
    <View style={{ height, width: '100%' }}>
      {unstable_createElement('canvas', {
        ref: take,
        role: 'img',
        'aria-label': label,
        style: { width: '100%', height: '100%', display: 'block' },
      })}
    </View>
  )
}
