import { chosenByRule } from '@heliaster/core/groove'
import type { ChooseRule } from '@heliaster/core/groove'
import { padById } from '@heliaster/core/kit'
import type { PadId } from '@heliaster/core/kit'
import { useState } from 'react'

import { padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { CheckChips } from '../../../ui/controls/CheckChips'
import { Chips } from '../../../ui/controls/Chips'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import type { BeadHands } from '../hands/use-bead-hands'

interface Props {
  readonly hands: BeadHands
  /** Chosen among the beads of this string alone to begin with. */
  readonly padId?: PadId
  readonly onClose: () => void
}

export const RULES: readonly { readonly value: ChooseRule; readonly text: string }[] = [
  { value: 'all', text: 'All' },
  { value: 'every2nd', text: 'Every 2nd' },
  { value: 'every3rd', text: 'Every 3rd' },
  { value: 'every4th', text: 'Every 4th' },
  { value: 'beats', text: 'On beats' },
  { value: 'offBeats', text: 'Off-beats' },
  { value: 'soft', text: 'Soft' },
  { value: 'loud', text: 'Loud' },
]

/** Many beads by a rule, on the strings that are ticked. */
export function ChooseSheet({ hands, padId, onClose }: Props) {
  const { kit, groove } = hands
  const strings = groove.strings.filter(({ beads }) => beads.length > 0)
  const [padIds, setPadIds] = useState<readonly PadId[]>(padId ? [padId] : strings.map((one) => one.padId))
  const [rule, setRule] = useState<ChooseRule>('all')
  const ids = chosenByRule(groove, new Set(padIds), rule)
  const options = strings.map((one) => {
    const pad = padById(kit, one.padId)
    return { value: one.padId, text: pad ? padName(kit, pad) : 'A pad that is gone' }
  })
  const toggle = (id: PadId) => setPadIds(padIds.includes(id) ? padIds.filter((one) => one !== id) : [...padIds, id])
  const choose = () => {
    hands.choose(ids)
    onClose()
  }
  return (
    <Sheet
      title="Choose by rule"
      isOpen
      onClose={onClose}
      actions={<Button label={ids.size === 1 ? 'Choose 1 bead' : `Choose ${ids.size} beads`} kind="main" disabled={ids.size === 0} onPress={choose} />}
    >
      {strings.length === 0 ? (
        <Text tone="muted">The groove has no beads yet.</Text>
      ) : (
        <>
          <Chips label="Which beads" options={RULES} value={rule} onChoose={setRule} />
          <CheckChips label="Of which strings" options={options} values={padIds} onToggle={toggle} />
        </>
      )}
    </Sheet>
  )
} // prettier-ignore
