import type { Kit, PadId } from '@heliaster/core/kit'
import { evenSteps, inOrderOfOpening, nameOf } from '@heliaster/core/ties'

import { Button } from '../../../../ui/controls/Button'
import { CheckChips } from '../../../../ui/controls/CheckChips'
import { Chips } from '../../../../ui/controls/Chips'
import { NameField } from '../../../../ui/controls/NameField'
import { Slider } from '../../../../ui/controls/Slider'
import { Toggle } from '../../../../ui/controls/Toggle'
import { padName } from '../../../../kit-view/use-kit'
import { PICKS } from '../../../../kit-view/play-choices'
import { toggled, usePutTie } from './put-tie'
import type { TieOf } from './put-tie'

function PadsOf({ kit, pads, onPads }: { readonly kit: Kit; readonly pads: readonly PadId[]; readonly onPads: (pads: PadId[]) => void }) {
  const options = kit.pads.map((pad) => ({ value: pad.id, text: padName(kit, pad) }))
  const toggle = (padId: PadId) => {
    const next = toggled(pads, padId)
    if (next.length > 1) onPads(next)
  }
  return <CheckChips label="Pads of it" options={options} values={pads} onToggle={toggle} />
}

/** Pads that share a number of strikes and do not silence each other otherwise. */
export function LimitSettings({ kit, tie }: { readonly kit: Kit; readonly tie: TieOf<'limit'> }) {
  const { put, slide, end } = usePutTie(kit, tie)
  return (
    <>
      <NameField label="Name of the limit" value={tie.name} onName={(name) => put({ name: name.trim().slice(0, 120) || tie.name })} />
      <PadsOf kit={kit} pads={tie.pads} onPads={(pads) => put({ pads })} />
      <Slider
        label="Strikes they share"
        value={tie.maxStrikes}
        min={1}
        max={128}
        step={1}
        power={2}
        unit=""
        onSlide={(maxStrikes) => slide({ maxStrikes })}
        onDone={end}
      />
    </>
  )
}

/** Pads that answer as one, each in its turn. */
export function TurnsSettings({ kit, tie }: { readonly kit: Kit; readonly tie: TieOf<'takeTurns'> }) {
  const { put } = usePutTie(kit, tie)
  return (
    <>
      <PadsOf kit={kit} pads={tie.pads} onPads={(pads) => put({ pads })} />
      <Chips label="Next of them" options={PICKS} value={tie.pick} onChoose={(pick) => put({ pick })} />
    </>
  )
}

/** Pads between which a controller chooses: where each begins, and where closing silences. */
export function OpeningsSettings({ kit, tie }: { readonly kit: Kit; readonly tie: TieOf<'openings'> }) {
  const { put, slide, end } = usePutTie(kit, tie)
  const pads = inOrderOfOpening(tie)
  const from = new Map(tie.steps.map((step) => [step.pad, step.from]))
  const moved = (padId: PadId, value: number) => tie.steps.map((step) => (step.pad === padId ? { ...step, from: value } : step))
  /** A threshold stays between its neighbours, so that none is jumped over. */
  const between = (place: number, value: number) => {
    const low = place > 0 ? from.get(pads[place - 1]!)! + 1 : 0
    const high = place + 1 < pads.length ? from.get(pads[place + 1]!)! - 1 : 127
    return Math.max(low, Math.min(high, value))
  }
  return (
    <>
      <PadsOf kit={kit} pads={pads} onPads={(next) => put({ steps: evenSteps(next) })} />
      <Slider
        label="Controller"
        value={tie.controller}
        min={0}
        max={127}
        step={1}
        unit=""
        onSlide={(controller) => slide({ controller })}
        onDone={end}
      />
      {pads.map((padId, place) => (
        <Slider
          key={padId}
          label={`${nameOf(kit, padId)} opens from`}
          value={from.get(padId)!}
          min={0}
          max={127}
          step={1}
          unit=""
          onSlide={(value) => slide({ steps: moved(padId, between(place, value)) })}
          onDone={end}
        />
      ))}
      <Button label="Even thresholds" onPress={() => put({ steps: evenSteps(pads) })} />
      <Toggle
        label="Closing silences"
        words="As the controller closes, all but the pad it has come to stop."
        value={tie.chokeAt !== undefined}
        onChange={(closes) => put({ chokeAt: closes ? 0 : undefined })}
      />
      {tie.chokeAt !== undefined && (
        <Slider
          label="At or below this it silences the others"
          value={tie.chokeAt}
          min={0}
          max={126}
          step={1}
          unit=""
          onSlide={(chokeAt) => slide({ chokeAt })}
          onDone={end}
        />
      )}
    </>
  )
}
