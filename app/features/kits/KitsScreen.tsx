import { facesOf } from '@heliaster/core/kit'
import type { DocumentSummary, Kit, KitEdit, KitId } from '@heliaster/core/kit'
import { router, useIsFocused } from 'expo-router'
import { useEffect, useMemo, useRef, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { useStore } from 'zustand'

import { device, kits, saveState } from '../../documents'
import type { Entry } from '../../documents/documents'
import { isMeant } from '../../kit-view/is-meant'
import { Button, IconButton } from '../../ui/controls/Button'
import { SearchField } from '../../ui/controls/SearchField'
import { screenStands } from '../../ui/device/first-screen'
import { useNow } from '../../ui/device/use-now'
import { notify } from '../../ui/layout/notices'
import { Star } from '../../ui/drawing/Star'
import { Waiting } from '../../ui/layout/Waiting'
import { Text } from '../../ui/layout/Text'
import { useWhileSeen } from '../../ui/layout/use-while-seen'
import { chooseTheme, usePalette } from '../../ui/theme/theme'
import { SaveMark } from '../../shell'
import { hearLater } from './hear-later'
import { KitList } from './KitList'
import type { ListedKit } from './KitList'
import { KitMenu } from './KitMenu'
import { createEmptyKit, createKitLike, openBundleFile } from './kit-actions'
import { LikeSheet } from './like-later'
import { readySoon } from './ready-soon'

/** So many kits are found by name. */
const FIND_FROM = 8
const MINUTE_MS = 60_000

/** All kits: open one, begin one, bring one in. */
export function KitsScreen() {
  const palette = usePalette()
  const store = useWhileSeen(kits.store)
  const entries = useStore(store, (state) => state.entries)
  const loaded = useStore(store, (state) => state.loaded)
  const [menuFor, setMenuFor] = useState<KitId>()
  const [busy, setBusy] = useState(false)
  const [isLike, setLike] = useState(false)
  const elsewhere = useStore(store, (state) => state.elsewhere)
  const isKnown = useStore(saveState, ({ listed: isListed, state }) => isListed === true || state === 'away')
  const [words, setWords] = useState('')
  const all = useMemo(() => listed(entries, elsewhere), [entries, elsewhere])
  const list = useMemo(() => all.filter(({ name }) => isMeant(name, words)), [all, words])
  const isSeen = useIsFocused()
  const nowMs = useNow(MINUTE_MS, isSeen)
  const { hearing, toggle } = useHearing(isSeen)
  useEffect(readySoon, [])
  useEffect(screenStands, [])
  const beginLike = async (kit: Kit) => {
    const { id } = await createKitLike(kit)
    setLike(false)
    router.navigate(`/kit/${id}/board`)
  }
  const openMenu = async (id: KitId) => (await kitHere(id)) && setMenuFor(id)
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
      {all.some(({ pads }) => pads > 0) && (
        <Button
          label="Like another kit, without its sounds"
          kind="quiet"
          onPress={() => setLike(true)}
          style={{ alignSelf: 'flex-start', marginLeft: -9 }}
        />
      )}
      {isLike && <LikeSheet onClose={() => setLike(false)} onBegin={(kit) => void beginLike(kit)} />}
      {all.length >= FIND_FROM && <SearchField placeholder="Find a kit" value={words} onChange={setWords} />}
      <KitList kits={list} nowMs={nowMs} hearing={hearing} onHear={toggle} onMenu={(id) => void openMenu(id)} />
      {all.length > 0 && list.length === 0 && <Text tone="muted">{`No kit is called like “${words.trim()}”.`}</Text>}
      {all.length === 0 && !(loaded && isKnown) && <Waiting words="Reading the kits" />}
      {all.length === 0 && loaded && isKnown && <Text tone="muted">No kits yet. Begin one, then record anything that can be struck.</Text>}
      <KitMenu kit={menuFor && entries[menuFor]?.doc} onClose={() => setMenuFor(undefined)} />
    </ScrollView>
  )
}

function listed(entries: Readonly<Record<string, Entry<Kit, KitEdit>>>, elsewhere: Readonly<Record<string, DocumentSummary>>): ListedKit[] {
  return [...Object.values(entries).map(rowOfEntry), ...Object.values(elsewhere).map(rowOfSummary)].sort(
    (a, b) => b.changedAt - a.changedAt,
  )
}

/** The same row for the same kit, so that of a long list only what has changed is drawn anew. */
const rowOfEntry = once(({ doc, changedAt }: Entry<Kit, KitEdit>): ListedKit => ({
  id: doc.id,
  name: doc.name,
  changedAt,
  ...facesOf(doc),
}))
const rowOfSummary = once(({ id, name, changedAt, kit }: DocumentSummary): ListedKit => ({
  id,
  name,
  changedAt,
  ...(kit ?? { pads: 0, faces: [] }),
}))

function once<Of extends object, Row>(make: (of: Of) => Row): (of: Of) => Row {
  const made = new WeakMap<Of, Row>()
  return (of) => {
    if (!made.has(of)) made.set(of, make(of))
    return made.get(of)!
  }
}

/** A kit of the list, fetched where only the server has it; where that cannot be it is said. */
async function kitHere(id: KitId): Promise<Kit | undefined> {
  const here = () => kits.store.getState().entries[id]?.doc
  if (!here()) await device.fetchDocument('kit', id).catch(() => undefined)
  if (!here()) notify('This kit is on the server, and the server cannot be reached just now.')
  return here()
}

/** The kit that is heard now, one at a time; leaving the screen ends it. */
function useHearing(isSeen: boolean) {
  const [hearing, setHearing] = useState<KitId>()
  const stop = useRef<() => void>(undefined)
  const end = () => {
    stop.current?.()
    stop.current = undefined
    setHearing(undefined)
  }
  useEffect(() => {
    if (!isSeen) return undefined
    return () => {
      stop.current?.()
      stop.current = undefined
      setHearing(undefined)
    }
  }, [isSeen])
  const toggle = async (id: KitId) => {
    const isOn = hearing === id
    end()
    if (isOn) return
    setHearing(id)
    let isStopped = false
    stop.current = () => (isStopped = true)
    const kit = await kitHere(id)
    const { hearKit } = await hearLater()
    if (isStopped) return
    if (kit) stop.current = hearKit(kit, () => setHearing((now) => (now === id ? undefined : now)))
    else setHearing(undefined)
  }
  return { hearing, toggle: (id: KitId) => void toggle(id) }
}
