import type { Groove, Kit } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { editKit } from '../../../kit-view'
import { PadGlyph } from '../../../kit-view/PadGlyph'
import { padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Row } from '../../../ui/layout/Row'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { Waiting } from '../../../ui/layout/Waiting'
import { heardPads, proposedLevels } from './measure-mix'
import type { ProposedLevel } from './measure-mix'
import { levelEdit } from './offers'
import { useMeasured } from './use-heard'

interface Props {
  readonly kit: Kit
  readonly groove: Groove | undefined
  readonly onClose: () => void
}

async function measured(kit: Kit, groove: Groove) {
  const heard = await heardPads(kit, groove)
  return { changes: await proposedLevels(kit, heard), silent: heard.silent, count: heard.pads.length }
}

/** Levels that would suit the groove, taken one by one or all together. */
export function BalanceSheet({ kit, groove, onClose }: Props) {
  const [taken, setTaken] = useState<readonly string[]>([])
  const { result, problem } = useMeasured(kit, groove, measured, 0)
  const left = result?.changes.filter(({ pad }) => !taken.includes(pad.id)) ?? []
  const take = (changes: readonly ProposedLevel[]) => {
    editKit(kit.id, changes.map(({ pad, byDb }) => levelEdit(kit, pad, byDb)))
    setTaken([...taken, ...changes.map(({ pad }) => pad.id)])
  }
  const actions = left.length > 1 ? <Button kind="main" label={`Take all ${left.length}`} onPress={() => take(left)} /> : undefined
  return (
    <Sheet title="Balance" isOpen onClose={onClose} actions={actions}>
      {!groove || (result && result.count < 2) ? (
        <Text>Levels are judged against each other in a groove: put beads on at least two pads, or take a ready groove.</Text>
      ) : problem ? (
        <Text tone="coral">{problem}</Text>
      ) : !result ? (
        <Waiting words="Listening to every pad in the groove" />
      ) : (
        <>
          <Text tone="muted">
            {result.changes.length === 0
              ? 'Each pad is about as loud as its family is in a groove. Nothing is proposed.'
              : 'As loud as their families are against each other in a groove. Your ear decides; each is one step to undo.'}
          </Text>
          <View role="list">
            {result.changes.map((change) => (
              <Row key={change.pad.id}>
                <PadGlyph kit={kit} pad={change.pad} size={32} />
                <View style={{ flex: 1, minWidth: 0, paddingHorizontal: 10, paddingVertical: 6 }}>
                  <Text look="strong" numberOfLines={1}>
                    {padName(kit, change.pad)}
                  </Text>
                  <Text look="small" tone="muted">
                    {`${change.isLufs.toFixed(1)} LUFS, suits at ${change.wantsLufs.toFixed(1)}`}
                  </Text>
                </View>
                {taken.includes(change.pad.id) ? (
                  <Text tone="kelp">Taken</Text>
                ) : (
                  <Button label={`${change.byDb > 0 ? 'Raise' : 'Lower'} by ${Math.abs(change.byDb)} dB`} onPress={() => take([change])} />
                )}
              </Row>
            ))}
          </View>
          {result.silent.length > 0 && (
            <Text look="small" tone="muted">
              {`Not in this groove, and left alone: ${result.silent.map((pad) => padName(kit, pad)).join(', ')}.`}
            </Text>
          )}
        </>
      )}
    </Sheet>
  )
} // prettier-ignore
