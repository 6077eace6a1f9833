import type { Band, BandId, Clip, Kit, KitEdit, Pad, PadSettings, Turn, TurnId } from '@heliaster/core/kit'
import { setCells, withoutTurns } from '@heliaster/core/place'
import type { Cells, TakeTarget } from '@heliaster/core/place'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { soloed, toggleAlone } from '../../../../audio/engine/solo'
import { hearTurn } from '../../../../audio/engine/sound'
import { Button, IconButton } from '../../../../ui/controls/Button'
import { Chips } from '../../../../ui/controls/Chips'
import { Slider } from '../../../../ui/controls/Slider'
import { notify } from '../../../../ui/layout/notices'
import { Text } from '../../../../ui/layout/Text'
import { Toggle } from '../../../../ui/controls/Toggle'
import { editKit } from '../../../../kit-view'
import type { padGesture } from '../../../../kit-view/use-kit'
import { cellsInScope, scopesOf } from './cell-scopes'
import { ClipOfCell } from './ClipOfCell'
import type { CellScope } from './cell-scopes'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly cells: Cells
  readonly turnId: TurnId
  /** Cells that were marked together; none where it is about one. */
  readonly marked: readonly TurnId[]
  readonly pick: PadSettings['pick']
  readonly gesture: ReturnType<typeof padGesture>
  readonly onSwap: (one: TurnId, other: TurnId) => void
  readonly onMove: (turnId: TurnId, to: BandId) => void
  readonly onRecord: (target: TakeTarget) => void
  readonly onFile: (turnId: TurnId) => void
}

/** What is set on one cell, or on all cells that a rule picks with it, and where it goes. */
export function CellPanel(props: Props) {
  const { kit, pad, cells, turnId, marked, pick, gesture, onRecord, onFile } = props
  const { ray, bands } = cells
  const [scope, setScope] = useState<CellScope>(marked.length > 1 ? 'marked' : 'cell')
  const band = bands.findIndex((one) => one.turns.some((turn) => turn.id === turnId))
  const isAlone = useStore(soloed, (state) => state.turns.includes(turnId))
  if (band < 0) return null
  const { turns } = bands[band]
  const place = turns.findIndex(({ id }) => id === turnId)
  const turn = turns[place]
  const clip = turn.clips[ray.id]
  const edit = (...edits: KitEdit[]) => editKit(kit.id, edits, pad.id)
  const setTurns = (change: (before: readonly Turn[]) => Turn[]) =>
    setCells(
      pad,
      cells,
      bands.map((one, i) => (i === band ? { ...one, turns: change(one.turns) } : one)),
    )
  const leaving = scope === 'marked' ? marked : [turnId]
  const removeTurns = () => {
    const { bands: left, words } = withoutTurns(bands, leaving)
    edit(setCells(pad, cells, left))
    if (words) notify(words)
  }
  const scopes = scopesOf(pad, cells, band, place, marked.length)
  const isClip = clip && clip !== 'intendedSilence'
  const withClip = (next: Clip | 'intendedSilence' | null): KitEdit => ({ type: 'setClip', padId: pad.id, turnId, rayId: ray.id, clip: next }) // prettier-ignore
  return (
    <View style={{ gap: 8 }}>
      <CellMoves {...props} band={band} place={place} />
      {isClip && scopes.length > 1 && <Chips label="What is set here is for" options={scopes} value={scope} onChoose={setScope} />}
      {!isClip && (
        <Toggle
          label="Silent on purpose"
          words={`${ray.name} has no clip here.`}
          value={clip === 'intendedSilence'}
          onChange={(meant) => edit(withClip(meant ? 'intendedSilence' : null))}
        />
      )}
      {isClip && (
        <ClipOfCell
          {...{ kit, pad, cells, clip, gesture, edit, withClip }}
          isAlone={scope === 'cell'}
          chosen={cellsInScope(cells, turnId, scope, marked)}
        />
      )}
      {pick !== 'cycle' && turns.length > 1 && (
        <Slider
          label="Comes as often as, against 1 of the others"
          value={turn.weight}
          min={0}
          max={4}
          step={0.05}
          unit="×"
          neutral={1}
          onSlide={(weight) => gesture.set([setTurns((before) => before.map((one) => (one.id === turnId ? { ...one, weight } : one)))])}
          onDone={gesture.end}
        />
      )}
      <View style={{ flexDirection: 'row', gap: 8, flexWrap: 'wrap' }}>
        {pad.rays.length > 1 && !cells.isOwn && <Button label="Hear all rays" onPress={() => hearTurn(pad, turn, bands[band])} />}
        <Button label={clip ? 'Another file' : 'Choose a file'} onPress={() => onFile(turnId)} />
        <Button label="Record this cell" icon="record-circle-outline" onPress={() => onRecord({ kind: 'turn', turnId, rayId: ray.id })} />
        {(turns.length > 1 || bands.length > 1) && (
          <Button label={isAlone ? 'All turns again' : 'Keep this turn alone'} onPress={() => toggleAlone(pad, 'turns', turnId)} />
        )}
        <Button label={leaving.length > 1 ? `Remove these ${leaving.length} turns` : 'Remove this turn'} onPress={removeTurns} />
      </View>
    </View>
  )
}

/** Which cell it is, and the ways to places beside it. */
function CellMoves({
  pad,
  cells: { ray, bands },
  turnId,
  onSwap,
  onMove,
  band,
  place,
}: Props & { readonly band: number; readonly place: number }) {
  const { turns } = bands[band]
  const toBand = (other: Band | undefined, word: string) => {
    const there = other?.turns[place]
    return there
      ? { label: `Swap with the ${word} band`, run: () => onSwap(turnId, there.id) }
      : { label: `Move to the ${word} band`, run: other && (() => onMove(turnId, other.id)) }
  }
  const besides = (other: Turn | undefined, label: string) => ({ label, run: other && (() => onSwap(turnId, other.id)) })
  const ways = [
    ['chevron-left', besides(turns[place - 1], 'Swap with the turn before')],
    ['chevron-right', besides(turns[place + 1], 'Swap with the next turn')],
    ['chevron-up', toBand(bands[band + 1], 'louder')],
    ['chevron-down', toBand(bands[band - 1], 'softer')],
  ] as const
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center' }}>
      <Text look="label" style={{ flex: 1 }}>
        {`Band ${band + 1}, turn ${place + 1}${pad.rays.length > 1 ? `, ${ray.name}` : ''}`}
      </Text>
      {ways.map(([name, { label, run }]) => (
        <IconButton key={name} name={name} label={label} disabled={!run} onPress={() => run?.()} />
      ))}
    </View>
  )
}
