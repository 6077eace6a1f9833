import { useEffect, useState } from 'react'

import type { Losses } from '../../audio/engine/player'
import { sound } from '../../audio/engine/sound'
import { Text } from '../../ui/layout/Text'

const LOOK_MS = 500

/** What was lost since the page was opened, in words; nothing where nothing was. */
export function lossWords({ events, strikes, lateBlocks }: Losses): string | undefined {
  const many = (count: number, one: string, more: string) => (count === 0 ? [] : [count === 1 ? `one ${one}` : `${count} ${more}`])
  const parts = [
    ...many(strikes, 'strike ended early to make room for others', 'strikes ended early to make room for others'),
    ...many(events, 'strike or move found no room', 'strikes or moves found no room'),
    ...many(lateBlocks, 'moment came late and may have crackled', 'moments came late and may have crackled'),
  ]
  return parts.length === 0 ? undefined : `Lost since this page was opened: ${parts.join('; ')}.`
}

/** Says what the engine lost, for nothing may be lost in silence. */
export function LossLine() {
  const [words, setWords] = useState<string>()
  useEffect(() => {
    const look = () => {
      const losses = sound.getState().player?.losses()
      setWords(losses && lossWords(losses))
    }
    look()
    const timer = setInterval(look, LOOK_MS)
    return () => clearInterval(timer)
  }, [])
  if (!words) return null
  return (
    <Text look="small" tone="muted" role="status">
      {words}
    </Text>
  )
}
