import { useStore } from 'zustand'

import { beginTake, takeSettings } from '../../../audio/playing/groove-take'
import { DrawnToSteps } from '../../../kit-view/DrawnToSteps'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Toggle } from '../../../ui/controls/Toggle'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import type { BeadHands } from '../hands/use-bead-hands'

interface Props {
  readonly hands: BeadHands
  readonly onClose: () => void
}

const WAYS = [
  { value: 'over', text: 'Over what is there' },
  { value: 'instead', text: 'Instead of it' },
] as const

/** How strikes of pads become beads, and the way to begin: no count-in, and a click only when asked. */
export function TakeSheet({ hands: { kit, groove }, onClose }: Props) {
  const { isInstead, share, hasClick } = useStore(takeSettings)
  const begin = () => {
    onClose()
    beginTake(kit.id, groove)
  }
  return (
    <Sheet
      title="Record from pads"
      isOpen
      onClose={onClose}
      actions={<Button label="Record" kind="coral" icon="record-circle-outline" onPress={begin} />}
    >
      <Chips label="What is played comes" options={WAYS} value={isInstead ? 'instead' : 'over'} onChoose={(way) => takeSettings.setState({ isInstead: way === 'instead' })} />
      <Text look="small" tone="muted">
        {isInstead ? 'A pad that is struck begins its string anew; the others stay.' : 'Strikes join the beads that are there.'}
      </Text>
      <DrawnToSteps share={share} onShare={(now) => takeSettings.setState({ share: now })} />
      <Toggle label="A click on every beat" value={hasClick} onChange={(value) => takeSettings.setState({ hasClick: value })} />
      <Text look="small" tone="muted">
        It begins at once, with the groove. Escape ends it, and one undo takes the whole pass back.
      </Text>
    </Sheet>
  )
} // prettier-ignore
