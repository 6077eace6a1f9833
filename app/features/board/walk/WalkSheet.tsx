import { bandsOfRay, padSettings } from '@heliaster/core/kit'
import type { Band, Kit, Pad, Turn } from '@heliaster/core/kit'
import { cellsToWalk, cellWords, clipsOfCell, firstUnjudged, stillToRedo } from '@heliaster/core/place'
import type { WalkedCell } from '@heliaster/core/place'
import { useEffect, useEffectEvent, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { hearClip, hearTurn } from '../../../audio/engine/sound'
import { PadGlyph } from '../../../kit-view/PadGlyph'
import { Button } from '../../../ui/controls/Button'
import { notify } from '../../../ui/layout/notices'
import { Progress } from '../../../ui/layout/Progress'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { RecordHereSheet } from '../../record-here'
import { forgetWalk, judge, walkOf, walks } from './walks'

interface Props {
  readonly kit: Kit
  readonly onClose: () => void
}

/** A walk through every cell of the kit: each is heard and kept, or noted to be struck again; the list at its end is recorded from. */
export function WalkSheet({ kit, onClose }: Props) {
  const judged = useStore(walks, ({ kits }) => kits[kit.id]) ?? walkOf(kit.id)
  const cells = cellsToWalk(kit)
  const [at, setAt] = useState(() => firstUnjudged(kit, judged))
  const cell = at === undefined ? undefined : cells[at]
  const [recording, setRecording] = useState<WalkedCell>()
  const recordingPad = kit.pads.find(({ id }) => id === recording?.padId)
  if (recording && recordingPad)
    return (
      <RecordHereSheet
        kit={kit}
        pad={recordingPad}
        target={{ kind: 'turn', turnId: recording.turnId, rayId: recording.rayId }}
        onClose={() => setRecording(undefined)}
      />
    )
  if (cell && at !== undefined)
    return <CellSheet key={at} kit={kit} cell={cell} at={at} count={cells.length} onGo={setAt} onClose={onClose} />
  return (
    <RedoSheet
      kit={kit}
      cells={cells.length}
      redo={stillToRedo(kit, judged)}
      onRecord={setRecording}
      onAnew={() => (forgetWalk(kit.id), setAt(cells.length > 0 ? 0 : undefined))}
      onClose={onClose}
    />
  )
}

interface CellProps {
  readonly kit: Kit
  readonly cell: WalkedCell
  readonly at: number
  readonly count: number
  /** To a cell by its place; to the list where there is none. */
  readonly onGo: (at: number | undefined) => void
  readonly onClose: () => void
}

/** One cell on the way: it sounds as it is reached. Enter keeps it, R notes it, Space sounds it again. */
function CellSheet({ kit, cell, at, count, onGo, onClose }: CellProps) {
  const pad = kit.pads.find(({ id }) => id === cell.padId)!
  const place = placeOf(kit, cell)
  const hear = () => hearCell(pad, cell, place)
  const begin = useEffectEvent(hear)
  const say = (verdict: 'keep' | 'redo') => {
    judge(kit.id, cell.turnId, { verdict, was: clipsOfCell(kit, cell) ?? '' })
    onGo(at + 1 < count ? at + 1 : undefined)
  }
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    const act = { Enter: () => say('keep'), KeyR: () => say('redo'), Space: hear, ArrowLeft: () => at > 0 && onGo(at - 1) }[event.code]
    if (!act || event.repeat || event.ctrlKey || event.metaKey || event.altKey) return
    event.preventDefault()
    event.stopPropagation() // neither a button that has the focus nor a pad takes it too
    act()
  })
  useEffect(() => {
    begin()
    window.addEventListener('keydown', onKey, { capture: true })
    return () => window.removeEventListener('keydown', onKey, { capture: true })
  }, [])
  return (
    <Sheet
      title={`Cell ${at + 1} of ${count}`}
      isOpen
      onClose={onClose}
      actions={
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <Button label="Strike again later" kind="coral" style={{ flex: 1 }} onPress={() => say('redo')} />
          <Button label="Keep it" kind="main" style={{ flex: 1 }} onPress={() => say('keep')} />
        </View>
      }
    >
      <Progress label="How far the walk is" share={at / count} />
      <View style={{ alignItems: 'center', gap: 6, paddingVertical: 8 }}>
        <PadGlyph kit={kit} pad={pad} size={132} lit={{ band: cell.band - 1, turn: cell.turn - 1 }} />
        <Text look="heading">{padSettings(kit, pad).name || 'Unnamed pad'}</Text>
        <Text tone="muted">{`${rayWords(pad.rays, cell)}${cellWords(cell)}`}</Text>
      </View>
      <View style={{ flexDirection: 'row', justifyContent: 'center', gap: 8 }}>
        <Button label="The one before" disabled={at === 0} onPress={() => onGo(at - 1)} />
        <Button label="Hear it again" icon="play-outline" onPress={hear} />
        <Button label="To the list" onPress={() => onGo(undefined)} />
      </View>
      <Text look="small" tone="muted" style={{ textAlign: 'center' }}>
        Enter keeps it, R notes it to be struck again, Space sounds it again, the left arrow goes back.
      </Text>
    </Sheet>
  )
}

