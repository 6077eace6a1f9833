import { addressKey } from '@heliaster/core/kit'
import type { BusId, Kit, KitEdit, KitResponse } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { editKit } from '../../../kit-view'
import { mixOwner, movedOfBus } from '../../../kit-view/buses/mix-words'
import { MoverActs, SourceChips, WaveRate } from '../../../kit-view/moved-by/MovedBy'
import type { SourceChoice } from '../../../kit-view/moved-by/sources'
import type { KitGesture } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { Part } from '../../../ui/layout/Part'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { addMover, isOfStrikes, MOST_MOVERS, movedWords, reachOf } from './mover-lines'

interface Props {
  readonly kit: Kit
  /** The whole kit's where it is not said. */
  readonly busId?: BusId
  readonly gesture: KitGesture
}

/** What moves a bus, or the whole, and what is put into it: the latest strike, controls of the hands and slow waves, each by how far. */
export function MixMovers({ kit, busId, gesture }: Props) {
  const [isAdding, setAdding] = useState(false)
  const here = new Set(movedOfBus(kit, busId).map(({ address }) => addressKey(address)))
  const shown = kit.responses.filter(({ to }) => to.some((address) => here.has(addressKey(address))))
  const put = (responses: readonly KitResponse[]): KitEdit[] => [{ type: 'setKit', fields: { responses: [...responses] } }]
  const changed = (response: KitResponse, fields: Partial<KitResponse>) =>
    put(kit.responses.map((one) => (one === response ? { ...one, ...fields } : one)))
  return (
    <Part name="What moves it">
      {shown.map((response) => (
        <Line
          key={response.id}
          kit={kit}
          response={response}
          onSlide={(amount) => gesture.set(changed(response, { amount }))}
          onDone={gesture.end}
          onBypass={() => editKit(kit.id, changed(response, { bypass: !response.bypass }))}
          onRemove={() => editKit(kit.id, put(kit.responses.filter((one) => one !== response)))}
        />
      ))}
      <WaveRate kit={kit} responses={shown} onSlide={gesture.set} onDone={gesture.end} />
      {isAdding ? (
        <NewLine
          kit={kit}
          busId={busId}
          onAdd={(edits) => {
            editKit(kit.id, edits)
            setAdding(false)
          }}
          onLeave={() => setAdding(false)}
        />
      ) : (
        <Button label="Let something move it" disabled={kit.responses.length >= MOST_MOVERS} onPress={() => setAdding(true)} style={{ alignSelf: 'flex-start' }} />
      )}
    </Part>
  )
} // prettier-ignore

interface LineProps {
  readonly kit: Kit
  readonly response: KitResponse
  readonly onSlide: (amount: number) => void
  readonly onDone: () => void
  readonly onBypass: () => void
  readonly onRemove: () => void
}

function Line({ kit, response, onSlide, onDone, onBypass, onRemove }: LineProps) {
  const palette = usePalette()
  const words = movedWords(kit, response)
  const [address] = response.to
  const reach = address && reachOf(kit, address)
  const owner = address?.scope === 'insert' ? mixOwner(kit, address) : undefined
  return (
    <View style={{ borderTopWidth: 1, borderTopColor: palette.faint, paddingTop: 6 }}>
      <View style={{ opacity: response.bypass ? 0.55 : 1 }}>
        {reach ? (
          <Slider
            label={words}
            value={response.amount * reach.factor}
            min={-reach.most}
            max={reach.most}
            step={reach.step}
            unit={reach.unit}
            neutral={0}
            onSlide={(amount) => onSlide(amount / reach.factor)}
            onDone={onDone}
          />
        ) : (
          <Text look="small">{words}</Text>
        )}
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
        <Text look="small" tone={reach ? 'muted' : 'coral'} style={{ flex: 1 }}>
          {reach
            ? [owner && `Of ${owner}.`, isOfStrikes(response) && 'By the latest strike.'].filter(Boolean).join(' ')
            : 'Not heard: that stands still while it sounds.'}
        </Text>
        <MoverActs words={words} bypass={response.bypass} onBypass={onBypass} onRemove={onRemove} />
      </View>
    </View>
  )
}

interface NewProps {
  readonly kit: Kit
  readonly busId: BusId | undefined
  readonly onAdd: (edits: KitEdit[]) => void
  readonly onLeave: () => void
}

function NewLine({ kit, busId, onAdd, onLeave }: NewProps) {
  const [source, setSource] = useState<SourceChoice>('wheel')
  const [number, setNumber] = useState(4)
  const [wanted, setWanted] = useState<string>()
  const places = movedOfBus(kit, busId)
  const chosen = places.find(({ address }) => addressKey(address) === wanted) ?? places[0]!
  return (
    <View style={{ gap: 10 }}>
      <SourceChips choice={source} onChoose={setSource} number={number} onNumber={setNumber} />
      <Chips
        label="What it moves"
        options={places.map(({ address, text, group }) => ({ value: addressKey(address), text, group }))}
        value={addressKey(chosen.address)}
        onChoose={setWanted}
      />
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button label="Add" kind="main" onPress={() => onAdd(addMover(kit, source, number, chosen.address))} />
        <Button label="Leave it" onPress={onLeave} />
      </View>
    </View>
  )
}
