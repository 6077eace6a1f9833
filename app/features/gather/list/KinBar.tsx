import { kinWays } from '@heliaster/core/alike'
import type { Source, SourceId } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { IconButton } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { endKin, kin, measureAll, unmeasured } from './kin'
import type { KinQuery } from './kin'

const WAYS = [
  { value: 'any' as const, text: 'Nearest' },
  ...kinWays.map((way) => ({ value: way, text: `${way[0].toUpperCase()}${way.slice(1)}` })),
]

/** What the list is ordered by while it shows the kin of a sound, and which way they lie. */
export function KinBar({ query, all, count }: { readonly query: KinQuery; readonly all: readonly Source[]; readonly count: number }) {
  const palette = usePalette()
  const way = useStore(kin, (state) => state.way)
  /** Measured or not to be measured, as silence is. */
  const [tried, setTried] = useState<ReadonlySet<SourceId>>(new Set())
  const missing = unmeasured(all).filter(({ id }) => !tried.has(id)).length
  useEffect(() => {
    let gone = false
    void measureAll(
      unmeasured(all),
      () => !gone,
      (id) => setTried((before) => new Set(before).add(id)),
    )
    return () => {
      gone = true
    }
    // What is missing when the question is asked is measured once; what comes in meanwhile is measured as it comes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [query])
  return (
    <View style={{ paddingLeft: 16, paddingRight: 8, paddingBottom: 8, borderBottomWidth: 1, borderBottomColor: palette.faint }}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <View style={{ flex: 1, minWidth: 0 }}>
          <Text look="strong" numberOfLines={1}>{`Like “${query.name}”`}</Text>
          <Text look="small" tone="muted" role="status">
            {words(count, missing, way)}
          </Text>
        </View>
        <IconButton name="close" label="Show all sounds again" onPress={endKin} />
      </View>
      <Chips
        label="But"
        hideLabel
        isOneLine
        options={WAYS}
        value={way ?? 'any'}
        onChoose={(next) => kin.setState({ way: next === 'any' ? undefined : next })}
      />
    </View>
  )
}

function words(count: number, missing: number, way: string | undefined): string {
  const rest = missing > 0 ? ` ${missing} more ${missing === 1 ? 'is' : 'are'} being measured.` : ''
  if (count === 0) return `No sound is like it${way ? ` but ${way}` : ''}.${rest}`
  return `The most alike first${way ? `, of ${count} that are ${way}` : ''}.${rest}`
}