interface RedoProps {
  readonly kit: Kit
  readonly cells: number
  readonly redo: readonly WalkedCell[]
  readonly onRecord: (cell: WalkedCell) => void
  readonly onAnew: () => void
  readonly onClose: () => void
}

/** What is to be struck again, at which strength; each leaves the list as soon as it is recorded. */
function RedoSheet({ kit, cells, redo, onRecord, onAnew, onClose }: RedoProps) {
  return (
    <Sheet title="To be struck again" isOpen onClose={onClose} actions={<Button label="Walk through all cells anew" onPress={onAnew} />}>
      {redo.length === 0 && (
        <Text tone="muted">
          {cells === 0
            ? 'This kit has no cells with clips yet. Send hits from Cut, or record onto a pad.'
            : 'Nothing is left to be struck again: every cell that was walked through is kept.'}
        </Text>
      )}
      {redo.map((cell) => {
        const pad = kit.pads.find(({ id }) => id === cell.padId)!
        const name = padSettings(kit, pad).name || 'Unnamed pad'
        const where = `${rayWords(pad.rays, cell)}${cellWords(cell)}`
        return <Button key={cell.turnId} label={`Record ${name}, ${where}`} icon="record-circle-outline" onPress={() => onRecord(cell)} />
      })}
    </Sheet>
  )
}

/** Sounds a cell as a strike of its band does; of a ray with bands of its own, its clip alone. */
function hearCell(pad: Pad, { rayId, fromVelocity, toVelocity }: WalkedCell, place: ReturnType<typeof placeOf>): void {
  if (!place) return
  const clip = rayId && place.turn.clips[rayId]
  if (!rayId) hearTurn(pad, place.turn, place.band, Math.round((fromVelocity + toVelocity) / 2))
  else if (clip && clip !== 'intendedSilence') hearClip(clip).catch((error: Error) => notify(error.message))
}

function rayWords(rays: Kit['pads'][number]['rays'], { rayId }: WalkedCell): string {
  const ray = rays.find(({ id }) => id === rayId)
  return ray ? `${ray.name}: ` : ''
}

function placeOf(kit: Kit, { padId, turnId, rayId }: WalkedCell): { readonly band: Band; readonly turn: Turn } | undefined {
  const pad = kit.pads.find(({ id }) => id === padId)
  const ray = pad?.rays.find(({ id }) => id === rayId)
  const bands = pad && (ray ? bandsOfRay(pad, ray) : pad.bands)
  for (const band of bands ?? []) {
    const turn = band.turns.find(({ id }) => id === turnId)
    if (turn) return { band, turn }
  }
  return undefined
}
