import { facesOf } from '@heliaster/core/kit'
import type { DocumentSummary, Kit, KitEdit, KitFaces, KitId } from '@heliaster/core/kit'
import { router, useIsFocused } from 'expo-router'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Pressable, ScrollView, View } from 'react-native'
import { useStore } from 'zustand'

import { device, kits, saveState } from '../../documents'
import type { Entry } from '../../documents/documents'
import { Button, IconButton } from '../../ui/controls/Button'
import { SearchField } from '../../ui/controls/SearchField'
import { screenStands } from '../../ui/device/first-screen'
import { useNow } from '../../ui/device/use-now'
import { notify } from '../../ui/layout/notices'
import { Row } from '../../ui/layout/Row'
import { Star } from '../../ui/drawing/Star'
import { Waiting } from '../../ui/layout/Waiting'
import { Text } from '../../ui/layout/Text'
import { useWhileSeen } from '../../ui/layout/use-while-seen'
import { chooseTheme, TOUCH, usePalette } from '../../ui/theme/theme'
import { SaveMark } from '../../shell'
import { changedWords } from './changed-words'
import { hearLater } from './hear-later'
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
      <View role="list" style={{ gap: 0 }}>
        {list.map((kit) => (
          <KitRow
            key={kit.id}
            kit={kit}
            nowMs={nowMs}
            isHearing={kit.id === hearing}
            onHear={() => toggle(kit.id as KitId)}
            onMenu={kit.id in entries ? () => setMenuFor(kit.id as KitId) : undefined}
          />
        ))}
      </View>
      {all.length > 0 && list.length === 0 && <Text tone="muted">{`No kit is called like “${words.trim()}”.`}</Text>}
      {all.length === 0 && !(loaded && isKnown) && <Waiting words="Reading the kits" />}
      {all.length === 0 && loaded && isKnown && <Text tone="muted">No kits yet. Begin one, then record anything that can be struck.</Text>}
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

/** Whether all that is looked for is in a name, in any order. */
function isMeant(name: string, words: string): boolean {
  const lower = name.toLowerCase()
  return words.toLowerCase().split(/\s+/).every((word) => lower.includes(word)) // prettier-ignore
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
    if (!(id in kits.store.getState().entries)) await device.fetchDocument('kit', id).catch(() => undefined)
    const { hearKit } = await hearLater()
    const kit = kits.store.getState().entries[id]?.doc
    if (isStopped) return
    if (kit) stop.current = hearKit(kit, () => setHearing((now) => (now === id ? undefined : now)))
    else {
      setHearing(undefined)
      notify('This kit is on the server, and the server cannot be reached just now.')
    }
  }
  return { hearing, toggle: (id: KitId) => void toggle(id) }
}

interface RowProps {
  readonly kit: ListedKit
  readonly nowMs: number
  readonly isHearing: boolean
  readonly onHear: () => void
  readonly onMenu?: () => void
}

function KitRow({ kit, nowMs, isHearing, onHear, onMenu }: RowProps) {
  const changed = changedWords(kit.changedAt, nowMs)
  return (
    <Row>
      {kit.pads > 0 ? (
        <IconButton
          name={isHearing ? 'stop' : 'play-outline'}
          label={isHearing ? `Stop hearing ${kit.name}` : `Hear ${kit.name}`}
          on={isHearing}
          onPress={onHear}
        />
      ) : (
        <View style={{ width: TOUCH }} />
      )}
      <Pressable
        role="button"
        aria-label={`Open ${kit.name}`}
        onPress={() => router.navigate(`/kit/${kit.id}/${kit.pads > 0 ? 'board' : 'gather'}`)}
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
      {onMenu && <IconButton name="dots-horizontal" label={`More for ${kit.name}`} onPress={onMenu} />}
    </Row>
  )
}
