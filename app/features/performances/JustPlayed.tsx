import type { Kit, Performance, PerformanceId } from '@heliaster/core/kit'
import type { Passage } from '@heliaster/core/performance'
import { useEffect } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { keepPassage, passageToHear } from '../../audio/performances/keep'
import { lookNow, memoryOf, passages } from '../../audio/performances/remembering'
import { Button, IconButton } from '../../ui/controls/Button'
import { notify } from '../../ui/layout/notices'
import { useNow } from '../../ui/device/use-now'
import { Part } from '../../ui/layout/Part'
import { Row } from '../../ui/layout/Row'
import { Text } from '../../ui/layout/Text'
import { asPlayed, useResound } from './use-resound'
import { agoWords, lengthWords, padsWords, secondsOfPassage, strikesWords } from './words'

/** How often "2 min ago" is looked at. */
const LOOK_MS = 5000
const USUAL_RATE_HZ = 48000
const none: readonly Passage[] = []

interface Props {
  readonly kit: Kit
  readonly kept: readonly Performance[]
  readonly onKept: (id: PerformanceId) => void
}

/** What was played in the last ten minutes, without anyone having asked for it: heard, and kept. */
export function JustPlayed({ kit, kept: all, onKept }: Props) {
  const played = useStore(passages, (all) => all[kit.id] ?? none)
  const { heard, busy, hear, stop } = useResound()
  const rateHz = useStore(passages, () => memoryOf(kit.id)?.sampleRateHz ?? USUAL_RATE_HZ)
  const nowMs = useNow(LOOK_MS)
  useEffect(() => lookNow(kit.id), [kit.id, nowMs]) // what is older than ten minutes goes
  const keep = async (passage: Passage) => {
    const kept = await keepPassage(kit, passage)
    if (typeof kept === 'string') return notify(kept)
    notify(`Kept as “${kept.name}”.`)
    onKept(kept.id)
  }
  const toggle = (passage: Passage, name: string) => {
    if (heard === name) return stop()
    const performance = passageToHear(kit, passage)
    if (performance) void hear(name, asPlayed(performance))
  }
  return (
    <Part name="Just played">
      {played.length === 0 && (
        <Text look="small" tone="muted">
          Nothing in the last ten minutes. Whatever you play, in any place, is remembered for ten minutes without asking.
        </Text>
      )}
      <View role="list" aria-label="Just played">
        {[...played].reverse().map((passage, i) => {
          const name = `passage ${passage.fromFrame}`
          const words = `${strikesWords(passage.strikes)} in ${lengthWords(secondsOfPassage(passage, rateHz))}`
          return (
            <Row key={name} hasLine={i > 0}>
              <PassageLine
                words={words}
                facts={`${agoWords(passage.fromMs, nowMs)} · ${padsWords(kit, passage.padIds)}`}
                isHeard={heard === name}
                isBusy={busy === name}
                isKept={all.some(({ playedAt }) => playedAt === passage.fromMs)}
                isFirst={i === 0}
                onHear={() => toggle(passage, name)}
                onKeep={() => void keep(passage)}
              />
            </Row>
          )
        })}
      </View>
    </Part>
  )
}

interface LineProps {
  readonly words: string
  readonly facts: string
  readonly isHeard: boolean
  readonly isBusy: boolean
  readonly isKept: boolean
  readonly isFirst: boolean
  readonly onHear: () => void
  readonly onKeep: () => void
}

function PassageLine({ words, facts, isHeard, isBusy, isKept, isFirst, onHear, onKeep }: LineProps) {
  return (
    <View style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 8, paddingVertical: 6 }}>
      <IconButton
        name={isHeard ? 'stop' : 'play-outline'}
        label={isHeard ? `Stop hearing ${words}` : `Hear ${words}`}
        on={isHeard}
        disabled={isBusy}
        onPress={onHear}
      />
      <View style={{ flex: 1, minWidth: 0 }}>
        <Text look="strong" numberOfLines={1}>
          {words}
        </Text>
        <Text look="small" tone="muted" numberOfLines={1}>
          {isBusy ? 'Being made ready' : facts}
        </Text>
      </View>
      {isKept ? (
        <Text look="small" tone="kelp" style={{ paddingHorizontal: 10 }}>
          Kept
        </Text>
      ) : (
        <Button label="Keep" kind={isFirst ? 'main' : 'plain'} onPress={onKeep} />
      )}
    </View>
  )
}
