import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../../ui/controls/Button'
import { notify } from '../../../../ui/layout/notices'
import { Text } from '../../../../ui/layout/Text'
import { editKit } from '../../../../kit-view'
import { measureLineUp } from './line-up'
import type { RayLineUp } from './line-up'

/** Below this likeness the rays are different sounds, and lining them up means nothing. */
const ALIKE = 0.2

/** How the rays of a pad lie against each other, measured when asked for, and put right in one action. */
export function LineUpPanel({ kit, pad }: { readonly kit: Kit; readonly pad: Pad }) {
  const [lines, setLines] = useState<readonly RayLineUp[]>()
  const [isBusy, setBusy] = useState(false)
  const measure = async () => {
    setBusy(true)
    try {
      setLines(await measureLineUp(pad))
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error))
    }
    setBusy(false)
  }
  const [first] = lines ?? []
  const usable = (lines ?? []).filter((line) => line.cells > 0 && line.likeness >= ALIKE)
  const apply = () => {
    const flips = first?.ray.invert ?? false
    const edits = usable.map((line): KitEdit => ({
      type: 'setRay',
      padId: pad.id,
      rayId: line.ray.id,
      fields: { values: { delaySeconds: Math.round(line.delaySeconds * 1e6) / 1e6 }, invert: line.isFlipped !== flips },
    }))
    editKit(kit.id, edits, pad.id)
    notify('The rays are lined up; undo brings them back.')
  }
  return (
    <View style={{ gap: 6 }}>
      <Button
        label={isBusy ? 'Listening to the rays' : 'Measure how the rays line up'}
        busy={isBusy}
        disabled={isBusy}
        onPress={() => void measure()}
      />
      {lines?.length === 0 && <Text look="small">Only rays that share bands and turns can be lined up.</Text>}
      {lines?.slice(1).map((line) => (
        <Text key={line.ray.id} look="small">
          {describe(line, first!.ray.name)}
        </Text>
      ))}
      {usable.length > 1 && <Button label="Line them up" kind="main" onPress={apply} />}
    </View>
  )
}

function describe({ ray, lagSeconds, isFlipped, likeness, cells }: RayLineUp, first: string): string {
  if (cells === 0) return `${ray.name}: no cell has both this and ${first}.`
  if (likeness < ALIKE) return `${ray.name} is another sound than ${first}: nothing to line up.`
  const ms = Math.abs(lagSeconds * 1000).toFixed(2)
  const when = Math.abs(lagSeconds) < 1e-5 ? 'together with' : lagSeconds > 0 ? `${ms} ms after` : `${ms} ms before`
  return `${ray.name} arrives ${when} ${first}${isFlipped ? ', upside down' : ''} (${Math.round(likeness * 100)} % alike over ${cells} cells).`
}
