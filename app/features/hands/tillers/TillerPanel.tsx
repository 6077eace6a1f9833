import { addressKey, addressLeadsTo, mixPlace, parameterRow, movedParameters, valueNow, withTarget } from '@heliaster/core/kit'
import type { Address, Kit, Parameter, Tiller } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { handSettings } from '../../../audio/playing/hands/hand-settings'
import { onController } from '../../../audio/playing/hands/hands'
import { makeId } from '../../../documents/make-id'
import { addressWords, mixOwner, movedOfBus } from '../../../kit-view/buses/mix-words'
import { parameterChoices } from '../../../kit-view/parameter-words'
import { padName } from '../../../kit-view/use-kit'
import { whyTargetNothing } from '../../../kit-view/why-nothing'
import { Button, IconButton } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { NameField } from '../../../ui/controls/NameField'
import { NumberField } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'

interface Props {
  readonly kit: Kit
  readonly tiller: Tiller
  readonly place: number
  readonly onChange: (change: Partial<Tiller>) => void
  readonly onRemove: () => void
}

type Target = Tiller['to'][number]

/** One tiller: its name, the controller that leads it, and all that it moves, each from one value to another. */
export function TillerPanel({ kit, tiller, place, onChange, onRemove }: Props) {
  const [isAdding, setAdding] = useState(false)
  const change = (target: Target, fields: Partial<Target>) =>
    onChange({ to: tiller.to.map((one) => (one === target ? { ...one, ...fields } : one)) })
  return (
    <View style={{ gap: 10, paddingLeft: 12 }}>
      <NameField
        label="Name of the tiller"
        value={tiller.name}
        onName={(name) => onChange({ name: name.trim().slice(0, 120) || tiller.name })}
      />
      <LearnController place={place} />
      {tiller.to.length === 0 && (
        <Text look="small" tone="coral">
          It moves nothing yet.
        </Text>
      )}
      <View role="list" aria-label={`What ${tiller.name} moves`}>
        {tiller.to.map((target) => (
          <TargetLine
            key={target.id}
            kit={kit}
            target={target}
            onChange={(fields) => change(target, fields)}
            onRemove={() => onChange({ to: tiller.to.filter((one) => one !== target) })}
          />
        ))}
      </View>
      {isAdding ? (
        <NewTarget
          kit={kit}
          onAdd={(addresses) => {
            setAdding(false)
            onChange({ to: addresses.reduce((made, address) => withAddress(kit, made, address), tiller).to })
          }}
          onLeave={() => setAdding(false)}
        />
      ) : (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <Button label="Let it move something" onPress={() => setAdding(true)} />
          <Button label="Remove the tiller" onPress={onRemove} />
        </View>
      )}
    </View>
  )
}

/** A tiller that also leads something, from where it is set now. */
function withAddress(kit: Kit, tiller: Tiller, address: Address): Tiller {
  const now = valueNow(kit, address)
  return now === undefined ? tiller : withTarget(tiller, makeId, address, now, addressLeadsTo(kit, address, now))
}

/** Which controller of this device leads it, learnt from the one that is moved next. */
function LearnController({ place }: { readonly place: number }) {
  const number = useStore(handSettings, (state) => state.tillers[place])
  const [isLearning, setLearning] = useState(false)
  const put = (learnt: number | undefined) => {
    const { [place]: _before, ...others } = handSettings.getState().tillers
    handSettings.setState({ tillers: learnt === undefined ? others : { ...others, [place]: learnt } })
  }
  useEffect(() => {
    if (!isLearning) return undefined
    return onController((learnt) => {
      setLearning(false)
      const { [place]: _before, ...others } = handSettings.getState().tillers
      handSettings.setState({ tillers: { ...others, [place]: learnt } })
    })
  }, [isLearning, place])
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap', gap: 8 }}>
      <Text look="small" tone="muted" role="status" style={{ flex: 1, minWidth: 160 }}>
        {isLearning
          ? 'Move a wheel or knob of your input.'
          : number === undefined
            ? 'No controller leads it.'
            : `Controller ${number} of this device leads it.`}
      </Text>
      <Button label={isLearning ? 'Do not learn' : 'Learn its controller'} onPress={() => setLearning(!isLearning)} />
      {number !== undefined && !isLearning && <Button label="Let go" onPress={() => put(undefined)} />}
    </View>
  )
}

interface TargetProps {
  readonly kit: Kit
  readonly target: Target
  readonly onChange: (fields: Partial<Target>) => void
  readonly onRemove: () => void
}

