import { levelResponse, padSettings, valueOf } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'
import { evenLine, ontoLine, responsesAlong } from '@heliaster/core/place'
import { useEffect, useState } from 'react'
import { View } from 'react-native'

import { editKit } from '../../../kit-view'
import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { DYNAMICS_PX, DynamicsChart, dynamicsWords } from './DynamicsChart'
import { measureBands, measureDynamics, withAllTurns } from './measure-dynamics'
import type { DynamicsPoint } from './measure-dynamics'

const SETTLE_MS = 250

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly heightPx?: number
}

/** How the pad answers from soft to hard, and one action that makes it rise evenly. */
export function DynamicsPart({ kit, pad, heightPx }: Props) {
  const palette = usePalette()
  const { points, isWhole } = useDynamics(kit, pad)
  const [isBusy, setBusy] = useState(false)
  const [words, setWords] = useState<string>()
  const even = async () => {
    setBusy(true)
    const made = await evenEdits(kit, pad).catch(() => undefined)
    setBusy(false)
    if (!made) return setWords('Its sounds cannot be read now. Look at the Board for what is missing.')
    if (made.edits.length > 0) editKit(kit.id, made.edits, pad.id)
    setWords(made.words)
  }
  return (
    <View style={{ gap: 8 }}>
      {points ? (
        <DynamicsChart points={points} edges={pad.bands.map(({ fromVelocity }) => fromVelocity)} heightPx={heightPx} />
      ) : (
        <View style={{ height: heightPx ?? DYNAMICS_PX, borderRadius: 10, padding: 12, backgroundColor: palette.surface }}>
          <Text look="small" tone="muted">
            Measuring how loud each strength is
          </Text>
        </View>
      )}
      <View style={{ flexDirection: 'row', alignItems: 'flex-start', gap: 12 }}>
        <Text look="small" tone="muted" role="status" style={{ flex: 1 }}>
          {words ??
            (points && isWhole
              ? `${dynamicsWords(points)} The dashed line is brightness.`
              : points
                ? 'Measuring how loud each strength is'
                : '')}
        </Text>
        {pad.bands.length > 1 && <Button label="Even it" busy={isBusy} disabled={isBusy} onPress={() => void even()} />}
      </View>
    </View>
  )
}

/**
 * Makes loudness rise evenly from the softest strike to the hardest: velocity moves the level along the line that lies nearest
 * to all bands, and each band is brought onto it, as it is measured with that.
 */
async function evenEdits(kit: Kit, pad: Pad): Promise<{ edits: KitEdit[]; words: string }> {
  const line = evenLine(await measureBands(kit, pad))
  if (!line) return { edits: [], words: 'Fewer than two of its bands sound: there is nothing to even.' }
  const before = padSettings(kit, pad).responses
  const responses = responsesAlong(before, line)
  const changes = ontoLine(await measureBands(kit, { ...pad, own: { ...pad.own, responses: [...responses] } }), line)
  const levels = pad.bands.flatMap((band, i): KitEdit[] => {
    if (changes[i] === 0) return []
    const gainDb = Math.round(10 * (valueOf(band, 'gainDb') + changes[i]!)) / 10
    return [{ type: 'setBand', padId: pad.id, bandId: band.id, fields: { values: { gainDb } } }]
  })
  const moved: KitEdit[] = responses === before ? [] : [{ type: 'setPad', padId: pad.id, own: { responses: [...responses] } }]
  return { edits: [...moved, ...levels], words: changedWords(changes, moved.length > 0 ? levelResponse(responses)!.amount : undefined) }
}

/** What was changed: the levels of bands, and by how much velocity moves the level now, where that is new. */
export function changedWords(changes: readonly number[], responseDb?: number): string {
  const bands = changes.flatMap((db, i) => (db === 0 ? [] : [`band ${i + 1} by ${db > 0 ? '+' : ''}${db.toFixed(1)} dB`]))
  const told = [...(responseDb === undefined ? [] : [`softer strikes are quieter by up to ${responseDb.toFixed(1)} dB`]), ...bands]
  return told.length === 0 ? 'It rises evenly already; nothing was changed.' : `Changed: ${told.join(', ')}.`
}

interface Dynamics {
  readonly points?: readonly DynamicsPoint[]
  readonly isWhole: boolean
}

/** Measured anew after each change; what was measured last stays until the next is there, and the first is shown as it comes. */
function useDynamics(kit: Kit, pad: Pad): Dynamics {
  const [dynamics, setDynamics] = useState<Dynamics>({ isWhole: false })
  useEffect(() => {
    let isWanted = true
    const timer = setTimeout(() => {
      const show = (points: readonly DynamicsPoint[] | undefined) => {
        if (isWanted && points) setDynamics({ points, isWhole: true })
        return points
      }
      const soFar = (points: readonly DynamicsPoint[]) => isWanted && setDynamics((now) => (now.isWhole ? now : { points, isWhole: false }))
      measureDynamics(kit, pad, () => isWanted, soFar)
        .then(show)
        .then((found) => (found && isWanted ? withAllTurns(kit, pad, found, () => isWanted) : undefined))
        .then(show)
        .catch(() => undefined) // missing audio is named on the Board and in Ship
    }, SETTLE_MS)
    return () => {
      isWanted = false
      clearTimeout(timer)
    }
  }, [kit, pad])
  return dynamics
}
