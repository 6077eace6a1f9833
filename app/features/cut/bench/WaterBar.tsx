import { levelsOf, lineOf, lineWords, underLine } from '@heliaster/core/cut'
import type { CutSettings, Source } from '@heliaster/core/kit'
import { useMemo } from 'react'
import { Pressable, View } from 'react-native'

import { Text } from '../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../ui/theme/theme'
import type { Analysis } from './use-source-cut'

interface Props {
  readonly source: Source
  readonly analysis: Pick<Analysis, 'strikes' | 'audio'>
  readonly onCut: (changes: Partial<CutSettings>) => void
}

/** What the water line did, and the next levels at which this recording divides, a tap away. */
export function WaterBar({ source, analysis, onCut }: Props) {
  const { strikes } = analysis
  const { minGapSeconds, findsLevel } = source.cut
  const rate = analysis.audio.sampleRateHz
  const line = lineOf(source.cut, strikes)
  const under = useMemo(() => underLine(strikes, line, minGapSeconds, rate), [strikes, line, minGapSeconds, rate])
  const levels = useMemo(() => levelsOf(strikes, minGapSeconds * rate), [strikes, minGapSeconds, rate])
  const fewer = levels.findLast(({ count }) => count < under.hits)
  const more = levels.find(({ count }) => count > under.hits)
  const draw = (to: number) => onCut({ waterLine: to, findsLevel: undefined })
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 2, paddingLeft: 16, paddingRight: 6, minHeight: TOUCH }}>
      <Text look="small" tone="muted" numberOfLines={2} style={{ flex: 1, lineHeight: 17 }}>
        {findsLevel ? lineWords(under) : `Your own line. ${lineWords(under)}`}
      </Text>
      {!findsLevel && <Step word="Auto" to="level" label="Let the line find its level" onPress={() => onCut({ findsLevel: true })} />}
      {fewer && <Step word="Fewer" to={`to ${fewer.count}`} label={`Fewer hits: ${fewer.count}`} onPress={() => draw(fewer.line)} />}
      {more && <Step word="More" to={`to ${more.count}`} label={`More hits: ${more.count}`} onPress={() => draw(more.line)} />}
    </View>
  )
}

interface StepProps {
  readonly word: string
  readonly to: string
  readonly label: string
  readonly onPress: () => void
}

/** Another level, and how many hits it shows. */
function Step({ word, to, label, onPress }: StepProps) {
  const palette = usePalette()
  return (
    <Pressable
      role="button"
      aria-label={label}
      onPress={onPress}
      style={{
        minWidth: 60,
        height: TOUCH,
        alignItems: 'center',
        justifyContent: 'center',
        borderLeftWidth: 1,
        borderLeftColor: palette.faint,
      }}
    >
      <Text look="strong" style={{ fontSize: 15, lineHeight: 18 }}>
        {word}
      </Text>
      <Text look="small" tone="muted" style={{ fontSize: 12, lineHeight: 14 }}>
        {to}
      </Text>
    </Pressable>
  )
}
