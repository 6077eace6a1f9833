import type { Groove, Kit } from '@heliaster/core/kit'
import { grooveOn } from '@heliaster/core/place'
import { useEffect, useMemo, useState } from 'react'

import { hearGroove } from '../../../audio/engine/sound'
import { chooseGroove, stopGroove } from '../../../audio/playing/groove-player'
import { makeId } from '../../../documents/make-id'
import { editKit } from '../../../kit-view'
import { OtherKit, useOtherKit } from '../../../kit-view/OtherKit'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { notify } from '../../../ui/layout/notices'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'

interface Props {
  readonly kit: Kit
  readonly onClose: () => void
}

/** A groove of another kit on the pads of this one, by names and families: heard first. */
export function BringGroove({ kit, onClose }: Props) {
  const [chosen, setChosen] = useState<Groove>()
  const [isHeard, setHeard] = useState(false)
  const stop = () => {
    if (isHeard) hearGroove(undefined)
    setHeard(false)
  }
  const other = useOtherKit(kit, () => {
    stop()
    setChosen(undefined)
  })
  const from = other.kit
  const answered = useMemo(() => (from && chosen ? grooveOn(makeId, from, chosen, kit) : undefined), [from, chosen, kit])
  useEffect(() => () => hearGroove(undefined), [])
  const hear = () => {
    if (isHeard || !answered) return stop()
    stopGroove()
    hearGroove(answered.groove)
    setHeard(true)
  }
  const bring = () => {
    if (!answered) return
    stop()
    editKit(kit.id, [{ type: 'putGroove', groove: answered.groove }])
    chooseGroove(answered.groove.id)
    notify(`“${answered.groove.name || 'The groove'}” is a groove of this kit now.`)
    onClose()
  }
  const isEmpty = answered?.groove.strings.length === 0
  return (
    <Sheet
      title="A groove of another kit"
      isOpen
      onClose={onClose}
      actions={
        <Button label={answered ? 'Bring it here' : 'Choose a groove'} kind="main" disabled={!answered || isEmpty} onPress={bring} />
      }
    >
      <OtherKit {...other} />
      {from && from.grooves.length === 0 && <Text tone="muted">It has no groove.</Text>}
      {from && from.grooves.length > 0 && (
        <Chips
          label="Groove"
          options={from.grooves.map(({ id, name }, i) => ({ value: id as string, text: name || `Groove ${i + 1}` }))}
          value={chosen?.id as string | undefined}
          onChoose={(id) => {
            stop()
            setChosen(from.grooves.find((groove) => groove.id === id))
          }}
        />
      )}
      {answered && (
        <>
          <Button label={isHeard ? 'Stop' : 'Hear it on this kit'} icon={isHeard ? 'stop' : 'play'} disabled={isEmpty} onPress={hear} />
          <Text look="small" tone={answered.without.length > 0 ? 'coral' : 'muted'}>
            {answered.without.length > 0
              ? `No pad here answers ${answered.without.join(', ')}: what they play is left out.`
              : 'Every string has a pad here that answers it.'}
          </Text>
        </>
      )}
    </Sheet>
  )
}
