import type { PadId } from '@heliaster/core/kit'
import { memo } from 'react'
import { View } from 'react-native'

import { useNoteName } from '../../../kit-view/note-name'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'

interface Props {
  readonly first: number
  readonly count: number
  readonly height: number
  readonly byNote: ReadonlyMap<number, readonly PadId[]>
  /** Notes that are held. */
  readonly down: readonly number[]
  readonly chosen: number
}

const OCTAVE = 12
/** Steps of the scale of C, which lie lower than those between them. */
const NATURALS: readonly number[] = [0, 2, 4, 5, 7, 9, 11]
/** Narrower ones have no room for words. */
const WORDS_FROM_PX = 20
const MOST_DOTS = 3

/** The notes of a row: every octave begins with a line and its name; a dot for each pad that a note strikes. */
export const NoteMarks = memo(function NoteMarks({ first, count, height, byNote, down, chosen }: Props) {
  return (
    <View style={{ flex: 1, flexDirection: 'row', pointerEvents: 'none' }} aria-hidden>
      {Array.from({ length: count }, (_, i) => first + i).map((note) => (
        <NoteMark
          key={note}
          note={note}
          height={height}
          hasWords={count < 60}
          pads={byNote.get(note)?.length ?? 0}
          isDown={down.includes(note)}
          isChosen={note === chosen}
        />
      ))}
    </View>
  )
})

interface MarkProps {
  readonly note: number
  readonly height: number
  readonly hasWords: boolean
  readonly pads: number
  readonly isDown: boolean
  readonly isChosen: boolean
}

const NoteMark = memo(function NoteMark({ note, height, hasWords, pads, isDown, isChosen }: MarkProps) {
  const palette = usePalette()
  const noteName = useNoteName()
  const isNatural = NATURALS.includes(note % OCTAVE)
  const isFirst = note % OCTAVE === 0
  const ground = isDown ? palette.coral : isNatural ? palette.surface : palette.faint
  return (
    <View style={{ flex: 1, height, borderLeftWidth: isFirst ? 1 : 0, borderLeftColor: palette.muted }}>
      <View
        style={{
          flex: 1,
          marginHorizontal: hasWords ? 1 : 0,
          borderBottomLeftRadius: hasWords ? WORDS_FROM_PX / 2 : 0,
          borderBottomRightRadius: hasWords ? WORDS_FROM_PX / 2 : 0,
          backgroundColor: ground,
          borderBottomWidth: isChosen ? 3 : 0,
          borderBottomColor: palette.kelp,
          justifyContent: 'flex-end',
          alignItems: 'center',
          gap: 3,
          paddingBottom: 8,
        }}
      >
        {Array.from({ length: Math.min(MOST_DOTS, pads) }, (_, i) => (
          <View
            key={i}
            style={{
              width: hasWords ? 8 : '70%',
              height: hasWords ? 8 : 14,
              borderRadius: 4,
              backgroundColor: isDown ? palette.onCoral : palette.kelp,
            }}
          />
        ))}
        {hasWords && pads > MOST_DOTS && (
          <Text look="figures" style={{ fontSize: 11 }}>
            {pads}
          </Text>
        )}
      </View>
      {isFirst && (
        <Text look="figures" tone="muted" style={{ fontSize: 11, lineHeight: 14, position: 'absolute', top: 2, left: 3, width: 30 }}>
          {noteName(note)}
        </Text>
      )}
    </View>
  )
})
