import { applyEdit } from '@heliaster/core/kit'
import type { Groove, Kit } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import { View } from 'react-native'

import { tryKit } from '../../../audio/engine/sound'
import { grooveState, startGroove } from '../../../audio/playing/groove-player'
import { editKit } from '../../../kit-view'
import { Button } from '../../../ui/controls/Button'
import { Row } from '../../../ui/layout/Row'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { Waiting } from '../../../ui/layout/Waiting'
import { evenedDb, heardPads, whoHidesWhom } from './measure-mix'
import { hidingWords, offersFor } from './offers'
import type { Offer } from './offers'
import { useMeasured } from './use-heard'

interface Props {
  readonly kit: Kit
  readonly groove: Groove | undefined
  readonly onClose: () => void
}

const MOST_SHOWN = 12
const measured = async (kit: Kit, groove: Groove) => whoHidesWhom(kit, groove, await heardPads(kit, groove))

/** Who hides whom in the groove, the worst first, and what can be done: heard before it is taken, as loud as it was. */
export function HidesSheet({ kit, groove, onClose }: Props) {
  const [round, setRound] = useState(0)
  const [open, setOpen] = useState<number>()
  const { result, problem } = useMeasured(kit, groove, measured, round)
  useEffect(() => () => tryKit(undefined), [])
  const took = () => {
    setOpen(undefined)
    setRound(round + 1)
  }
  return (
    <Sheet title="Who hides whom" isOpen onClose={onClose}>
      {!groove ? (
        <Text>Pads hide each other where they sound together: put beads on some, or take a ready groove.</Text>
      ) : problem ? (
        <Text tone="coral">{problem}</Text>
      ) : !result ? (
        <Waiting words="Listening to every pad in the groove" />
      ) : result.length === 0 ? (
        <Text>Nothing hides anything in this groove: every pad is heard in what it is known by.</Text>
      ) : (
        <View role="list">
          {result.slice(0, MOST_SHOWN).map((one, i) => (
            <Row key={hidingWords(kit, one)}>
              <View style={{ flex: 1, paddingVertical: 8, gap: 8 }}>
                <Text>{hidingWords(kit, one)}</Text>
                <Text look="small" tone="muted">
                  {`${Math.round(100 * one.share)} % of what is heard of it`}
                </Text>
                {open === i ? (
                  <Offers kit={kit} groove={groove} offers={offersFor(kit, one)} onTaken={took} />
                ) : (
                  <View style={{ flexDirection: 'row' }}>
                    <Button label="What to do" kind="quiet" onPress={() => setOpen(i)} />
                  </View>
                )}
              </View>
            </Row>
          ))}
        </View>
      )}
    </Sheet>
  )
} // prettier-ignore

interface OffersProps {
  readonly kit: Kit
  readonly groove: Groove
  readonly offers: readonly Offer[]
  readonly onTaken: () => void
}

/** Each is heard in the groove as it would be, at the loudness that it has now, and then taken or not. */
function Offers({ kit, groove, offers, onTaken }: OffersProps) {
  const [heard, setHeard] = useState<Offer>()
  const [isBusy, setBusy] = useState(false)
  const [problem, setProblem] = useState<string>()
  const hear = async (offer: Offer | undefined) => {
    setBusy(true)
    setProblem(undefined)
    try {
      if (offer) {
        const after = offer.edits.reduce((doc, edit) => applyEdit(doc, edit), kit)
        const evened = await evenedDb(kit, after, groove)
        tryKit({ ...after, values: { ...after.values, gainDb: (after.values.gainDb ?? 0) + evened } })
      } else tryKit(undefined)
      setHeard(offer)
      if (!grooveState.getState().playing) startGroove(kit.id)
    } catch {
      setProblem('It could not be heard: a sound of the groove is not on this device. Connect to the server and try again; it can be taken all the same.')
    } finally {
      setBusy(false)
    }
  }
  const take = (offer: Offer) => {
    tryKit(undefined)
    editKit(kit.id, [...offer.edits])
    onTaken()
  }
  if (offers.length === 0) return <Text tone="muted">The song hides and is hidden by itself: there is nothing of the kit to change.</Text>
  return (
    <View style={{ gap: 10 }}>
      {problem && (
        <Text role="alert" tone="coral">
          {problem}
        </Text>
      )}
      {offers.map((offer) => (
        <View key={offer.words} style={{ gap: 6 }}>
          <Text look="strong">{offer.words}</Text>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            <Button label={heard === offer ? 'Hear it as it is' : 'Hear it so'} icon="play-outline" disabled={isBusy} onPress={() => void hear(heard === offer ? undefined : offer)} />
            <Button label="Take it" disabled={isBusy} onPress={() => take(offer)} />
          </View>
        </View>
      ))}
    </View>
  )
} // prettier-ignore
