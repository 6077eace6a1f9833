// Our own: the elements' Tooltip opens a modal on a press; the words of a sign must come while a mouse rests on it or a key reaches it.
import { useEffect, useState } from 'react'
import { createPortal } from 'react-dom'
import { View } from 'react-native'

import { Text } from './Text'
import { usePalette } from '../theme/theme'

const REST_MS = 450
const EDGE_PX = 8
const ABOVE_SHEETS = 10001

interface Hint {
  readonly words: string
  /** Middle of the sign, and its upper and lower edge, in px of the window. */
  readonly x: number
  readonly top: number
  readonly bottom: number
}

const signAt = (target: EventTarget | null) => (target as Element | null)?.closest?.<HTMLElement>('[data-sign]') ?? undefined

function hintOf(sign: HTMLElement): Hint | undefined {
  const words = sign.querySelector('[aria-label]')?.getAttribute('aria-label')
  const box = sign.getBoundingClientRect()
  return words ? { words, x: box.left + box.width / 2, top: box.top, bottom: box.bottom } : undefined
}

/** The words of the sign that a mouse rests on or that the keyboard has reached; Escape, a press or leaving takes them away. */
export function Hints() {
  const palette = usePalette()
  const [hint, setHint] = useState<Hint>()
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    const show = (sign: HTMLElement | undefined, afterMs: number) => {
      clearTimeout(timer)
      setHint(undefined)
      if (sign) timer = setTimeout(() => setHint(hintOf(sign)), afterMs)
    }
    let under: HTMLElement | undefined
    const onOver = (event: PointerEvent) => {
      if (event.pointerType === 'touch' || signAt(event.target) === under) return
      under = signAt(event.target)
      show(under, REST_MS)
    }
    const onFocus = (event: FocusEvent) => {
      if ((event.target as Element).matches(':focus-visible')) show(signAt(event.target), 0)
    }
    const away = () => show(undefined, 0)
    const onKey = (event: KeyboardEvent) => event.key === 'Escape' && away()
    document.addEventListener('pointerover', onOver)
    document.addEventListener('pointerdown', away)
    document.addEventListener('focusin', onFocus)
    document.addEventListener('focusout', away)
    document.addEventListener('keydown', onKey)
    return () => {
      clearTimeout(timer)
      document.removeEventListener('pointerover', onOver)
      document.removeEventListener('pointerdown', away)
      document.removeEventListener('focusin', onFocus)
      document.removeEventListener('focusout', away)
      document.removeEventListener('keydown', onKey)
    }
  }, [])
  if (!hint) return null
  const isLow = hint.bottom > window.innerHeight - 60
  const isRight = hint.x > window.innerWidth / 2
  return createPortal(
    <View
      aria-hidden
      testID="hint"
      style={{
        position: 'fixed' as 'absolute',
        pointerEvents: 'none',
        zIndex: ABOVE_SHEETS,
        maxWidth: 260,
        ...(isLow ? { bottom: window.innerHeight - hint.top + 4 } : { top: hint.bottom + 4 }),
        ...(isRight ? { right: Math.max(EDGE_PX, window.innerWidth - hint.x - 24) } : { left: Math.max(EDGE_PX, hint.x - 24) }),
        backgroundColor: palette.ink,
        borderRadius: 6,
        paddingHorizontal: 10,
        paddingVertical: 5,
      }}
    >
      <Text look="label" style={{ color: palette.paper }}>
        {hint.words}
      </Text>
    </View>,
    document.body,
  )
}
