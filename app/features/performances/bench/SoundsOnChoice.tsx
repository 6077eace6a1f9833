import { padById } from '@heliaster/core/kit'
import type { Kit, KitId, PadId, Performance } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import { View } from 'react-native'

import { unanswered } from '../../../audio/performances/resound'
import type { SoundsOn } from '../../../audio/performances/resound'
import { padName } from '../../../kit-view/use-kit'
import { useKitById, useOtherKits } from '../../../kit-view/use-other-kits'
import { KitChoices } from '../../../kit-view/KitChoices'
import { Chips } from '../../../ui/controls/Chips'
import { Text } from '../../../ui/layout/Text'

const CHOICES = [
  { value: 'played', text: 'As it was played' },
  { value: 'now', text: 'The kit as it is now' },
  { value: 'other', text: 'Another kit' },
] as const
type Choice = (typeof CHOICES)[number]['value']

export interface Sounds {
  readonly on: SoundsOn
  readonly choice: Choice
  readonly otherId: KitId | undefined
  /** The kit of that id, once it is here. */
  readonly other: Kit | undefined
  readonly choose: (choice: Choice) => void
  readonly chooseOther: (id: KitId) => void
}

/** What a performance sounds on, and how that is chosen. */
export function useSoundsOn(kit: Kit): Sounds {
  const [choice, choose] = useState<Choice>('played')
  const [otherId, setOther] = useState<KitId>()
  const other = useKitById(otherId)
  const on: SoundsOn = choice === 'now' ? { as: 'kit', kit } : choice === 'other' && other ? { as: 'kit', kit: other } : { as: 'played' }
  return { on, choice, otherId, other, choose, chooseOther: setOther }
}

interface Props {
  readonly kit: Kit
  readonly performance: Performance
  readonly sounds: Sounds
}

/** The kits as they were, the same kit with its clips of now, or any other kit by families and names. */
export function SoundsOnChoice({ kit, performance, sounds }: Props) {
  const { choice, otherId, on } = sounds
  const others = useOtherKits(kit.id)
  const silent = useUnanswered(performance, on, kit)
  return (
    <View style={{ gap: 8 }}>
      <Chips label="Sounds" isOneLine options={others.length > 0 ? CHOICES : CHOICES.slice(0, 2)} value={choice} onChoose={sounds.choose} />
      {choice === 'other' && <KitChoices label="Which kit" kits={others} id={otherId} kit={sounds.other} onChoose={sounds.chooseOther} />}
      {silent.length > 0 && (
        <Text look="small" tone="coral">
          {`Nothing there is like ${silent.join(', ')}: silent. Put these strikes on other pads under “Pads”.`}
        </Text>
      )}
    </View>
  )
}

/** Names of the pads that were played and that nothing on the other kit answers. */
function useUnanswered(performance: Performance, on: SoundsOn, played: Kit): string[] {
  const [silent, setSilent] = useState<readonly PadId[]>([])
  const heardKit = on.as === 'kit' ? on.kit : undefined
  useEffect(() => {
    let isGone = false
    if (!heardKit) setSilent([])
    else void unanswered(performance, heardKit).then((padIds) => !isGone && setSilent(padIds), () => undefined) // prettier-ignore
    return () => void (isGone = true)
  }, [performance, heardKit])
  return silent.map((padId) => {
    const pad = padById(played, padId)
    return pad ? padName(played, pad) : 'a pad that is gone'
  })
}
