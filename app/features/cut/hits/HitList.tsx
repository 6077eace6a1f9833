import type { MarkerId } from '@heliaster/core/kit'
import { memo, useCallback } from 'react'
import type { Ref } from 'react'

import { LongList } from '../../../ui/layout/LongList'
import type { LongListControls } from '../../../ui/layout/LongList'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import type { HitSort } from './hit-list'
import { HIT_ROW_HEIGHT, HitRow } from './HitRow'
import type { Verdict } from './HitRow'
import type { CutHit } from '../bench/use-source-cut'

interface Props {
  readonly ref?: Ref<LongListControls>
  readonly hits: readonly CutHit[]
  readonly rate: number
  readonly sort: HitSort
  readonly chosenId: MarkerId | undefined
  readonly emptyWords: string
  readonly onChoose: (item: CutHit) => void
  readonly onJudge: (item: CutHit, verdict: Verdict) => void
  readonly onScrolled?: (offsetPx: number, heightPx: number) => void
}

/** The hits under the waveform. Panning the wave leaves it as it is. */
export const HitList = memo(function HitList({ ref, hits, rate, sort, chosenId, emptyWords, onChoose, onJudge, onScrolled }: Props) {
  const palette = usePalette()
  const draw = useCallback(
    (item: CutHit) => (
      <HitRow item={item} sampleRateHz={rate} sort={sort} chosen={item.marker.id === chosenId} onChoose={onChoose} onJudge={onJudge} />
    ),
    [rate, sort, chosenId, onChoose, onJudge],
  )
  return (
    <LongList
      ref={ref}
      label="Hits"
      items={hits}
      rowHeight={HIT_ROW_HEIGHT}
      keyOf={keyOf}
      draw={draw}
      onScrolled={onScrolled}
      style={{ flex: 1, borderTopWidth: 1, borderTopColor: palette.faint }}
      empty={
        <Text tone="muted" style={{ padding: 20 }}>
          {emptyWords}
        </Text>
      }
    />
  )
})

const keyOf = ({ marker }: CutHit) => marker.id
