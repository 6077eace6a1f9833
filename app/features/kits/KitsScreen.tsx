import { facesOf } from '@heliaster/core/kit'
import type { DocumentSummary, Kit, KitEdit, KitFaces, KitId } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { useState } from 'react'
import { Pressable, ScrollView, View } from 'react-native'
import { useStore } from 'zustand'

import { kits } from '../../documents'
import type { Entry } from '../../documents/documents'
import { Button, IconButton } from '../../ui/controls/Button'
import { Row } from '../../ui/layout/Row'
import { Star } from '../../ui/drawing/Star'
import { Waiting } from '../../ui/layout/Waiting'
import { Text } from '../../ui/layout/Text'
import { chooseTheme, usePalette } from '../../ui/theme/theme'
import { SaveMark } from '../../shell'
import { KitMenu } from './KitMenu'
import { createEmptyKit, openBundleFile } from './kit-actions'

/** All kits: open one, begin one, bring one in. */
export function KitsScreen() {
  const palette = usePalette()
  const entries = useStore(kits.store, (state) => state.entries)
  const loaded = useStore(kits.store, (state) => state.loaded)
  const [menuFor, setMenuFor] = useState<KitId>()
  const [busy, setBusy] = useState(false)
  const elsewhere = useStore(kits.store, (state) => state.elsewhere)
  const list = listed(entries, elsewhere)
  const openBundle = async () => {
    setBusy(true)
    await openBundleFile()
    setBusy(false)
  }
  return (
    <ScrollView
      role="main"
      style={{ backgroundColor: palette.paper }}
      contentContainerStyle={{ padding: 20, paddingBottom: 48, gap: 20, width: '100%', maxWidth: 720, alignSelf: 'center' }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
        <Star turns={[1, 3, 7]} size={44} lit={{ band: 2, turn: 1 }} />
        <View style={{ flex: 1 }}>
          <Text look="title">Heliaster</Text>
          <Text look="small" tone="muted">
            Drum kits out of recorded hits
          </Text>
          <SaveMark />
        </View>
        <IconButton
          name={palette.name === 'day' ? 'weather-night' : 'white-balance-sunny'}
          label={palette.name === 'day' ? 'Night colours' : 'Day colours'}
          onPress={() => chooseTheme(palette.name === 'day' ? 'night' : 'day')}
        />
      </View>
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button
          label="New kit"
          kind="main"
          icon="plus"
          style={{ flex: 1 }}
          onPress={() => router.navigate(`/kit/${createEmptyKit().id}/gather`)}
        />
        <Button label="Open bundle" icon="folder-open-outline" style={{ flex: 1 }} busy={busy} onPress={() => void openBundle()} />
      </View>
      <View role="list" style={{ gap: 0 }}>
        {list.map((kit) => (
          <KitRow key={kit.id} kit={kit} onMenu={kit.id in entries ? () => setMenuFor(kit.id as KitId) : undefined} />
        ))}
      </View>
      {!loaded && list.length === 0 && <Waiting words="Reading the kits" />}
      {loaded && list.length === 0 && <Text tone="muted">No kits yet. Begin one, then record anything that can be struck.</Text>}
      <KitMenu kit={menuFor && entries[menuFor]?.doc} onClose={() => setMenuFor(undefined)} />
    </ScrollView>
  )
}

/** What a row shows of a kit, whether its document is on this device or only listed by the server. */
interface ListedKit extends KitFaces {
  readonly id: string
  readonly name: string
  readonly changedAt: number
}

function listed(entries: Readonly<Record<string, Entry<Kit, KitEdit>>>, elsewhere: Readonly<Record<string, DocumentSummary>>): ListedKit[] {
  const here = Object.values(entries).map(({ doc, changedAt }) => ({ id: doc.id, name: doc.name, changedAt, ...facesOf(doc) }))
  const there = Object.values(elsewhere).map(({ id, name, changedAt, kit }) => ({
    id,
    name,
    changedAt,
    ...(kit ?? { pads: 0, faces: [] }),
  }))
  return [...here, ...there].sort((a, b) => b.changedAt - a.changedAt)
}

function KitRow({ kit, onMenu }: { readonly kit: ListedKit; readonly onMenu?: () => void }) {
  return (
    <Row>
      <Pressable
        role="button"
        aria-label={`Open ${kit.name}`}
        onPress={() => router.navigate(`/kit/${kit.id}/${kit.pads > 0 ? 'board' : 'gather'}`)}
        style={{ flex: 1, paddingVertical: 14, gap: 8 }}
      >
        <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: 10 }}>
          <Text look="heading" numberOfLines={1} style={{ flexShrink: 1 }}>
            {kit.name}
          </Text>
          <Text look="small" tone="muted">
            {kit.pads === 1 ? '1 pad' : `${kit.pads} pads`}
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
      {onMenu && <IconButton name="dots-horizontal" label={`More for ${kit.name}`} onPress={onMenu} />}
    </Row>
  )
}
