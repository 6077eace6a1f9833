import type { ReactNode } from 'react'
import { Pressable, View } from 'react-native'

import { IconButton } from '../../../ui/controls/Button'
import { LevelLane } from '../../../ui/controls/LevelLane'
import { Icon } from '../../../ui/drawing/Icon'
import { TOUCH, usePalette } from '../../../ui/theme/theme'

interface Props {
  readonly name: string
  /** What it touches: which pads and microphones, which effects. */
  readonly words?: string
  readonly face?: ReactNode
  readonly level: () => number
  readonly gainDb: number
  readonly isMuted?: boolean
  readonly isOver?: boolean
  readonly onOver?: () => void
  readonly isSolo?: boolean
  readonly isChosen: boolean
  readonly onGain: (gainDb: number) => void
  readonly onDone: () => void
  readonly onChoose: () => void
  readonly onMute?: () => void
  readonly onSolo?: () => void
}

/** One line of the mix: its face, which opens what stands behind it, its level under a thumb, alone or silent. */
export function Lane({ name, words = '', face, level, gainDb, isMuted = false, isOver, onOver, isSolo = false, isChosen, onGain, onDone, onChoose, onMute, onSolo }: Props) {
  const palette = usePalette()
  return (
    <View
      role="group"
      aria-label={name}
      style={{ flexDirection: 'row', alignItems: 'center', gap: 6, paddingLeft: 5, paddingRight: onMute ? 2 : 14, borderLeftWidth: 3, borderLeftColor: isChosen ? palette.kelp : 'transparent', backgroundColor: isChosen ? palette.surface : undefined }}
    >
      <Pressable role="button" aria-label={`Settings of ${name}`} aria-expanded={isChosen} onPress={onChoose} style={{ width: TOUCH, height: TOUCH, alignItems: 'center', justifyContent: 'center' }}>
        {face ?? <Icon name="tune-vertical" size={22} color={palette.kelp} />}
      </Pressable>
      <View style={{ flex: 1, minWidth: 0 }}>
        <LevelLane name={name} words={words} valueDb={gainDb} level={level} isMuted={isMuted} isOver={isOver} onOver={onOver} onSlide={onGain} onDone={onDone} onTap={onChoose} />
      </View>
      {onSolo && <IconButton name="headphones" label={isSolo ? `${name} sounds alone` : `Only ${name}`} on={isSolo} onPress={onSolo} />}
      {onMute && <IconButton name={isMuted ? 'volume-off' : 'volume-high'} label={isMuted ? `${name} is muted` : `Mute ${name}`} tone={isMuted ? 'coral' : 'ink'} on={isMuted} onPress={onMute} />}
    </View>
  )
} // prettier-ignore
