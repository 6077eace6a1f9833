import { readyOn, readyPatterns, withFill } from '@heliaster/core/groove/ready'
import type { ReadyOnKit, ReadyPattern } from '@heliaster/core/groove/ready'
import { freeGrooveName } from '@heliaster/core/groove'
import { familyWords } from '@heliaster/core/kit'
import type { Groove } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import { View } from 'react-native'

import { hearGroove } from '../../../audio/engine/sound'
import { playAlone, stopGroove } from '../../../audio/playing/groove-player'
import { makeId } from '../../../documents/make-id'
import { editKit } from '../../../kit-view'
import { Button, IconButton } from '../../../ui/controls/Button'
import { notify } from '../../../ui/layout/notices'
import { Row } from '../../../ui/layout/Row'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import type { BeadHands } from '../hands/use-bead-hands'

interface Props {
  readonly hands: BeadHands
  readonly onClose: () => void
}

/** Grooves and fills of our own hand, each heard on this kit's pads before it is taken. */
export function ReadySheet({ hands, onClose }: Props) {
  const { kit, groove } = hands
  const [heard, setHeard] = useState<string>()
  useEffect(() => () => hearGroove(undefined), [])
  const hear = (pattern: ReadyPattern) => {
    if (heard === pattern.name) {
      hearGroove(undefined)
      return setHeard(undefined)
    }
    stopGroove()
    hearGroove(readyOn(makeId, kit, pattern).groove)
    setHeard(pattern.name)
  }
  const take = (ready: Groove) => {
    const named = { ...ready, name: freeGrooveName(kit, ready.name) }
    editKit(kit.id, [{ type: 'putGroove', groove: named }])
    playAlone(named.id)
    notify(`“${named.name}” is a groove of this kit now.`)
    onClose()
  }
  const fill = (ready: Groove) => {
    hands.edit(withFill(groove, ready))
    notify(`“${ready.name}” sounds at the end of every fourth lap.`)
    onClose()
  }
  return (
    <Sheet title="Ready grooves" isOpen onClose={onClose}>
      {[false, true].map((isFill) => (
        <View key={String(isFill)} role="group" aria-label={isFill ? 'Fills' : 'Grooves'}>
          <Text look="label" tone="muted">
            {isFill ? 'Fills' : 'Grooves'}
          </Text>
          <View role="list">
            {readyPatterns.filter((pattern) => (pattern.isFill === true) === isFill).map((pattern, i) => {
              const on = readyOn(makeId, kit, pattern)
              return (
                <Row key={pattern.name} hasLine={i > 0}>
                  <IconButton name={heard === pattern.name ? 'stop' : 'play-outline'} label={heard === pattern.name ? `Stop ${pattern.name}` : `Hear ${pattern.name}`} on={heard === pattern.name} disabled={on.groove.strings.length === 0} onPress={() => hear(pattern)} />
                  <View style={{ flex: 1, minWidth: 0 }}>
                    <Text look="strong">{pattern.name}</Text>
                    <Text look="small" tone="muted">
                      {wordsOf(pattern, on)}
                    </Text>
                  </View>
                  {isFill && <Button label="Fill" disabled={on.groove.strings.length === 0 || withFill(groove, on.groove) === groove} onPress={() => fill(on.groove)} />}
                  <Button label="Take" disabled={on.groove.strings.length === 0} onPress={() => take(on.groove)} />
                </Row>
              )
            })}
          </View>
        </View>
      ))}
    </Sheet>
  )
} // prettier-ignore

/** What it is made of, and what of it has no pad here. */
function wordsOf({ strings, stepsPerBeat }: ReadyPattern, { without }: ReadyOnKit): string {
  const beats = strings[0]!.steps.length / stepsPerBeat
  const left = without.length > 0 ? `; no pad for ${without.map(familyWords).join(', ')}` : ''
  return `${beats} beats of ${stepsPerBeat}${left}`
}
