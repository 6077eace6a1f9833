import { Pressable, View } from 'react-native'

import { clearMarks, useMixMeter } from '../../../audio/engine/mix-meter'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'

const level = (value: number | undefined): string => (value === undefined || value < -70 ? '–' : value.toFixed(1))

/** How loud the mix is, as the trade counts it; a peak above full scale, which the limiter then holds, stays marked until it is cleared. */
export function Meters() {
  const { reading, highestDb, hasClipped, over } = useMixMeter()
  const isMarked = hasClipped || over.length > 0
  const palette = usePalette()
  const facts: [string, string][] = [
    ['now', level(reading?.momentary)],
    ['3 s', level(reading?.short)],
    ['all', level(reading?.integrated)],
    ['RMS dB', level(reading?.rmsDb)],
    ['Phase', reading ? reading.correlation.toFixed(2) : '–'],
  ]
  return (
    <View style={{ paddingHorizontal: 14, paddingVertical: 6 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
        <Text look="small" tone="muted" style={{ fontSize: 12, lineHeight: 15 }}>
          LUFS
        </Text>
        {facts.map(([name, value]) => (
          <View key={name} style={{ flex: 1, minWidth: 0 }}>
            <Text look="small" tone="muted" numberOfLines={1} style={{ fontSize: 12, lineHeight: 15 }}>
              {name}
            </Text>
            <Text look="figures" numberOfLines={1}>
              {value}
            </Text>
          </View>
        ))}
        <Pressable
          role="button"
          aria-label={hasClipped ? `Above full scale before the limiter, at most ${level(highestDb)} dB true peak. Clear` : `At most ${level(highestDb)} dB true peak. Clear`}
          onPress={clearMarks}
          style={{ minHeight: 44, minWidth: 74, justifyContent: 'center', paddingHorizontal: 8, borderRadius: 8, borderWidth: 1, borderColor: hasClipped ? palette.coral : palette.line, backgroundColor: hasClipped ? palette.coralWash : undefined }}
        >
          <Text look="small" tone={hasClipped ? 'coral' : 'muted'} numberOfLines={1} style={{ fontSize: 12, lineHeight: 15 }}>
            {hasClipped ? 'Too loud' : isMarked ? 'Clear marks' : 'True peak'}
          </Text>
          <Text look="figures" tone={hasClipped ? 'coral' : 'ink'}>
            {level(highestDb)}
          </Text>
        </Pressable>
      </View>
    </View>
  )
} // prettier-ignore
