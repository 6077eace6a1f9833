import type { MarkerId } from '@heliaster/core/kit'
import { memo, useCallback, useMemo, useState } from 'react'
import type { Ref } from 'react'
import { View } from 'react-native'

import { LongList } from '../../../ui/layout/LongList'
import type { LongListControls } from '../../../ui/layout/LongList'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import type { HitSort } from './hit-list'
import { HIT_ROW_HEIGHT, HitRow } from './HitRow'
import type { Verdict } from './HitRow'
import { useJudgeDrag } from './judge-drag'
import type { Painted } from './judge-drag'
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
  /** Several that a drag down their signs went over. */
  readonly onJudgeAll: (items: readonly CutHit[], verdict: Verdict) => void
  readonly onScrolled?: (offsetPx: number, heightPx: number) => void
}

/** The hits under the waveform. Panning the wave leaves it as it is. */
export const HitList = memo(function HitList({
  ref,
  hits,
  rate,
  sort,
  chosenId,
  emptyWords,
  onChoose,
  onJudge,
  onJudgeAll,
  onScrolled,
}: Props) {
  const palette = usePalette()
  const [painted, setPainted] = useState<Painted>()
  const under = useMemo(() => painted && rowsUnder(hits, painted), [hits, painted])
  const ground = useJudgeDrag({
    onPaint: (now) => setPainted({ ...now }),
    onDone: (done) => {
      setPainted(undefined)
      if (done) onJudgeAll(rowsUnder(hits, done), done.verdict)
    },
  })
  const draw = useCallback(
    (item: CutHit) => (
      <HitRow
        item={painted && under?.includes(item) ? judged(item, painted.verdict) : item}
        sampleRateHz={rate}
        sort={sort}
        chosen={item.marker.id === chosenId}
        onChoose={onChoose}
        onJudge={onJudge}
      />
    ),
    [rate, sort, chosenId, onChoose, onJudge, painted, under],
  )
  return (
    <View ref={ground} style={{ flex: 1, minHeight: 0 }}>
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
    </View>
  )
})

const rowsUnder = (hits: readonly CutHit[], { from, to }: Painted) => hits.slice(Math.max(0, Math.min(from, to)), Math.max(from, to) + 1)

/** As it will be once the drag is let go of. */
const judged = (item: CutHit, verdict: Verdict): CutHit => ({ ...item, marker: { ...item.marker, verdict } })

const keyOf = ({ marker }: CutHit) => marker.id
