import { families, padSettings, sameData } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad, PadId, PadSettings } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'
import { Pressable, View } from 'react-native'

import { kits } from '../../stores/documents'
import { Button } from '../../ui/Button'
import { Chips } from '../../ui/Chips'
import { Sheet } from '../../ui/Sheet'
import { Slider } from '../../ui/Slider'
import { Star } from '../../ui/Star'
import { Text } from '../../ui/Text'
import { usePalette } from '../../ui/theme'
import { editKit } from '../shell'
import { kitGesture, padName } from '../shell/use-kit'
import { copySettingsEdits, SETTING_GROUPS } from './copy-settings'
import type { SettingGroup } from './copy-settings'
import { removeEdits } from './pad-edits'
import { MODES, PICKS } from './play-choices'

/** Several pads edited as one: a value that differs among them is said to be mixed until it is set. */
export function PadsSheet({ kit, onClose }: { readonly kit: Kit; readonly onClose: () => void }) {
  const [ids, setIds] = useState<readonly PadId[]>([])
  const pads = kit.pads.filter((pad) => ids.includes(pad.id))
  const settings = pads.map((pad) => padSettings(kit, pad))
  const gesture = useMemo(() => kitGesture(kit.id), [kit.id])
  const change = (own: Partial<PadSettings>): KitEdit[] => pads.map((pad) => ({ type: 'setPad', padId: pad.id, own }))
  const set = (own: Partial<PadSettings>) => editKit(kit.id, change(own))
  const same = <K extends keyof PadSettings>(key: K): PadSettings[K] | undefined =>
    settings.every((one) => sameData(one[key], settings[0][key])) ? settings[0]?.[key] : undefined
  const mixed = (key: keyof PadSettings, label: string) => (same(key) === undefined ? `${label} (mixed)` : label)
  const toggle = (id: PadId) => setIds(ids.includes(id) ? ids.filter((one) => one !== id) : [...ids, id])
  const some = [...new Set(kit.pads.map((pad) => padSettings(kit, pad).family))].sort()
  return (
    <Sheet title={pads.length === 0 ? 'Edit several pads' : `Edit ${pads.length} pads`} isOpen onClose={onClose}>
      <Chips
        label="Choose"
        options={[
          { value: 'all', text: 'All' },
          { value: 'none', text: 'None' },
          ...some.map((family) => ({ value: family as string, text: family })),
        ]}
        value={undefined}
        onChoose={(rule) =>
          setIds(
            rule === 'none' ? [] : kit.pads.filter((pad) => rule === 'all' || padSettings(kit, pad).family === rule).map(({ id }) => id),
          )
        }
      />
      <PadChoices kit={kit} chosen={ids} onToggle={toggle} />
      {pads.length > 0 && (
        <>
          {(
            [
              ['gainDb', 'Level', -48, 24, 0.1, 'dB', 0],
              ['pan', 'Pan', -1, 1, 0.01, '', 0],
              ['tuneCents', 'Tune, cents', -4800, 4800, 1, 'ct', 0],
              ['maxStrikes', 'Strikes at once', 1, 32, 1, '', undefined],
            ] as const
          ).map(([key, label, min, max, step, unit, neutral]) => (
            <Slider
              key={key}
              label={mixed(key, label)}
              value={same(key) ?? settings[0][key]}
              min={min}
              max={max}
              step={step}
              unit={unit}
              neutral={neutral}
              onSlide={(value) => gesture.set(change({ [key]: value }))}
              onDone={gesture.end}
            />
          ))}
          <Chips label={mixed('pick', 'Next turn')} options={PICKS} value={same('pick')} onChoose={(pick) => set({ pick })} />
          <Chips label={mixed('mode', 'When struck')} options={MODES} value={same('mode')} onChoose={(mode) => set({ mode })} />
          <Chips
            label={mixed('family', 'Family')}
            options={families.map((family) => ({ value: family, text: family }))}
            value={same('family')}
            onChoose={(family) => set({ family })}
          />
          <CopyFrom kit={kit} pads={pads} />
          <Button
            label={pads.length === 1 ? 'Remove this pad' : `Remove these ${pads.length} pads`}
            onPress={() => {
              editKit(kit.id, removeAll(kit, pads))
              setIds([])
            }}
          />
        </>
      )}
    </Sheet>
  )
}

/** Pads leave one after another, each from the kit that the ones before have left. */
function removeAll(kit: Kit, pads: readonly Pad[]): KitEdit[] {
  const edits: KitEdit[] = []
  let left = kit
  for (const pad of pads) {
    const step = removeEdits(left, pad)
    edits.push(...step)
    left = step.reduce(kits.kind.apply, left)
  }
  return edits
}

function PadChoices({ kit, chosen, onToggle }: { kit: Kit; chosen: readonly PadId[]; onToggle: (id: PadId) => void }) {
  const palette = usePalette()
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      {kit.pads.map((pad) => {
        const isChosen = chosen.includes(pad.id)
        return (
          <Pressable
            key={pad.id}
            role="checkbox"
            aria-checked={isChosen}
            aria-label={padName(kit, pad)}
            onPress={() => onToggle(pad.id)}
            style={{
              width: 76,
              alignItems: 'center',
              padding: 6,
              borderRadius: 8,
              borderWidth: 1,
              borderColor: isChosen ? palette.kelp : palette.faint,
              backgroundColor: isChosen ? palette.kelpWash : 'transparent',
            }}
          >
            <Star size={40} turns={pad.bands.map((band) => band.turns.length)} />
            <Text look="small" numberOfLines={1} style={{ fontSize: 12 }}>
              {padName(kit, pad)}
            </Text>
          </Pressable>
        )
      })}
    </View>
  )
}

/** The settings of one pad for all that are chosen, as many of them as are asked for. Clips stay where they are. */
function CopyFrom({ kit, pads }: { readonly kit: Kit; readonly pads: readonly Pad[] }) {
  const [group, setGroup] = useState<SettingGroup>('all')
  const [fromId, setFromId] = useState<PadId>()
  const from = kit.pads.find((pad) => pad.id === fromId)
  return (
    <View style={{ gap: 10 }}>
      <Chips
        label="Take settings from"
        options={kit.pads.map((pad) => ({ value: pad.id, text: padName(kit, pad) }))}
        value={fromId}
        onChoose={setFromId}
      />
      {from && (
        <>
          <Chips label="Which" hideLabel options={SETTING_GROUPS} value={group} onChoose={setGroup} />
          <Button
            label={`Give ${pads.length === 1 ? 'it' : `these ${pads.length}`} the settings of ${padName(kit, from)}`}
            onPress={() => editKit(kit.id, copySettingsEdits(from, pads, group))}
          />
        </>
      )}
    </View>
  )
}
