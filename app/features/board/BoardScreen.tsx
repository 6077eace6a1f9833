import type { Kit, PadId, TieId } from '@heliaster/core/kit'
import type { LineKind } from '@heliaster/core/ties'
import { router } from 'expo-router'
import { useDeferredValue, useState } from 'react'
import { ScrollView, View } from 'react-native'

import { Button } from '../../ui/controls/Button'
import { Sheet } from '../../ui/layout/Sheet'
import { Text } from '../../ui/layout/Text'
import { usePalette } from '../../ui/theme/theme'
import { useMomentLater } from '../../ui/layout/use-moment-later'
import { useIsWide } from '../../ui/layout/use-is-wide'
import { DropOnPads } from '../place'
import { useKit } from '../../kit-view'
import { TestStrikes } from '../../kit-view/TestStrikes'
import { padName, useChosenPad } from '../../kit-view/use-kit'
import { addPad, BoardBar } from './pads/BoardBar'
import type { BoardMode } from './pads/BoardBar'
import { PadCard } from './pads/PadCard'
import { PadPanel } from './pad/PadPanel'
import { PadTable } from './pads/PadTable'
import { PadsSheet } from './several/PadsSheet'
import { TiesPanel } from './sheets-later'
import { tieCount } from './ties/tie-count'

/** Not `undefined`, which would be as if nothing was said of how it begins. */
const NONE = null

/** Where pads are laid out, filled and played. */
export function BoardScreen() {
  const palette = usePalette()
  const isWide = useIsWide()
  const kit = useKit()
  const chosen = useChosenPad()
  const shownId = useDeferredValue(chosen?.pad.id, NONE) // a pad that is struck is marked first, what is on it comes right after
  const hasParts = useMomentLater(shownId !== NONE) // and once only, as the Board is opened, its parts after it
  const shown = shownId && (kit?.pads.find(({ id }) => id === shownId) ?? chosen?.pad)
  const [open, setOpen] = useState(false)
  const [mode, setMode] = useState<BoardMode>('play')
  const [tieKind, setTieKind] = useState<LineKind>('choke')
  const [tieId, setTieId] = useState<TieId>()
  const [together, setTogether] = useState<readonly PadId[]>()
  if (!kit) return null
  if (kit.pads.length === 0)
    return (
      <DropOnPads kit={kit}>
        <EmptyBoard kit={kit} />
      </DropOnPads>
    )
  const several = together && <PadsSheet kit={kit} chosen={together} onClose={() => setTogether(undefined)} />
  if (isWide)
    return (
      <View style={{ flex: 1, flexDirection: 'row', minHeight: 0 }}>
        <View style={{ flex: 1, minWidth: 0 }}>
          <BoardBar kit={kit} mode={mode} onMode={setMode} tieKind={tieKind} onTieKind={setTieKind} />
          <DropOnPads kit={kit}>
            <PadTable kit={kit} mode={mode} tieKind={tieKind} tieId={tieId} onChoose={setTogether} />
          </DropOnPads>
        </View>
        <ScrollView
          style={{ width: 460, flexGrow: 0, borderLeftWidth: 1, borderLeftColor: palette.faint }}
          contentContainerStyle={{ padding: 20, gap: 18 }}
        >
          {mode === 'tie' ? (
            <TiesPanel kit={kit} chosen={tieId} onChoose={setTieId} />
          ) : (
            shown && <PadPanel key={shown.id} kit={kit} pad={shown} isHead={!hasParts} />
          )}
        </ScrollView>
        {several}
      </View>
    )
  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <BoardBar kit={kit} mode={mode} onMode={setMode} tieKind={tieKind} onTieKind={setTieKind} />
      <DropOnPads kit={kit}>
        <PadTable kit={kit} mode={mode} tieKind={tieKind} tieId={tieId} onChoose={setTogether} />
      </DropOnPads>
      {several}
      {mode === 'tie' ? (
        <View style={{ padding: 8, paddingHorizontal: 16 }}>
          <Button label={kit.ties.length === 0 ? tieCount(kit) : `${tieCount(kit)}: see and set`} onPress={() => setOpen(true)} />
        </View>
      ) : (
        chosen && <PadCard kit={kit} pad={chosen.pad} onOpen={() => setOpen(true)} />
      )}
      {mode === 'tie' && (
        <Sheet title="Ties" isOpen={open} onClose={() => setOpen(false)}>
          <TiesPanel kit={kit} chosen={tieId} onChoose={setTieId} />
        </Sheet>
      )}
      {mode !== 'tie' && chosen && (
        <Sheet title={padName(kit, chosen.pad)} beside={<TestStrikes padId={chosen.pad.id} />} isOpen={open} onClose={() => setOpen(false)}>
          <PadPanel key={chosen.pad.id} kit={kit} pad={chosen.pad} />
        </Sheet>
      )}
    </View>
  )
}

function EmptyBoard({ kit }: { readonly kit: Kit }) {
  return (
    <View style={{ flex: 1, alignItems: 'center', justifyContent: 'center', gap: 16, padding: 28 }}>
      <Text look="heading">No pads yet</Text>
      <Text tone="muted" style={{ textAlign: 'center', maxWidth: 340 }}>
        Record something being struck, and its hits become pads.
      </Text>
      <Button label="Record" kind="main" onPress={() => router.navigate(`/kit/${kit.id}/gather`)} />
      <Button label="Add pad" onPress={() => addPad(kit)} />
    </View>
  )
}
