import type { Kit, Pad, PadId } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { editKit } from '../../../kit-view'
import { padName } from '../../../kit-view/use-kit'
import { copySettingsEdits, SETTING_GROUPS } from './copy-settings'
import type { SettingGroup } from './copy-settings'

/** The settings of one pad for all that are chosen, as many of them as are asked for. Clips stay where they are. */
export function CopyFrom({ kit, pads }: { readonly kit: Kit; readonly pads: readonly Pad[] }) {
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
