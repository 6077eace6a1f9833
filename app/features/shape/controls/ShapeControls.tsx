import { clipsOfPad, padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, OwnSettings, Pad, PadSettings } from '@heliaster/core/kit'

import { TuneSlider } from '../../../kit-view/PanAndTune'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { AttackControls } from './AttackControls'
import { DirtControls } from './DirtControls'
import { DriveControls } from './DriveControls'
import { EdgeControls } from './EdgeControls'
import { clipEndSeconds } from '../chart/envelope-edits'
import { FilterControls } from './FilterControls'
import { Movers } from './Movers'
import { OrderControls } from './OrderControls'
import { Part } from '../../../ui/layout/Part'
import type { DrawnHit } from '../chart/use-drawn-hit'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly drawn: DrawnHit | undefined
  /** Edits that belong to one drag, and its end. */
  readonly onEdits: (edits: KitEdit[]) => void
  readonly onDone: () => void
}

/** Everything beside its envelopes that shapes a pad, in parts, in the order in which a strike passes them. */
export function ShapeControls({ kit, pad, drawn, onEdits, onDone }: Props) {
  const settings = padSettings(kit, pad)
  const set = (own: OwnSettings) => onEdits([{ type: 'setPad', padId: pad.id, own }])
  const isStereo = clipsOfPad(pad).some(({ audio, channel }) => channel === 'both' && (kit.audio[audio]?.channels ?? 1) > 1)
  const all = { settings, onChange: set, onDone }
  return (
    <>
      <Part name="The clip">
        {drawn && <EndsFirst settings={settings} clipSeconds={drawn.clipSeconds} />}
        <TuneSlider value={settings.values.tuneCents} onSlide={(tuneCents) => set({ values: { tuneCents } })} onDone={onDone} />
        <EdgeControls {...all} clipSeconds={drawn?.clipSeconds ?? 0.5} />
        <DecaySlider {...all} />
      </Part>
      <Part name="Character">
        <AttackControls {...all} />
        <DriveControls {...all} samples={drawn?.samples} />
        <DirtControls {...all} isStereo={isStereo} />
      </Part>
      <Part name="Filters">
        <FilterControls {...all} name="filter1" />
        <FilterControls {...all} name="filter2" />
        <OrderControls {...all} />
      </Part>
      <Movers kit={kit} pad={pad} onSlide={onEdits} onDone={onDone} />
    </>
  )
}

interface DecayProps {
  readonly settings: PadSettings
  readonly onChange: (own: OwnSettings) => void
  readonly onDone: () => void
}

/** One decay for whatever envelope there is; a pad without any has none. */
export function DecaySlider({ settings: { values, envelopes }, onChange, onDone }: DecayProps) {
  const others = (['pitch', 'filter1', 'filter2'] as const).filter((name) => envelopes[name].points.length > 0)
  const hasLevel = envelopes.level.points.length > 0
  if (!hasLevel && others.length === 0) return null
  return (
    <Slider
      label={hasLevel ? 'Decay: length of the level envelope' : 'Decay: length of its envelopes'}
      value={values.decayScale * 100}
      min={5}
      max={400}
      step={1}
      power={2}
      unit="%"
      neutral={100}
      onSlide={(percent) => onChange({ values: { decayScale: percent / 100 } })}
      onDone={onDone}
    />
  )
}

/** A one-shot whose envelope is longer than its clip: the clip ends first, and that is said. */
export function EndsFirst({ settings, clipSeconds }: { readonly settings: PadSettings; readonly clipSeconds: number }) {
  const { values, envelopes, mode } = settings
  const last = envelopes.level.points[envelopes.level.points.length - 1]
  const envelopeSeconds = (last?.seconds ?? 0) * values.decayScale
  const soundSeconds = clipEndSeconds(envelopes.pitch, values.startSeconds, values.tuneCents, clipSeconds)
  if ((mode !== 'oneShot' && mode !== 'hold') || envelopeSeconds <= soundSeconds + 0.001) return null
  return (
    <Text look="small" tone="coral" role="status">
      {`The clip ends after ${soundSeconds.toFixed(2)} s, before its level envelope does (${envelopeSeconds.toFixed(2)} s). It sounds no longer than the clip.`}
    </Text>
  )
}
