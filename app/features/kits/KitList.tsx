import type { KitFaces, KitId } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { memo } from 'react'
import { Pressable, View } from 'react-native'

import { IconButton } from '../../ui/controls/Button'
import { Star } from '../../ui/drawing/Star'
import { Row } from '../../ui/layout/Row'
import { Text } from '../../ui/layout/Text'
import { useDrawnAsSeen } from '../../ui/layout/use-drawn-as-seen'
import { afterPress } from '../../ui/pointer/after-press'
import { TOUCH } from '../../ui/theme/theme'
import { changedWords } from './changed-words'

/** What a row shows of a kit, whether its document is on this device or only listed by the server. */
export interface ListedKit extends KitFaces {
  readonly id: string
  readonly name: string
  readonly changedAt: number
}

/** So many kits are drawn at once, and as many more whenever one comes near the end of them. */
const STEP = 12

interface Props {
  readonly kits: readonly ListedKit[]
  readonly nowMs: number
  /** The kit that is heard now. */
  readonly hearing?: KitId
  readonly onHear: (id: KitId) => void
  readonly onMenu: (id: KitId) => void
}

/** Kits in a list that may have hundreds: those that were come to are drawn. */
export function KitList({ kits, nowMs, hearing, onHear, onMenu }: Props) {
  const { drawn, end } = useDrawnAsSeen(kits.length, STEP)
  return (
    <View>
      <View role="list">
        {kits.slice(0, drawn).map((kit) => (
          <KitRow key={kit.id} kit={kit} nowMs={nowMs} isHearing={kit.id === hearing} onHear={onHear} onMenu={onMenu} />
        ))}
      </View>
      {end}
    </View>
  )
}

interface RowProps {
  readonly kit: ListedKit
  readonly nowMs: number
  readonly isHearing: boolean
  readonly onHear: (id: KitId) => void
  readonly onMenu: (id: KitId) => void
}

const KitRow = memo(function KitRow({ kit, nowMs, isHearing, onHear, onMenu }: RowProps) {
  const id = kit.id as KitId
  const changed = changedWords(kit.changedAt, nowMs)
  return (
    <Row>
      {kit.pads > 0 ? (
        <IconButton
          name={isHearing ? 'stop' : 'play-outline'}
          label={isHearing ? `Stop hearing ${kit.name}` : `Hear ${kit.name}`}
          on={isHearing}
          onPress={() => onHear(id)}
        />
      ) : (
        <View style={{ width: TOUCH }} />
      )}
      <Pressable
        role="button"
        aria-label={`Open ${kit.name}`}
        onPress={() => afterPress(() => router.navigate(`/kit/${kit.id}/${kit.pads > 0 ? 'board' : 'gather'}`))}
        style={{ flex: 1, paddingVertical: 14, gap: 8 }}
      >
        <View>
          <Text look="heading" numberOfLines={1}>
            {kit.name}
          </Text>
          <Text look="small" tone="muted" numberOfLines={1}>
            {[kit.pads === 1 ? '1 pad' : `${kit.pads} pads`, changed].filter(Boolean).join(', ')}
          </Text>
        </View>
        {kit.pads > 0 && (
          <View style={{ flexDirection: 'row', gap: 6, height: 26, overflow: 'hidden' }}>
            {kit.faces.map((turns, i) => (
              <Star key={i} size={26} turns={turns} />
            ))}
          </View>
        )}
      </Pressable>
      <IconButton name="dots-horizontal" label={`More for ${kit.name}`} onPress={() => onMenu(id)} />
    </Row>
  )
})
