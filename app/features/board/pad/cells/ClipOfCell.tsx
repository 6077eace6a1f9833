import { MID_WARNING_DB } from '@heliaster/core/audio'
import { padSettings, shapeOf } from '@heliaster/core/kit'
import type { Clip, Kit, KitEdit, Pad, Source } from '@heliaster/core/kit'
import type { Cells } from '@heliaster/core/place'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { decodedAudio } from '../../../../audio/files/audio-files'
import { sources } from '../../../../documents'
import { CHANNEL_CHOICES } from '../../../../kit-view/channel-choices'
import { hearSeam } from '../../../../kit-view/loop/hear-seam'
import { LoopControls } from '../../../../kit-view/loop/LoopControls'
import type { padGesture } from '../../../../kit-view/use-kit'
import { Chips } from '../../../../ui/controls/Chips'
import { Slider } from '../../../../ui/controls/Slider'
import { Toggle } from '../../../../ui/controls/Toggle'
import { Text } from '../../../../ui/layout/Text'
import type { cellsInScope } from './cell-scopes'

type Chosen = ReturnType<typeof cellsInScope>

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly cells: Cells
  readonly clip: Clip
  /** The cells that are set with it, itself among them. */
  readonly chosen: Chosen
  readonly isAlone: boolean
  readonly gesture: ReturnType<typeof padGesture>
  readonly edit: (...edits: KitEdit[]) => void
  readonly withClip: (clip: Clip) => KitEdit
}

/** What is set on the clip of a cell: its level, how it is read, where it goes round. */
export function ClipOfCell({ kit, pad, cells: { ray }, clip, chosen, isAlone, gesture, edit, withClip }: Props) {
  const all = useStore(sources.store, (state) => state.entries)
  const settings = padSettings(kit, pad)
  const { level } = shapeOf(settings, ray).envelopes
  const rateHz = kit.audio[clip.audio]?.sampleRateHz ?? 48000
  const stereo = chosen.filter((one) => (kit.audio[one.clip.audio]?.channels ?? 1) > 1)
  const channels = new Set(stereo.map((one) => one.clip.channel))
  const isThin = stereo.some((one) => one.clip.channel === 'mid' && midCancels(all, one.clip))
  const setAll = (change: (clip: Clip) => Partial<Clip>, of = chosen) =>
    of.map((one): KitEdit => ({ type: 'setClip', padId: pad.id, turnId: one.turnId, rayId: one.rayId, clip: { ...one.clip, ...change(one.clip) } })) // prettier-ignore
  return (
    <>
      <Slider
        label={isAlone ? 'Level of this clip' : `Level of this clip; ${chosen.length} move with it`}
        value={clip.gainDb}
        min={-60}
        max={60}
        step={0.1}
        unit="dB"
        neutral={0}
        onSlide={(gainDb) => gesture.set(setAll((one) => ({ gainDb: Math.min(60, Math.max(-60, one.gainDb + gainDb - clip.gainDb)) })))}
        onDone={gesture.end}
      />
      <View style={{ flexDirection: 'row', gap: 24 }}>
        <View style={{ flex: 1 }}>
          <Toggle label="Reversed" value={clip.reverse} onChange={(reverse) => edit(...setAll(() => ({ reverse })))} />
        </View>
        <View style={{ flex: 1 }}>
          <Toggle label="Upside down" value={clip.invert} onChange={(invert) => edit(...setAll(() => ({ invert })))} />
        </View>
      </View>
      <LoopControls
        clip={clip}
        isAlone={isAlone}
        sampleRateHz={rateHz}
        mode={settings.mode}
        fallsSilent={(level.points[level.points.length - 1]?.value ?? 1) <= 0}
        audioOf={async () => (await decodedAudio(clip.audio)).audio}
        onHearSeam={() => hearSeam(pad, clip, rateHz)}
        onSlide={(loop) => gesture.set([withClip(withLoop(clip, loop))])}
        onDone={gesture.end}
      />
      {stereo.length > 0 && (
        <Chips
          label={channels.size > 1 ? 'Takes of its file (mixed)' : 'Takes of its file'}
          options={CHANNEL_CHOICES}
          value={channels.size === 1 ? [...channels][0] : undefined}
          onChoose={(channel) => edit(...setAll(() => ({ channel }), stereo))}
        />
      )}
      {isThin && (
        <Text look="small" tone="coral" role="alert">
          Left and right cancel here: the middle is thin. Left or right alone is safer.
        </Text>
      )}
    </>
  )
}

function withLoop({ loop: _before, ...clip }: Clip, loop: Clip['loop']): Clip {
  return loop ? { ...clip, loop } : clip
}

function midCancels(all: Readonly<Record<string, { readonly doc: Source }>>, clip: Clip): boolean {
  return Object.values(all).some(({ doc }) => doc.audio === clip.audio && (doc.measured?.midLossDb ?? 0) < MID_WARNING_DB)
}
