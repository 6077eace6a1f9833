import type { Kit, KitEdit, Pad, Parameter, RayId, Response } from '@heliaster/core/kit'
import { padSettings } from '@heliaster/core/kit'
import { isWander, WANDER_BOUNDS, wanderOf, withWander } from '@heliaster/core/shaping'
import { useState } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { Part } from '../../../ui/layout/Part'
import { parameterChoices } from '../../../kit-view/parameter-words'
import { MoverActs, SourceChips, WaveRate } from '../../../kit-view/moved-by/MovedBy'
import { waveFor } from '../../../kit-view/moved-by/sources'
import type { SourceChoice } from '../../../kit-view/moved-by/sources'
import { mostOf, moverSentence, moverWords, newMover, TARGETS, targetOf } from './mover-words'
import { ResponseCurve } from './ResponseCurve'
import { whyNothing } from '../../../kit-view/why-nothing'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  /** New ones move this ray alone. */
  readonly rayId?: RayId
  /** Edits that belong to one drag, and its end. */
  readonly onSlide: (edits: KitEdit[]) => void
  readonly onDone: () => void
}

const MOST = 64

/** Everything that moves a pad's sound: by the strike, or while it sounds; how far each moves it, and one more. */
export function Movers({ kit, pad, rayId, onSlide, onDone }: Props) {
  const settings = padSettings(kit, pad)
  const { responses } = settings
  const shown = responses.filter((one) => !isWander(one))
  const [isAdding, setAdding] = useState(false)
  const put = (changed: readonly Response[], more: KitEdit[] = []): KitEdit[] => [...more, { type: 'setPad', padId: pad.id, own: { responses: [...changed] } }] // prettier-ignore
  const now = (edits: KitEdit[]) => {
    onSlide(edits)
    onDone()
  }
  const change = (response: Response, fields: Partial<Response>) =>
    put(responses.map((one) => (one === response ? { ...one, ...fields } : one)))
  const add: NewMoverProps['onAdd'] = (choice, param, number, ofRay) => {
    const { wave, edits } = waveFor(kit, choice)
    now(put([...responses, newMover({ choice, param, number, oscillatorId: wave.id, rayId: ofRay }, responses)], edits)) // prettier-ignore
    setAdding(false)
  }
  return (
    <Part name="What moves it">
      <Wander share={wanderOf(responses)} onSlide={(share) => onSlide(put(withWander(responses, share)))} onDone={onDone} />
      {responses.length === 0 && (
        <Text look="small" tone="muted">
          Nothing: every strike is alike.
        </Text>
      )}
      {shown.map((response) => (
        <Mover
          key={response.id}
          kit={kit}
          pad={pad}
          response={response}
          silence={whyNothing(kit, pad, settings, response)}
          onBypass={() => now(change(response, { bypass: !response.bypass }))}
          onSlide={(amount) => onSlide(change(response, { amount }))}
          onCurve={(curve) => onSlide(put(responses.map((one) => (one === response ? withCurve(one, curve) : one))))}
          onDone={onDone}
          onRemove={() => now(put(responses.filter((one) => one !== response)))}
        />
      ))}
      <WaveRate kit={kit} responses={responses} onSlide={onSlide} onDone={onDone} />
      {isAdding ? (
        <NewMover pad={pad} rayId={rayId} onAdd={add} onLeave={() => setAdding(false)} />
      ) : (
        <Button label="Let something move it" disabled={responses.length >= MOST} onPress={() => setAdding(true)} />
      )}
    </Part>
  )
}

/** A straight curve needs no saying. */
function withCurve({ curve: _, ...response }: Response, curve: Response['curve']): Response {
  return curve ? { ...response, curve } : response
}

interface WanderProps {
  readonly share: number
  readonly onSlide: (share: number) => void
  readonly onDone: () => void
}

