import { chosenByRule, divisionOf, stepsOf, stringOf, withOwnTiming, withoutBeads } from '@heliaster/core/groove'
import type { ChooseRule, OwnTiming } from '@heliaster/core/groove'
import { padById } from '@heliaster/core/kit'
import type { PadId } from '@heliaster/core/kit'
import { View } from 'react-native'

import { padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { Toggle } from '../../../ui/controls/Toggle'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import type { BeadHands } from '../hands/use-bead-hands'
import { RULES } from './ChooseSheet'
import { StepsToABeat } from './TimingPart'

interface Props {
  readonly hands: BeadHands
  readonly padId: PadId
  readonly onClose: () => void
}

/** What a string has of its own (length, division, swing), its beads chosen by a rule, and all of them taken off. */
export function StringSheet({ hands, padId, onClose }: Props) {
  const { kit, groove } = hands
  const string = stringOf(groove, padId)
  const pad = padById(kit, padId)
  const { lengthSteps, stepsPerBeat, swing } = string
  const own: OwnTiming = { lengthSteps, stepsPerBeat, swing }
  const set = (fields: OwnTiming) => hands.edit(withOwnTiming(groove, padId, { ...own, ...fields }))
  const slide = (fields: OwnTiming) => hands.slide((before) => withOwnTiming(before, padId, { ...own, ...fields }))
  /** In another division it stays as long as it is. */
  const divided = (to: number | undefined): OwnTiming => {
    const factor = (to ?? groove.stepsPerBeat) / divisionOf(groove, string)
    return { ...own, stepsPerBeat: to, ...(lengthSteps === undefined ? {} : { lengthSteps: Math.max(1, Math.round(lengthSteps * factor)) }) }
  }
  const divide = (to: number | undefined) => hands.edit(withOwnTiming(groove, padId, divided(to)))
  const choose = (rule: ChooseRule) => {
    hands.choose(chosenByRule(groove, new Set([padId]), rule))
    onClose()
  }
  const clear = () => {
    hands.edit(withoutBeads(groove, new Set(string.beads.map(({ id }) => id))), new Set())
    onClose()
  }
  const steps = stepsOf(groove, string)
  const hasBeads = string.beads.length > 0
  return (
    <Sheet title={pad ? padName(kit, pad) : 'A pad that is gone'} isOpen onClose={onClose}>
      {hasBeads && <Chips label="Choose its beads" options={RULES} value={undefined} onChoose={choose} />}
      <Toggle label="A length of its own" words="It goes round by itself, 16 against 12." value={lengthSteps !== undefined} onChange={(on) => set({ lengthSteps: on ? steps : undefined })} />
      {lengthSteps !== undefined && (
        <Slider label="Length" value={lengthSteps} min={1} max={1024} step={1} power={3} unit="steps" onSlide={(value) => slide({ lengthSteps: value })} onDone={hands.done} />
      )}
      <Toggle label="Steps of its own" words="So many to a beat, where the groove has others." value={stepsPerBeat !== undefined} onChange={(on) => divide(on ? divisionOf(groove, string) : undefined)} />
      {stepsPerBeat !== undefined && (
                <StepsToABeat
          value={stepsPerBeat}
          onChoose={divide}
          onSlide={(steps) => hands.slide((before) => withOwnTiming(before, padId, divided(steps)))}
          onDone={hands.done}
        />
      )}
      <Toggle label="A swing of its own" value={swing !== undefined} onChange={(on) => set({ swing: on ? groove.swing : undefined })} />
      {swing !== undefined && (
        <Slider label="Swing" value={Math.round(swing * 1000) / 10} min={50} max={75} step={0.1} unit="%" neutral={50} onSlide={(percent) => slide({ swing: percent / 100 })} onDone={hands.done} />
      )}
      <Text look="small" tone="muted">
        {`${steps} steps, ${divisionOf(groove, string)} to a beat.`}
      </Text>
      <View style={{ flexDirection: 'row' }}>
        <Button label="Take all its beads off" icon="trash-can-outline" disabled={!hasBeads} onPress={clear} />
      </View>
    </Sheet>
  )
} // prettier-ignore
