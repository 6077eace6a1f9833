import { memo } from 'react'
import { Pressable, View } from 'react-native'

import { IconButton } from '../../../ui/controls/Button'
import { nearestNote, noteName } from '../../../kit-view/note-name'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { describeWarnings, hasRepairs, hitTitle } from './hit-clip'
import { sortedFact } from './hit-list'
import type { HitSort } from './hit-list'
import type { CutHit } from '../bench/use-source-cut'

/** How a hit is judged; one that is not goes along too. */
export type Verdict = 'keep' | 'pass'

interface Props {
  readonly item: CutHit
  readonly sampleRateHz: number
  /** What the list is sorted by, which is then said of each. */
  readonly sort?: HitSort
  readonly chosen: boolean
  readonly onChoose: (item: CutHit) => void
  /** Kept or passed; the same once more, and it is not judged. */
  readonly onJudge: (item: CutHit, verdict: Verdict) => void
}

export const HIT_ROW_HEIGHT = 52

/** One hit: heard and chosen by a tap, kept by another, passed by a third; which it is, is seen on both signs. */
export const HitRow = memo(function HitRow({ item, sampleRateHz, sort = 'time', chosen, onChoose, onJudge }: Props) {
  const palette = usePalette()
  const { marker, hit } = item
  const title = hitTitle(marker, hit, sampleRateHz)
  const warnings = hit ? describeWarnings(hit) : ''
  const facts = hit
    ? [
        marker.name ? `at ${(marker.frame / sampleRateHz).toFixed(2)}` : '',
        `${hit.seconds.toFixed(2)} s`,
        `${hit.peakDb.toFixed(1)} dB`,
        sortedFact(hit, sort) || (hit.pitch ? noteName(nearestNote(hit.pitch.hz).note) : ''),
        hasRepairs(marker) ? 'repaired' : '',
      ]
    : []
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        height: HIT_ROW_HEIGHT,
        paddingLeft: 16,
        paddingRight: 6,
        borderBottomWidth: 1,
        borderBottomColor: palette.faint,
        backgroundColor: chosen ? palette.waterWash : 'transparent',
        opacity: marker.verdict === 'pass' ? 0.55 : 1,
      }}
    >
      <Pressable
        role="button"
        aria-label={`Hear ${title}`}
        onPress={() => onChoose(item)}
        style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 12, height: '100%', minWidth: 0 }}
      >
        <View style={{ flex: 1, minWidth: 0 }}>
          <Text look="strong" numberOfLines={1} style={{ fontSize: 15, lineHeight: 19 }}>
            {title}
          </Text>
          <Text look="figures" tone="muted" numberOfLines={1} style={{ fontSize: 12 }}>
            {facts.filter(Boolean).join(', ')}
            {warnings ? <Text look="small" tone="coral" style={{ fontSize: 12 }}>{`, ${warnings}`}</Text> : null}
          </Text>
        </View>
      </Pressable>
      <View {...{ dataSet: { judge: 'keep' } }}>
        <IconButton
          name={marker.verdict === 'keep' ? 'check-circle' : 'check-circle-outline'}
          tone={marker.verdict === 'keep' ? 'kelp' : 'muted'}
          on={marker.verdict === 'keep'}
          label={`${title}: ${marker.verdict === 'keep' ? 'kept; not judged again' : 'keep it'}`}
          onPress={() => onJudge(item, 'keep')}
        />
      </View>
      <View {...{ dataSet: { judge: 'pass' } }}>
        <IconButton
          name={marker.verdict === 'pass' ? 'close-circle' : 'close-circle-outline'}
          tone={marker.verdict === 'pass' ? 'coral' : 'muted'}
          on={marker.verdict === 'pass'}
          label={`${title}: ${marker.verdict === 'pass' ? 'passed; not judged again' : 'pass it'}`}
          onPress={() => onJudge(item, 'pass')}
        />
      </View>
    </View>
  )
})
