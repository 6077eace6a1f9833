import { valueOf } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { evenDynamics } from '@heliaster/core/place'
import { useEffect, useState } from 'react'
import { View } from 'react-native'

import { editKit } from '../../../kit-view'
import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { DynamicsChart, dynamicsWords } from './DynamicsChart'
import { measureBands, measureDynamics } from './measure-dynamics'
import type { DynamicsPoint } from './measure-dynamics'

const SETTLE_MS = 250

interface Props {
  readonly kit: Kit
  readonly pad: Pad
}

/** How the pad answers from soft to hard, and one action that makes it rise evenly. */
export function DynamicsPart({ kit, pad }: Props) {
  const points = useDynamics(kit, pad)
  const [isBusy, setBusy] = useState(false)
  const [words, setWords] = useState<string>()
  const even = async () => {
    setBusy(true)
    const measured = await measureBands(kit, pad).catch(() => undefined)
    setBusy(false)
    if (!measured) return setWords('Its sounds cannot be read now. Look at the Board for what is missing.')
    const changes = evenDynamics(measured)
    const edits = evenEdits(pad, changes)
    if (edits.length > 0) editKit(kit.id, edits, pad.id)
    setWords(changedWords(changes))
  }
  return (
    <View style={{ gap: 8 }}>
      {points ? (
        <DynamicsChart points={points} edges={pad.bands.map(({ fromVelocity }) => fromVelocity)} />
      ) : (
        <Text look="small" tone="muted">
          Measuring how loud each strength is
        </Text>
      )}
      <Text look="small" tone="muted" role="status">
        {words ?? (points ? `${dynamicsWords(points)} The dashed line is brightness.` : '')}
      </Text>
      {pad.bands.length > 1 && (
        <View style={{ flexDirection: 'row' }}>
          <Button label="Even it" busy={isBusy} disabled={isBusy} onPress={() => void even()} />
        </View>
      )}
    </View>
  )
}

/** The levels of bands, changed by so many dB each. */
export function evenEdits(pad: Pad, changes: readonly number[]): KitEdit[] {
  return pad.bands.flatMap((band, i): KitEdit[] =>
    changes[i] === 0
      ? []
      : [{ type: 'setBand', padId: pad.id, bandId: band.id, fields: { values: { gainDb: Math.round(10 * (valueOf(band, 'gainDb') + changes[i]!)) / 10 } } }],
  )
} // prettier-ignore

export function changedWords(changes: readonly number[]): string {
  const told = changes.flatMap((db, i) => (db === 0 ? [] : [`band ${i + 1} by ${db > 0 ? '+' : ''}${db.toFixed(1)} dB`]))
  return told.length === 0 ? 'It rises evenly already; nothing was changed.' : `Changed: ${told.join(', ')}.`
}

/** Measured anew after each change; what was measured last stays until the next is there. */
function useDynamics(kit: Kit, pad: Pad): readonly DynamicsPoint[] | undefined {
  const [points, setPoints] = useState<readonly DynamicsPoint[]>()
  useEffect(() => {
    let isWanted = true
    const timer = setTimeout(() => {
      measureDynamics(kit, pad, () => isWanted).then(
        (found) => isWanted && found && setPoints(found),
        () => undefined, // missing audio is named on the Board and in Ship
      )
    }, SETTLE_MS)
    return () => {
      isWanted = false
      clearTimeout(timer)
    }
  }, [kit, pad])
  return points
}
