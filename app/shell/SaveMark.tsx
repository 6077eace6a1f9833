import { useState } from 'react'
import type { ComponentProps } from 'react'
import { Pressable, View } from 'react-native'
import { useStore } from 'zustand'

import { saveState } from '../documents'
import type { SaveState } from '../sync/save-state'
import { Text } from '../ui/layout/Text'
import { TOUCH, usePalette } from '../ui/theme/theme'
import { SaveSheet } from './SaveSheet'

const changes = (count: number) => `${count} ${count === 1 ? 'change' : 'changes'}`

type Tone = 'kelp' | 'muted' | 'coral'

/** How saving stands, in a few words, and how urgent it is. `kept on this device` and `saved` are never mixed up. */
export function savingInWords({ unkept, blocked, refused, state, waiting }: SaveState): { words: string; tone: Tone } {
  if (blocked) return { words: 'Close the other tabs', tone: 'coral' }
  if (unkept > 0) return { words: `${changes(unkept)} not kept yet`, tone: 'coral' }
  if (refused > 0) return { words: `${changes(refused)} kept aside`, tone: 'coral' }
  if (state === 'away') return { words: waiting > 0 ? `Kept on this device, ${waiting} to send` : 'Server away', tone: 'coral' }
  if (waiting > 0) return { words: 'Kept on this device, sending', tone: 'muted' }
  return state === 'saved' ? { words: 'Saved', tone: 'kelp' } : { words: 'Saving', tone: 'muted' }
}

interface Props {
  /** A name lies over its upper half, which presses it too. */
  readonly isUnderName?: boolean
  readonly kit?: ComponentProps<typeof SaveSheet>['kit']
}

/** How saving stands; a tap tells all of it and what can be done. */
export function SaveMark({ isUnderName, kit }: Props) {
  const palette = usePalette()
  const { words, tone } = savingInWords(useStore(saveState))
  const [isOpen, setIsOpen] = useState(false)
  return (
    <>
      <Pressable
        role="button"
        aria-label={`How saving stands: ${words}${kit ? '; name of the kit' : ''}`}
        onPress={() => setIsOpen(true)}
        style={{
          minHeight: TOUCH,
          minWidth: TOUCH,
          maxWidth: '100%',
          justifyContent: isUnderName ? 'flex-end' : 'center',
          paddingBottom: isUnderName ? 2 : 0,
          alignSelf: isUnderName ? 'stretch' : 'flex-start',
        }}
      >
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 5 }}>
          <View style={{ width: 7, height: 7, borderRadius: 4, backgroundColor: palette[tone] }} />
          <View role="status" style={{ flexShrink: 1 }}>
            <Text look="small" tone="muted" numberOfLines={1} style={{ fontSize: 13, lineHeight: 16 }}>
              {words}
            </Text>
          </View>
        </View>
      </Pressable>
      <SaveSheet kit={kit} isOpen={isOpen} onClose={() => setIsOpen(false)} />
    </>
  )
}
