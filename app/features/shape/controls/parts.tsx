import { clipsOfPad } from '@heliaster/core/kit'
import type { Kit, KitEdit, OwnSettings, Pad, PadSettings } from '@heliaster/core/kit'

import { TuneSlider } from '../../../kit-view/PanAndTune'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { clipEndSeconds } from '@heliaster/core/shaping'
import type { DrawnHit } from '../chart/use-drawn-hit'
import { SpectrumChart } from '../spectrum/SpectrumChart'
import type { ShapeTarget } from '../whom/target'
import { AttackControls } from './AttackControls'
import { DirtControls } from './DirtControls'
import { DriveControls } from './DriveControls'
import { EdgeControls } from './EdgeControls'
import { FilterControls } from './FilterControls'
import { LoopPart } from './LoopPart'
import { OrderControls } from './OrderControls'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: ShapeTarget
  readonly drawn: DrawnHit | undefined
  /** Edits that belong to one drag, and its end. */
  readonly onEdits: (edits: KitEdit[]) => void
  readonly onDone: () => void
}

const setter = ({ target, onEdits, onDone }: Props) => ({
  settings: target.settings,
  onChange: (own: OwnSettings) => onEdits(target.edits(own)),
  onDone,
})

/** What of the clip sounds, how high, and how long. */
export function ClipPart(props: Props) {
  const all = setter(props)
  const { settings, onChange, onDone } = all
  const { drawn } = props
  return (
    <>
      {drawn && <EndsFirst settings={settings} clipSeconds={drawn.clipSeconds} />}
      <TuneSlider value={settings.values.tuneCents} onSlide={(tuneCents) => onChange({ values: { tuneCents } })} onDone={onDone} />
      <EdgeControls {...all} clipSeconds={drawn?.clipSeconds ?? 0.5} />
      <DecaySlider {...all} />
      <LoopPart {...props} />
    </>
  )
}

/** What gives it a character of its own: attack and tail, drive, dirt. */
export function CharacterPart(props: Props) {
  const all = setter(props)
  const { kit, pad, drawn } = props
  const isStereo = clipsOfPad(pad).some(({ audio, channel }) => channel === 'both' && (kit.audio[audio]?.channels ?? 1) > 1)
  return (
    <>
      <AttackControls {...all} />
      <DriveControls {...all} samples={drawn?.samples} />
      <DirtControls {...all} isStereo={isStereo} />
    </>
  )
}

/** Both filters, drawn on the spectrum where that is not seen already; and in which order a strike passes everything. */
export function FiltersPart({ hasChart, ...props }: Props & { readonly hasChart: boolean }) {
  const all = setter(props)
  return (
    <>
      {hasChart && <SpectrumChart {...all} drawn={props.drawn} />}
      <FilterControls {...all} name="filter1" />
      <FilterControls {...all} name="filter2" />
      {props.target.whom.kind !== 'turn' && <OrderControls {...all} />}
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
