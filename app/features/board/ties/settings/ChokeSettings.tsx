import { padSettings } from '@heliaster/core/kit'
import type { BandId, Kit, PadId, RayId } from '@heliaster/core/kit'

import { CheckChips } from '../../../../ui/controls/CheckChips'
import { Chips } from '../../../../ui/controls/Chips'
import { NameField } from '../../../../ui/controls/NameField'
import { Slider } from '../../../../ui/controls/Slider'
import { Toggle } from '../../../../ui/controls/Toggle'
import { padName } from '../../../../kit-view/use-kit'
import { toggled, usePutTie } from './put-tie'
import type { TieOf } from './put-tie'

type Silencing = TieOf<'choke'> | TieOf<'chokeGroup'>

const ON = [
  { value: 'strike', text: 'when it is struck' },
  { value: 'letGo', text: 'when it is let go' },
  { value: 'pressure', text: 'when it is pressed' },
] as const

/** What one pad silences: when, whom, how fast, and what of them. */
export function ChokeSettings({ kit, tie }: { readonly kit: Kit; readonly tie: TieOf<'choke'> }) {
  const { put, slide, end } = usePutTie(kit, tie)
  const others = kit.pads.map((pad) => ({ value: pad.id, text: pad.id === tie.from ? 'itself' : padName(kit, pad) }))
  return (
    <>
      <Chips label="It silences" options={ON} value={tie.on ?? 'strike'} onChoose={(on) => put({ on: on === 'strike' ? undefined : on })} />
      <CheckChips
        label="These pads"
        options={others}
        values={tie.to}
        onToggle={(padId: PadId) => {
          const to = toggled(tie.to, padId)
          if (to.length > 0) put({ to })
        }}
      />
      <Fade value={tie.fadeSeconds} onSlide={(fadeSeconds) => slide({ fadeSeconds })} onDone={end} />
      <Reach kit={kit} tie={tie} pads={tie.to} />
    </>
  )
}

const NO_LIMIT = 33

/** What holds for all pads of a choke group. */
export function ChokeGroupSettings({ kit, tie }: { readonly kit: Kit; readonly tie: TieOf<'chokeGroup'> }) {
  const { put, slide, end } = usePutTie(kit, tie)
  return (
    <>
      <NameField label="Name of the group" value={tie.name} onName={(name) => put({ name: name.trim().slice(0, 120) || tie.name })} />
      <Fade value={tie.fadeSeconds} onSlide={(fadeSeconds) => slide({ fadeSeconds })} onDone={end} />
      <Toggle
        label="Each silences its own strikes too"
        words="A second strike of one pad does not pile up on the first."
        value={tie.itself === true}
        onChange={(itself) => put({ itself: itself || undefined })}
      />
      <Slider
        label="Strikes at once in the group"
        value={tie.maxStrikes ?? NO_LIMIT}
        min={1}
        max={NO_LIMIT}
        step={1}
        unit=""
        format={(count) => (count >= NO_LIMIT ? 'any' : String(count))}
        onSlide={(count) => slide({ maxStrikes: count >= NO_LIMIT ? undefined : count })}
        onDone={end}
      />
      <Reach kit={kit} tie={tie} pads={tie.pads} />
    </>
  )
}

interface FadeProps {
  readonly value: number
  readonly onSlide: (seconds: number) => void
  readonly onDone: () => void
}

function Fade({ value, onSlide, onDone }: FadeProps) {
  return (
    <Slider
      label="Silences within"
      value={Math.round(value * 1000)}
      min={0}
      max={10000}
      step={1}
      power={3}
      unit="ms"
      onSlide={(ms) => onSlide(ms / 1000)}
      onDone={onDone}
    />
  )
}

/** Which rays and bands of the silenced pads are meant; all of them where none is ticked. */
function Reach({ kit, tie, pads }: { readonly kit: Kit; readonly tie: Silencing; readonly pads: readonly PadId[] }) {
  const { put } = usePutTie<Silencing>(kit, tie)
  const meant = kit.pads.filter(({ id }) => pads.includes(id))
  const many = meant.length > 1
  const rays = meant.filter((pad) => pad.rays.length > 1).flatMap((pad) => pad.rays.map(({ id, name }) => ({ value: id, text: many ? `${padName(kit, pad)}: ${name}` : name }))) // prettier-ignore
  const bands = meant
    .filter((pad) => pad.bands.length > 1)
    .flatMap((pad) =>
      pad.bands.map(({ id }, i) => ({ value: id, text: many ? `${padSettings(kit, pad).name}: band ${i + 1}` : `Band ${i + 1}` })),
    )
  const set = (fields: NonNullable<Silencing['reach']>) => {
    const kept = { ...tie.reach, ...fields }
    const reach = { ...(kept.rays?.length ? { rays: kept.rays } : {}), ...(kept.bands?.length ? { bands: kept.bands } : {}) }
    put({ reach: Object.keys(reach).length > 0 ? reach : undefined })
  }
  const { rays: chosenRays = [], bands: chosenBands = [] } = tie.reach ?? {}
  return (
    <>
      {rays.length > 0 && (
        <CheckChips
          label="Only these rays (all, where none is ticked)"
          options={rays}
          values={chosenRays}
          onToggle={(id: RayId) => set({ rays: toggled(chosenRays, id) })}
        />
      )}
      {bands.length > 0 && (
        <CheckChips
          label="Only what these bands sound (all, where none is ticked)"
          options={bands}
          values={chosenBands}
          onToggle={(id: BandId) => set({ bands: toggled(chosenBands, id) })}
        />
      )}
    </>
  )
}
