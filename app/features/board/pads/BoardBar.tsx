import type { LineKind } from '@heliaster/core/ties'
import { createPad, freeNote } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'

import { makeId } from '../../../documents/make-id'
import { Button, IconButton } from '../../../ui/controls/Button'
import { More } from '../../../ui/layout/More'
import type { Act } from '../../../ui/layout/More'
import { Text } from '../../../ui/layout/Text'
import { useIsWide } from '../../../ui/layout/use-is-wide'
import { useLeave } from '../../../ui/layout/use-leave'
import { editKit } from '../../../kit-view'
import { session, useSession } from '../../../kit-view/session'
import { PadsSheet } from '../several/PadsSheet'
import { BringPadSheet, WalkSheet } from '../sheets-later'
import { TieBar } from '../ties/TieBar'

interface Props {
  readonly kit: Kit
  readonly mode: BoardMode
  readonly onMode: (mode: BoardMode) => void
  readonly tieKind: LineKind
  readonly onTieKind: (kind: LineKind) => void
}

/** One more pad, empty, at the end. */
export function addPad(kit: Kit): void {
  const pad = createPad(makeId, { name: `Pad ${kit.pads.length + 1}` }, freeNote(kit))
  editKit(kit.id, [{ type: 'addPad', pad, index: kit.pads.length }])
  session.setState({ padId: pad.id })
}

/** What a touch of a pad does: it plays, it takes it up to change its place, or it draws a tie from it. */
export type BoardMode = 'play' | 'arrange' | 'tie'

const SIZE_STEP = 1.15
const BAR_PX = 52

/** What is done with the pads, in words: the arrangement, what holds for several, and one more pad. */
export function BoardBar({ kit, mode, onMode, tieKind, onTieKind }: Props) {
  const isWide = useIsWide()
  const hearsAgain = useSession((state) => state.hearsAgain)
  const [isEditing, setEditing] = useState(false)
  const [isWalking, setWalking] = useState(false)
  const [isBringing, setBringing] = useState(false)
  if (mode === 'arrange') return <ArrangeBar kit={kit} onDone={() => onMode('play')} />
  if (mode === 'tie') return <TieBar kind={tieKind} onKind={onTieKind} onDone={() => onMode('play')} />
  const ties: Act = { label: 'Ties', icon: 'vector-curve', disabled: kit.pads.length === 0, onPress: () => onMode('tie') }
  const others: Act[] = [
    { label: 'Arrange pads', icon: 'cursor-move', disabled: kit.pads.length < 2, onPress: () => onMode('arrange') },
    { label: 'Several pads', icon: 'select-multiple', disabled: kit.pads.length < 2, onPress: () => setEditing(true) },
    { label: 'Hands', icon: 'hand-back-left-outline', onPress: () => router.navigate(`/kit/${kit.id}/hands`) },
  ]
  const walk: Act = { label: 'Walk through every cell', icon: 'walk', disabled: kit.pads.length === 0, onPress: () => setWalking(true) }
  const played: Act = { label: 'What was played', icon: 'history', onPress: () => router.navigate(`/kit/${kit.id}/performances`) }
  const bring: Act = { label: 'A pad of another kit', icon: 'import', disabled: kit.pads.length >= 128, onPress: () => setBringing(true) }
  const hearing: Act = {
    label: 'Hear pads after each change',
    icon: hearsAgain ? 'ear-hearing' : 'ear-hearing-off',
    on: hearsAgain,
    onPress: () => session.setState({ hearsAgain: !hearsAgain }),
  }
  const shown = isWide ? [...others.slice(0, 2), ties, ...others.slice(2)] : [ties]
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, paddingHorizontal: 12, height: BAR_PX }}>
      {shown.map(({ label, disabled, onPress }) => (
        <Button key={label} label={label} disabled={disabled} onPress={onPress} />
      ))}
      <More title="The board" acts={isWide ? [bring, played, walk, hearing] : [...others, bring, played, walk, hearing]} />
      <View style={{ flex: 1 }} />
      <Button label="Add pad" onPress={() => addPad(kit)} disabled={kit.pads.length >= 128} />
      {isBringing && <BringPadSheet kit={kit} onClose={() => setBringing(false)} />}
      {isWalking && <WalkSheet kit={kit} onClose={() => setWalking(false)} />}
      {isEditing && <PadsSheet kit={kit} onClose={() => setEditing(false)} />}
    </View>
  )
}

/** While pads are arranged: how many stand in a row, how large they are, and the way out of it. */
function ArrangeBar({ kit, onDone }: { readonly kit: Kit; readonly onDone: () => void }) {
  const isWide = useIsWide()
  const most = isWide ? 16 : 8
  const { columns, size = 1 } = kit.arrangement
  const arrange = (changes: Partial<Kit['arrangement']>) =>
    editKit(kit.id, [{ type: 'setKit', fields: { arrangement: { ...kit.arrangement, ...changes } } }])
  const setSize = (factor: number) => arrange({ size: Math.min(2.5, Math.max(0.4, Math.round(100 * size * factor) / 100)) })
  useLeave(onDone)
  return (
    <View>
      <View style={{ flexDirection: 'row', alignItems: 'center', paddingHorizontal: 12, height: BAR_PX }}>
        <IconButton name="minus" label="Fewer columns" disabled={columns <= 1} onPress={() => arrange({ columns: columns - 1 })} />
        <Text look="small" style={{ minWidth: 76, textAlign: 'center' }}>
          {columns === 1 ? '1 column' : `${columns} columns`}
        </Text>
        <IconButton name="plus" label="More columns" disabled={columns >= most} onPress={() => arrange({ columns: columns + 1 })} />
        <View style={{ width: 8 }} />
        <IconButton name="circle-small" label="Smaller pads" disabled={size <= 0.4} onPress={() => setSize(1 / SIZE_STEP)} />
        <Text look="small" aria-hidden>
          Size
        </Text>
        <IconButton name="circle-outline" label="Larger pads" disabled={size >= 2.5} onPress={() => setSize(SIZE_STEP)} />
        <View style={{ flex: 1 }} />
        <Button label="Done" kind="main" onPress={onDone} />
      </View>
      <Text look="small" tone="muted" style={{ paddingHorizontal: 16, paddingBottom: 6 }}>
        Drag one pad onto another, or tap both, and they change places.
      </Text>
    </View>
  )
}
