import type { Kit, KitId } from '@heliaster/core/kit'
import { router } from 'expo-router'
import { useState } from 'react'
import { Pressable, ScrollView, View } from 'react-native'
import { useStore } from 'zustand'

import { kits } from '../../stores/documents'
import { Button, IconButton } from '../../ui/Button'
import { Star } from '../../ui/Star'
import { Text } from '../../ui/Text'
import { chooseTheme, usePalette } from '../../ui/theme'
import { KitMenu } from './KitMenu'
import { createEmptyKit, openBundleFile } from './kit-actions'

/** All kits: open one, begin one, bring one in. */
export function KitsScreen() {
  const palette = usePalette()
  const entries = useStore(kits.store, (state) => state.entries)
  const loaded = useStore(kits.store, (state) => state.loaded)
  const [menuFor, setMenuFor] = useState<KitId>()
  const [busy, setBusy] = useState(false)
  const list = Object.values(entries).sort((a, b) => b.changedAt - a.changedAt)
  const openBundle = async () => {
    setBusy(true)
    await openBundleFile()
    setBusy(false)
  }
  return (
    <ScrollView
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
          onPress={() => void createEmptyKit().then((kit) => router.navigate(`/kit/${kit.id}/gather`))}
        />
        <Button label="Open bundle" icon="folder-open-outline" style={{ flex: 1 }} busy={busy} onPress={() => void openBundle()} />
      </View>
      <View role="list" style={{ gap: 0 }}>
        {list.map(({ doc }) => (
          <KitRow key={doc.id} kit={doc} onMenu={() => setMenuFor(doc.id)} />
        ))}
      </View>
      {loaded && list.length === 0 && <Text tone="muted">No kits yet. Begin one, then record anything that can be struck.</Text>}
      <KitMenu kit={menuFor && entries[menuFor]?.doc} onClose={() => setMenuFor(undefined)} />
    </ScrollView>
  )
}

function KitRow({ kit, onMenu }: { readonly kit: Kit; readonly onMenu: () => void }) {
  const palette = usePalette()
  return (
    <View role="listitem" style={{ flexDirection: 'row', alignItems: 'center', borderTopWidth: 1, borderTopColor: palette.line }}>
      <Pressable
        role="button"
        aria-label={`Open ${kit.name}`}
        onPress={() => router.navigate(`/kit/${kit.id}/${kit.pads.length > 0 ? 'board' : 'gather'}`)}
        style={{ flex: 1, paddingVertical: 14, gap: 8 }}
      >
        <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: 10 }}>
          <Text look="heading" numberOfLines={1} style={{ flexShrink: 1 }}>
            {kit.name}
          </Text>
          <Text look="small" tone="muted">
            {kit.pads.length === 1 ? '1 pad' : `${kit.pads.length} pads`}
          </Text>
        </View>
        {kit.pads.length > 0 && (
          <View style={{ flexDirection: 'row', gap: 6, height: 26, overflow: 'hidden' }}>
            {kit.pads.slice(0, 16).map((pad) => (
              <Star key={pad.id} size={26} turns={pad.bands.map((band) => band.turns.length)} />
            ))}
          </View>
        )}
      </Pressable>
      <IconButton name="dots-horizontal" label={`More for ${kit.name}`} onPress={onMenu} />
    </View>
  )
}
