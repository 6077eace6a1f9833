import { MID_WARNING_DB } from '@heliaster/core/audio'
import type { Band, Clip, Kit, KitEdit, Pad, PadSettings, RayId, Source, Turn, TurnId } from '@heliaster/core/kit'
import { setCells } from '@heliaster/core/place'
import type { Cells, TakeTarget } from '@heliaster/core/place'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { sources } from '../../../stores/documents'
import { Button, IconButton } from '../../../ui/Button'
import { CHANNEL_CHOICES } from '../../../ui/channel-choices'
import { Chips } from '../../../ui/Chips'
import { Slider } from '../../../ui/Slider'
import { Text } from '../../../ui/Text'
import { Toggle } from '../../../ui/Toggle'
import { editKit } from '../../shell'
import type { padGesture } from '../../shell/use-kit'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly cells: Cells
  readonly turnId: TurnId
  readonly pick: PadSettings['pick']
  readonly gesture: ReturnType<typeof padGesture>
  readonly onSwap: (one: TurnId, other: TurnId) => void
  readonly onRecord: (target: TakeTarget) => void
  readonly onFile: (turnId: TurnId) => void
}

const SCOPES = [
  { value: 'cell', text: 'This cell' },
  { value: 'pad', text: 'All cells' },
] as const

/** What is set on one cell, and where it goes; channels of all cells when that is asked for. */
export function CellPanel({ kit, pad, cells, turnId, pick, gesture, onSwap, onRecord, onFile }: Props) {
  const { ray, bands } = cells
  const [scope, setScope] = useState<'cell' | 'pad'>('cell')
  const band = bands.findIndex((one) => one.turns.some((turn) => turn.id === turnId))
  const all = useStore(sources.store, (state) => state.entries)
  if (band < 0) return null
  const turns = bands[band].turns
  const place = turns.findIndex(({ id }) => id === turnId)
  const turn = turns[place]
  const clip = turn.clips[ray.id]
  const edit = (...edits: KitEdit[]) => editKit(kit.id, edits, pad.id)
  const withClip = (next: Clip | 'intendedSilence' | null): KitEdit => ({
    type: 'setClip',
    padId: pad.id,
    turnId,
    rayId: ray.id,
    clip: next,
  })
  const setTurns = (change: (before: readonly Turn[]) => Turn[]) =>
    setCells(
      pad,
      cells,
      bands.map((one, i) => (i === band ? { ...one, turns: change(one.turns) } : one)),
    )
  const neighbours = [
    ['chevron-left', 'Swap with the turn before', turns[place - 1]],
    ['chevron-right', 'Swap with the next turn', turns[place + 1]],
    ['chevron-up', 'Swap with the louder band', bands[band + 1]?.turns[place]],
    ['chevron-down', 'Swap with the softer band', bands[band - 1]?.turns[place]],
  ] as const
  const stereo = placedClips(bands, scope === 'cell' ? turnId : undefined).filter((one) => (kit.audio[one.clip.audio]?.channels ?? 1) > 1)
  const channels = new Set(stereo.map((one) => one.clip.channel))
  const setChannel = (channel: Clip['channel']) =>
    edit(
      ...stereo.map((one): KitEdit => ({
        type: 'setClip',
        padId: pad.id,
        turnId: one.turnId,
        rayId: one.rayId,
        clip: { ...one.clip, channel },
      })),
    )
  const cancelling = channels.has('mid') && stereo.some((one) => one.clip.channel === 'mid' && midCancels(all, one.clip))
  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Text look="label" style={{ flex: 1 }}>
          {`Band ${band + 1}, turn ${place + 1}${pad.rays.length > 1 ? `, ${ray.name}` : ''}`}
        </Text>
        {neighbours.map(([name, label, other]) => (
          <IconButton key={name} name={name} label={label} disabled={!other} onPress={() => other && onSwap(turnId, other.id)} />
        ))}
      </View>
      {clip && clip !== 'intendedSilence' ? (
        <Slider
          label="Level of this clip"
          value={clip.gainDb}
          min={-60}
          max={60}
          step={0.1}
          unit="dB"
          neutral={0}
          onSlide={(gainDb) => gesture.set([withClip({ ...clip, gainDb })])}
          onDone={gesture.end}
        />
      ) : (
        <Toggle
          label="Silent on purpose"
          words={`${ray.name} has no clip here.`}
          value={clip === 'intendedSilence'}
          onChange={(meant) => edit(withClip(meant ? 'intendedSilence' : null))}
        />
      )}
      {pick === 'random' && turns.length > 1 && (
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
        <Button label={clip ? 'Another file' : 'Choose a file'} onPress={() => onFile(turnId)} />
        <Button label="Record this cell" icon="record-circle-outline" onPress={() => onRecord({ kind: 'turn', turnId, rayId: ray.id })} />
        <Button label="Remove this turn" onPress={() => edit(setTurns((before) => before.filter(({ id }) => id !== turnId)))} />
      </View>
      {stereo.length > 0 && (
        <>
          {placedClips(bands).length > 1 && <Chips label="Settings of" hideLabel options={SCOPES} value={scope} onChoose={setScope} />}
          <Chips
            label={channels.size > 1 ? 'Takes of its file (mixed)' : 'Takes of its file'}
            options={CHANNEL_CHOICES}
            value={channels.size === 1 ? [...channels][0] : undefined}
            onChoose={setChannel}
          />
        </>
      )}
      {cancelling && (
        <Text look="small" tone="coral" role="alert">
          Left and right cancel here: the middle is thin. Left or right alone is safer.
        </Text>
      )}
    </View>
  )
}

interface PlacedClip {
  readonly clip: Clip
  readonly turnId: TurnId
  readonly rayId: RayId
}

/** The clips of one cell, or of all. */
function placedClips(bands: readonly Band[], turnId?: TurnId): PlacedClip[] {
  return bands
    .flatMap((band) => band.turns)
    .filter((turn) => !turnId || turn.id === turnId)
    .flatMap((turn) =>
      Object.entries(turn.clips).flatMap(([rayId, clip]) =>
        clip === 'intendedSilence' ? [] : [{ clip, turnId: turn.id, rayId: rayId as RayId }],
      ),
    )
}

function midCancels(all: Readonly<Record<string, { readonly doc: Source }>>, clip: Clip): boolean {
  return Object.values(all).some(({ doc }) => doc.audio === clip.audio && (doc.measured?.midLossDb ?? 0) < MID_WARNING_DB)
}
