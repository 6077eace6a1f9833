import { ScrollView, View } from 'react-native'

import type { Imported } from '../../audio/import'
import { IconButton } from '../../ui/Button'
import { Text } from '../../ui/Text'
import { usePalette } from '../../ui/theme'

interface Props {
  readonly done: readonly Imported[]
  readonly total: number
  readonly onClose: () => void
}

/** How an import goes: how many are in, and for each that failed why. The rest is kept. */
export function ImportReport({ done, total, onClose }: Props) {
  const palette = usePalette()
  const count = (type: Imported['type']) => done.filter((one) => one.type === type).length
  const words = [
    done.length < total ? `Reading ${done.length + 1} of ${total}` : `${count('imported')} imported`,
    count('known') > 0 ? `${count('known')} were here already` : '',
    count('failed') > 0 ? `${count('failed')} could not be read` : '',
  ]
  return (
    <View
      role="status"
      aria-live="polite"
      style={{
        marginHorizontal: 16,
        marginBottom: 8,
        borderWidth: 1,
        borderColor: palette.line,
        borderRadius: 8,
        backgroundColor: palette.surface,
      }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', paddingLeft: 12 }}>
        <Text look="label" style={{ flex: 1 }}>
          {words.filter(Boolean).join(', ')}
        </Text>
        <IconButton name="close" label="Put the report away" onPress={onClose} />
      </View>
      <View style={{ height: 3, backgroundColor: palette.faint }}>
        <View style={{ height: 3, width: `${(done.length / total) * 100}%`, backgroundColor: palette.kelp }} />
      </View>
      <ScrollView
        style={{ maxHeight: 150 }}
        contentContainerStyle={{ paddingHorizontal: 12, gap: 6, paddingVertical: done.some(hasWords) ? 8 : 0 }}
      >
        {done.filter(hasWords).map((one, i) => (
          <Text key={i} look="small">
            <Text look="label">{one.type === 'failed' ? one.name : one.source.name}: </Text>
            {one.type === 'failed' ? one.reason : one.type === 'known' ? 'already here, so it was not added again.' : one.notes.join(' ')}
          </Text>
        ))}
      </ScrollView>
    </View>
  )
}

function hasWords(one: Imported): boolean {
  return one.type !== 'imported' || one.notes.length > 0
}
