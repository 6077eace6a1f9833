import { familyWords } from '@heliaster/core/kit'
import type { Source } from '@heliaster/core/kit'
import { memo } from 'react'
import { Pressable, StyleSheet, View } from 'react-native'

import { IconButton } from '../../../ui/controls/Button'
import { Check } from '../../../ui/controls/Check'
import { Icon } from '../../../ui/drawing/Icon'
import { MiniWave } from '../../../kit-view/MiniWave'
import { Text } from '../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../ui/theme/theme'
import { secondsOf } from './library-view'

export const SOURCE_ROW_HEIGHT = 60

/** What a row can do. The same object for all rows, so that only changed rows are drawn again. */
export interface RowActions {
  hear(source: Source): void
  cut(source: Source): void
  open(source: Source): void
  /** With all from the row that was touched last where it ends a range. */
  select(source: Source, isRange: boolean): void
  judge(source: Source): void
}

interface Props {
  readonly source: Source
  readonly chosen: boolean
  /** Undefined outside selecting. */
  readonly selected: boolean | undefined
  readonly actions: RowActions
  /** In a narrow list the name has the room. */
  readonly hasWave?: boolean
}

/** One sound: heard by a tap, opened in Cut by another, kept or passed, and all else behind its dots. */
export const SourceRow = memo(function SourceRow({ source, chosen, selected, actions, hasWave = true }: Props) {
  const palette = usePalette()
  const isSelecting = selected !== undefined
  const verdict = { open: 'not judged', keep: 'kept', pass: 'passed' }[source.verdict]
  const background = selected ? palette.kelpWash : chosen ? palette.waterWash : 'transparent'
  return (
    <View
      style={[styles.row, { borderBottomColor: palette.faint, backgroundColor: background, opacity: source.verdict === 'pass' ? 0.6 : 1 }]}
    >
      {isSelecting ? (
        <Check label={source.name} value={selected} onChange={(_, isRange) => actions.select(source, isRange)} />
      ) : (
        <IconButton name="play-outline" label={`Hear ${source.name}`} onPress={() => actions.hear(source)} />
      )}
      <Pressable
        role="button"
        aria-label={isSelecting ? `Select ${source.name}` : `Cut ${source.name}`}
        onPress={({ nativeEvent }) =>
          isSelecting ? actions.select(source, (nativeEvent as { shiftKey?: boolean }).shiftKey === true) : actions.cut(source)
        }
        onLongPress={isSelecting ? () => actions.select(source, true) : undefined}
        style={styles.middle}
      >
        <View style={styles.words}>
          <Text look="strong" numberOfLines={1} style={styles.name}>
            {source.name}
          </Text>
          <Text look="figures" tone="muted" numberOfLines={1} style={styles.facts}>
            {source.favourite && <Icon name="heart" size={12} color={palette.coral} />}
            {source.favourite ? ' ' : ''}
            {factsOf(source)}
          </Text>
        </View>
        {hasWave && <MiniWave audio={source.audio} width={54} height={34} />}
      </Pressable>
      {!isSelecting && (
        <>
          <IconButton
            name={source.verdict === 'keep' ? 'check-circle' : source.verdict === 'pass' ? 'close-circle-outline' : 'circle-outline'}
            tone={source.verdict === 'keep' ? 'kelp' : 'muted'}
            label={`${source.name} is ${verdict}; change`}
            onPress={() => actions.judge(source)}
          />
          <Pressable role="button" aria-label={`More for ${source.name}`} onPress={() => actions.open(source)} style={styles.more}>
            <Icon name="dots-vertical" size={22} color={palette.ink} />
          </Pressable>
        </>
      )}
    </View>
  )
})

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', paddingHorizontal: 6, height: SOURCE_ROW_HEIGHT, borderBottomWidth: 1 },
  middle: { flex: 1, flexDirection: 'row', alignItems: 'center', gap: 8, height: '100%', minWidth: 0 },
  words: { flex: 1, minWidth: 0 },
  name: { fontSize: 15, lineHeight: 20 },
  facts: { fontSize: 12 },
  more: { width: TOUCH, height: TOUCH, alignItems: 'center', justifyContent: 'center' },
})

export function lengthText(source: Source): string {
  const seconds = secondsOf(source)
  if (seconds < 60) return `${seconds.toFixed(2)} s`
  return `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`
}

function factsOf(source: Source): string {
  const { measured, family, info } = source
  const level = measured ? (measured.peakDb <= -200 ? 'silent' : `${measured.loudnessDb.toFixed(0)} LUFS`) : ''
  return [lengthText(source), level, family === 'other' ? '' : familyWords(family), info.channels > 1 ? 'stereo' : '']
    .filter(Boolean)
    .join(', ')
}