/** No strike quite like the last: one amount, and how far it lets each go. */
function Wander({ share, onSlide, onDone }: WanderProps) {
  const { startSeconds, tuneCents, gainDb, filter1CutoffHz } = WANDER_BOUNDS
  return (
    <View>
      <Slider
        label="Wander"
        value={share * 100}
        min={0}
        max={100}
        step={1}
        unit="%"
        neutral={0}
        onSlide={(percent) => onSlide(percent / 100)}
        onDone={onDone}
      />
      <Text look="small" tone="muted">
        {share === 0
          ? 'Small differences from strike to strike, so that none is quite like the last.'
          : `Either way: start ${(startSeconds * share * 1000).toFixed(1)} ms, pitch ${Math.round(tuneCents * share)} cents, level ${(gainDb * share).toFixed(1)} dB, cutoff ${Math.round(filter1CutoffHz * share)} cents.`}
      </Text>
    </View>
  )
}

interface MoverProps {
  readonly pad: Pad
  readonly response: Response
  readonly kit: Kit
  /** Why it is not heard, where it is not. */
  readonly silence: string | undefined
  readonly onSlide: (amount: number) => void
  readonly onCurve: (curve: Response['curve']) => void
  readonly onDone: () => void
  readonly onBypass: () => void
  readonly onRemove: () => void
}

/** One response: a sentence with its amount, its curve with where it stands, and whether it is heard. */
function Mover({ kit, pad, response, silence, onSlide, onCurve, onDone, onBypass, onRemove }: MoverProps) {
  const palette = usePalette()
  const words = moverWords(response)
  const target = response.to[0] && targetOf(response.to[0].param)
  const ray = pad.rays.find(({ id }) => id === response.to[0]?.ray)
  const most = target ? mostOf(kit, pad, target) : 0
  return (
    <View style={{ borderTopWidth: 1, borderTopColor: palette.faint, paddingTop: 6 }}>
      <View style={{ opacity: response.bypass ? 0.55 : 1 }}>
        {target ? (
          <Slider
            label={moverSentence(response)}
            spoken={words}
            value={response.amount * target.factor}
            min={-most}
            max={most}
            step={target.step}
            unit={target.unit}
            neutral={0}
            onSlide={(amount) => onSlide(amount / target.factor)}
            onDone={onDone}
          />
        ) : (
          <Text look="small">{words}</Text>
        )}
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
        <ResponseCurve pad={pad} response={response} label={words} onCurve={onCurve} onDone={onDone} />
        <Text look="small" tone={silence ? 'coral' : 'muted'} style={{ flex: 1, paddingLeft: 8 }}>
          {silence ? `Not heard: ${silence}.` : ray ? `Only the ray ${ray.name}.` : ''}
        </Text>
        <MoverActs words={words} bypass={response.bypass} onBypass={onBypass} onRemove={onRemove} />
      </View>
    </View>
  )
}

interface NewMoverProps {
  readonly pad: Pad
  /** The ray that is shaped now, if it is one. */
  readonly rayId: RayId | undefined
  readonly onAdd: (choice: SourceChoice, param: Parameter, number: number, rayId: RayId | undefined) => void
  readonly onLeave: () => void
}

const ALL = 'all'

/** What moves, what it moves, and whether only of one ray. */
function NewMover({ pad, rayId, onAdd, onLeave }: NewMoverProps) {
  const [choice, setChoice] = useState<SourceChoice>('wheel')
  const [param, setParam] = useState<Parameter>('gainDb')
  const [number, setNumber] = useState(4)
  const [ray, setRay] = useState<RayId | typeof ALL>(rayId ?? ALL)
  const rays = [{ value: ALL, text: 'All rays' }, ...pad.rays.map(({ id, name }) => ({ value: id, text: name }))] as const
  return (
    <View style={{ gap: 10 }}>
      <SourceChips choice={choice} onChoose={setChoice} number={number} onNumber={setNumber} />
      <Chips label="What it moves" options={parameterChoices(TARGETS.map(({ value }) => value))} value={param} onChoose={setParam} />
      {pad.rays.length > 1 && <Chips label="Of which ray" options={rays} value={ray} onChoose={setRay} />}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <Button label="Add" kind="main" onPress={() => onAdd(choice, param, number, ray === ALL ? undefined : ray)} />
        <Button label="Leave it" onPress={onLeave} />
      </View>
    </View>
  )
}
