import { MID_WARNING_DB } from '@heliaster/core/audio'
import { padSettings, shapeOf } from '@heliaster/core/kit'
import type { Band, BandId, Clip, Kit, KitEdit, Pad, PadSettings, Source, Turn, TurnId } from '@heliaster/core/kit'
import { setCells, withoutTurns } from '@heliaster/core/place'
import type { Cells, TakeTarget } from '@heliaster/core/place'
import { useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { decodedAudio } from '../../../../audio/files/audio-files'
import { soloed, toggleAlone } from '../../../../audio/engine/solo'
import { hearTurn } from '../../../../audio/engine/sound'
import { sources } from '../../../../documents'
import { Button, IconButton } from '../../../../ui/controls/Button'
import { CHANNEL_CHOICES } from '../../../../kit-view/channel-choices'
import { Chips } from '../../../../ui/controls/Chips'
import { Slider } from '../../../../ui/controls/Slider'
import { notify } from '../../../../ui/layout/notices'
import { Text } from '../../../../ui/layout/Text'
import { Toggle } from '../../../../ui/controls/Toggle'
import { editKit } from '../../../../kit-view'
import type { padGesture } from '../../../../kit-view/use-kit'
import { cellsInScope, scopesOf } from './cell-scopes'
import type { CellScope } from './cell-scopes'
import { hearSeam } from '../../../../kit-view/loop/hear-seam'
import { LoopControls } from '../../../../kit-view/loop/LoopControls'

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
export function CellPanel({ kit, pad, cells, turnId, marked, pick, gesture, onSwap, onMove, onRecord, onFile }: Props) {
  const { ray, bands } = cells
  const [scope, setScope] = useState<CellScope>(marked.length > 1 ? 'marked' : 'cell')
  const band = bands.findIndex((one) => one.turns.some((turn) => turn.id === turnId))
  const isAlone = useStore(soloed, (state) => state.turns.includes(turnId))
  const all = useStore(sources.store, (state) => state.entries)
  if (band < 0) return null
  const turns = bands[band].turns
  const place = turns.findIndex(({ id }) => id === turnId)
  const turn = turns[place]
  const clip = turn.clips[ray.id]
  const settings = padSettings(kit, pad)
  const { level } = shapeOf(settings, ray).envelopes
  const edit = (...edits: KitEdit[]) => editKit(kit.id, edits, pad.id)
  const withClip = (next: Clip | 'intendedSilence' | null): KitEdit => ({
    type: 'setClip',
    padId: pad.id,
    turnId,
    rayId: ray.id,
    clip: next,
  })
  const chosen = cellsInScope(cells, turnId, scope, marked)
  const setAll = (change: (clip: Clip) => Partial<Clip>, of = chosen) =>
    of.map((one): KitEdit => ({
      type: 'setClip',
      padId: pad.id,
      turnId: one.turnId,
      rayId: one.rayId,
      clip: { ...one.clip, ...change(one.clip) },
    }))
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
  const stereo = chosen.filter((one) => (kit.audio[one.clip.audio]?.channels ?? 1) > 1)
  const channels = new Set(stereo.map((one) => one.clip.channel))
  const scopes = scopesOf(pad, cells, band, place, marked.length)
  const cancelling = channels.has('mid') && stereo.some((one) => one.clip.channel === 'mid' && midCancels(all, one.clip))
  return (
    <View style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center' }}>
        <Text look="label" style={{ flex: 1 }}>
          {`Band ${band + 1}, turn ${place + 1}${pad.rays.length > 1 ? `, ${ray.name}` : ''}`}
        </Text>
        {ways.map(([name, { label, run }]) => (
          <IconButton key={name} name={name} label={label} disabled={!run} onPress={() => run?.()} />
        ))}
      </View>
      {clip && clip !== 'intendedSilence' && scopes.length > 1 && (
        <Chips label="What is set here is for" options={scopes} value={scope} onChoose={setScope} />
      )}
      {clip && clip !== 'intendedSilence' ? (
        <Slider
          label={scope === 'cell' ? 'Level of this clip' : `Level of this clip; ${chosen.length} move with it`}
          value={clip.gainDb}
          min={-60}
          max={60}
          step={0.1}
          unit="dB"
          neutral={0}
          onSlide={(gainDb) => gesture.set(setAll((one) => ({ gainDb: Math.min(60, Math.max(-60, one.gainDb + gainDb - clip.gainDb)) })))}
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
      {clip && clip !== 'intendedSilence' && (
        <View style={{ flexDirection: 'row', gap: 24 }}>
          <View style={{ flex: 1 }}>
            <Toggle label="Reversed" value={clip.reverse} onChange={(reverse) => edit(...setAll(() => ({ reverse })))} />
          </View>
          <View style={{ flex: 1 }}>
            <Toggle label="Upside down" value={clip.invert} onChange={(invert) => edit(...setAll(() => ({ invert })))} />
          </View>
        </View>
      )}
      {clip && clip !== 'intendedSilence' && (
        <LoopControls
          clip={clip}
          isAlone={scope === 'cell'}
          sampleRateHz={kit.audio[clip.audio]?.sampleRateHz ?? 48000}
          mode={settings.mode}
          fallsSilent={(level.points[level.points.length - 1]?.value ?? 1) <= 0}
          audioOf={async () => (await decodedAudio(clip.audio)).audio}
          onHearSeam={() => hearSeam(pad, clip, kit.audio[clip.audio]?.sampleRateHz ?? 48000)}
          onSlide={(loop) => gesture.set([withClip(withLoop(clip, loop))])}
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
      {stereo.length > 0 && (
        <>
          <Chips
            label={channels.size > 1 ? 'Takes of its file (mixed)' : 'Takes of its file'}
            options={CHANNEL_CHOICES}
            value={channels.size === 1 ? [...channels][0] : undefined}
            onChoose={(channel) => edit(...setAll(() => ({ channel }), stereo))}
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

function withLoop({ loop: _before, ...clip }: Clip, loop: Clip['loop']): Clip {
  return loop ? { ...clip, loop } : clip
}

function midCancels(all: Readonly<Record<string, { readonly doc: Source }>>, clip: Clip): boolean {
  return Object.values(all).some(({ doc }) => doc.audio === clip.audio && (doc.measured?.midLossDb ?? 0) < MID_WARNING_DB)
}
