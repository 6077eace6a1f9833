import { MID_WARNING_DB } from '@heliaster/core/audio'
import type { Clip, Kit, KitEdit, Pad, RayId, Source, TurnId } from '@heliaster/core/kit'
import type { TakeTarget } from '@heliaster/core/place'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { sources } from '../../stores/documents'
import { Button } from '../../ui/Button'
import { CHANNEL_CHOICES } from '../../ui/channel-choices'
import { Chips } from '../../ui/Chips'
import { Text } from '../../ui/Text'
import { editKit } from '../shell'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly turnId: TurnId
  readonly onRecord: (target: TakeTarget) => void
}

const SCOPES = [
  { value: 'cell', text: 'This cell' },
  { value: 'pad', text: 'All cells' },
] as const

/** What is set on the clips of one cell, or of all cells when that is asked for. */
export function CellPanel({ kit, pad, turnId, onRecord }: Props) {
  const [scope, setScope] = useState<'cell' | 'pad'>('cell')
  const band = pad.bands.findIndex((one) => one.turns.some((turn) => turn.id === turnId))
  const all = useStore(sources.store, (state) => state.entries)
  if (band < 0) return null
  const turn = pad.bands[band].turns.findIndex(({ id }) => id === turnId)
  const stereo = placedClips(pad, scope === 'cell' ? turnId : undefined).filter(({ clip }) => (kit.audio[clip.audio]?.channels ?? 1) > 1)
  const channels = new Set(stereo.map(({ clip }) => clip.channel))
  const setChannel = (channel: Clip['channel']) =>
    editKit(
      kit.id,
      stereo.map(({ clip, turnId: id, rayId }): KitEdit => ({
        type: 'setClip',
        padId: pad.id,
        turnId: id,
        rayId,
        clip: { ...clip, channel },
      })),
      pad.id,
    )
  const cancelling = channels.has('mid') && stereo.some(({ clip }) => clip.channel === 'mid' && midCancels(all, clip))
  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
        <Text look="label" tone="muted" style={{ flex: 1 }}>
          {`Band ${band + 1}, turn ${turn + 1}`}
        </Text>
        <Button label="Record this cell" icon="record-circle-outline" onPress={() => onRecord({ kind: 'turn', turnId })} />
      </View>
      {stereo.length > 0 && (
        <>
          {placedClips(pad).length > 1 && <Chips label="Settings of" hideLabel options={SCOPES} value={scope} onChoose={setScope} />}
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
function placedClips(pad: Pad, turnId?: TurnId): PlacedClip[] {
  return pad.bands
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
