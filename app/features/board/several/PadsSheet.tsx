import { padSettings, sameData } from '@heliaster/core/kit'
import type { Kit, KitEdit, PadId, OwnSettings, PadSettings, Parameter } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Sheet } from '../../../ui/layout/Sheet'
import { Slider } from '../../../ui/controls/Slider'
import { FamilyChoice } from '../../../kit-view/FamilyChoice'
import { editKit } from '../../../kit-view'
import { kitGesture } from '../../../kit-view/use-kit'
import { MODES, PICKS } from '../../../kit-view/play-choices'
import { TintChips } from '../pad/TintChips'
import { CopyFrom } from './CopyFrom'
import { OddPads } from './OddPads'
import { PadChoices } from '../../../kit-view/PadChoices'
import { PadsTogether } from './PadsTogether'

interface Props {
  readonly kit: Kit
  /** The pads that are chosen to begin with. */
  readonly chosen?: readonly PadId[]
  readonly onClose: () => void
}

/** Several pads edited as one: a value that differs among them is said to be mixed until it is set. */
export function PadsSheet({ kit, chosen = [], onClose }: Props) {
  const [ids, setIds] = useState<readonly PadId[]>(chosen)
  const pads = kit.pads.filter((pad) => ids.includes(pad.id))
  const settings = pads.map((pad) => padSettings(kit, pad))
  const gesture = useMemo(() => kitGesture(kit.id), [kit.id])
  const change = (own: OwnSettings): KitEdit[] => pads.map((pad) => ({ type: 'setPad', padId: pad.id, own }))
  const set = (own: OwnSettings) => editKit(kit.id, change(own))
  const clearOr = ({ tint }: Pick<PadSettings, 'tint'>) =>
    editKit(
      kit.id,
      pads.map((pad) => ({ type: 'setPad', padId: pad.id, own: tint ? { tint } : {}, ...(tint ? {} : { clear: ['tint'] }) })),
    )
  const isMixedValue = (key: Parameter) => settings.some(({ values }) => values[key] !== settings[0].values[key])
  const isMixed = (key: keyof PadSettings) => !settings.every((one) => sameData(one[key], settings[0][key]))
  const same = <K extends keyof PadSettings>(key: K): PadSettings[K] | undefined => (isMixed(key) ? undefined : settings[0]?.[key])
  const mixed = (key: keyof PadSettings, label: string) => (isMixed(key) ? `${label} (mixed)` : label)
  return (
    <Sheet title={pads.length === 0 ? 'Edit several pads' : `Edit ${pads.length} pads`} isOpen onClose={onClose}>
      <PadChoices kit={kit} chosen={ids} onChoose={setIds} />
      <OddPads kit={kit} pads={pads.length > 2 ? pads : kit.pads} onChoose={setIds} />
      {pads.length > 0 && (
        <>
          {(
            [
              ['gainDb', 'Level', -48, 24, 0.1, 'dB', 0],
              ['pan', 'Pan', -1, 1, 0.01, '', 0],
              ['tuneCents', 'Tune, cents', -4800, 4800, 1, 'ct', 0],
            ] as const
          ).map(([key, label, min, max, step, unit, neutral]) => (
            <Slider
              key={key}
              label={isMixedValue(key) ? `${label} (mixed)` : label}
              value={settings[0].values[key]}
              min={min}
              max={max}
              step={step}
              unit={unit}
              neutral={neutral}
              onSlide={(value) => gesture.set(change({ values: { [key]: value } }))}
              onDone={gesture.end}
            />
          ))}
          <Slider
            label={mixed('maxStrikes', 'Strikes at once')}
            value={settings[0].maxStrikes}
            min={1}
            max={32}
            step={1}
            unit=""
            onSlide={(maxStrikes) => gesture.set(change({ maxStrikes }))}
            onDone={gesture.end}
          />
          <Chips label={mixed('pick', 'Next turn')} options={PICKS} value={same('pick')} onChoose={(pick) => set({ pick })} />
          <Chips label={mixed('mode', 'When struck')} options={MODES} value={same('mode')} onChoose={(mode) => set({ mode })} />
          <FamilyChoice label={mixed('family', 'Family')} value={same('family')} onChoose={(family) => set({ family })} />
          <TintChips label={mixed('tint', 'Tint')} value={isMixed('tint') ? 'mixed' : same('tint')} onTint={(tint) => clearOr({ tint })} />
          <PadsTogether kit={kit} pads={pads} />
          <CopyFrom kit={kit} pads={pads} />
          <Button
            label={pads.length === 1 ? 'Remove this pad' : `Remove these ${pads.length} pads`}
            onPress={() => {
              editKit(
                kit.id,
                pads.map((pad): KitEdit => ({ type: 'removePad', padId: pad.id })),
              )
              setIds([])
            }}
          />
        </>
      )}
    </Sheet>
  )
}