function TargetLine({ kit, target, onChange, onRemove }: TargetProps) {
  const { address, from, to } = target
  const { text, unit, factor } = addressWords(kit, address)
  const { min, max } = mixPlace(kit, address) ?? parameterRow(address.param as Parameter)
  const name = `${text} of ${nameOfAddress(kit, address)}`
  const silence = whyTargetNothing(kit, target)
  const field = (label: string, value: number, put: (value: number) => void) => (
    <NumberField
      label={`${name}, ${label}`}
      text={Number((value * factor).toFixed(2)).toString()}
      unit={unit}
      width={52}
      onNumber={(typed) => put(Math.min(max, Math.max(min, typed / factor)))}
    />
  )
  return (
    <View role="listitem" style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
      <View style={{ flex: 1 }}>
        <Text look="small">{name}</Text>
        {silence && (
          <Text look="small" tone="coral">
            {`Not heard: ${silence}.`}
          </Text>
        )}
      </View>
      {field('from', from, (value) => onChange({ from: value }))}
      {field('to', to, (value) => onChange({ to: value }))}
      <IconButton name="close" label={`${name}: no more`} onPress={onRemove} />
    </View>
  )
}

interface NewProps {
  readonly kit: Kit
  readonly onAdd: (addresses: readonly Address[]) => void
  readonly onLeave: () => void
}

const EVERY = 'every'
const MIX = 'mix'

/** Whom it moves (every pad, one, one ray of it, a bus, the mix), and what of it: of buses and the mix also what is put into them. */
function NewTarget({ kit, onAdd, onLeave }: NewProps) {
  const [who, setWho] = useState<string>(EVERY)
  const [ray, setRay] = useState<string>(EVERY)
  const [param, setParam] = useState<Parameter>('filter1CutoffHz')
  const [ofMix, setOfMix] = useState<string>()
  const pad = kit.pads.find(({ id }) => id === who)
  const isBus = who === MIX || kit.buses.some(({ id }) => id === who)
  const ofBus = isBus ? movedOfBus(kit, who === MIX ? undefined : who) : []
  const chosen = ofBus.find(({ address }) => addressKey(address) === ofMix) ?? ofBus[0]
  const add = () => {
    if (chosen) return onAdd([chosen.address])
    if (pad?.rays.some(({ id }) => id === ray)) return onAdd([{ scope: 'ray', id: ray, param }])
    onAdd(kit.pads.filter((one) => who === EVERY || one === pad).map(({ id }) => ({ scope: 'pad', id, param })))
  }
  const options = [
    { value: EVERY, text: 'Every pad' },
    ...kit.pads.map((one) => ({ value: one.id as string, text: padName(kit, one) })),
    { value: MIX, text: 'The mix' },
    ...kit.buses.map((bus) => ({ value: bus.id as string, text: bus.name })),
  ]
  return (
    <View style={{ gap: 10 }}>
      <Chips label="Of" isOneLine options={options} value={who} onChoose={setWho} />
      {pad && pad.rays.length > 1 && (
        <Chips
          label="Which ray"
          isOneLine
          options={[{ value: EVERY, text: 'All of it' }, ...pad.rays.map(({ id, name }) => ({ value: id as string, text: name }))]}
          value={pad.rays.some(({ id }) => id === ray) ? ray : EVERY}
          onChoose={setRay}
        />
      )}
      {isBus ? (
        <Chips
          label="It moves"
          options={ofBus.map(({ address, text, group }) => ({ value: addressKey(address), text, group }))}
          value={chosen && addressKey(chosen.address)}
          onChoose={setOfMix}
        />
      ) : (
        <Chips label="It moves" options={parameterChoices(movedParameters)} value={param} onChoose={setParam} />
      )}
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Button label="Add" kind="main" disabled={who === EVERY && kit.pads.length === 0} onPress={add} />
        <Button label="Leave it" onPress={onLeave} />
      </View>
    </View>
  )
}

/** What an address means, by its name. */
function nameOfAddress(kit: Kit, address: Address): string {
  const { id } = address
  const owner = mixOwner(kit, address)
  if (owner) return owner
  const pad = kit.pads.find((one) => one.id === id || one.rays.some((ray) => ray.id === id))
  const ray = pad?.rays.find((one) => one.id === id)
  return pad ? `${ray ? `${ray.name}, ` : ''}${padName(kit, pad)}` : 'what is gone'
}
