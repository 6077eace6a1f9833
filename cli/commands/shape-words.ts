import { choices, envelopeNames, parameterRow, parametersOf, stages } from '@heliaster/core/kit'
import type { Choice, Choices, Envelope, EnvelopeName, Envelopes, OwnSettings, Parameter, Stage, Values } from '@heliaster/core/kit'

import { WrongUsage } from '../main'

/** What NAME=VALUE words say, as a pad or ray has it. */
export interface Said {
  readonly values: Values
  readonly choices: Choices
  readonly envelopes: Envelopes
  readonly order?: Stage[]
}

/** Reads words as `driveDb=12`, `filter1Kind=peak`, `level=0:1,0.3:0:-0.5` or `order=filter1,drive,...`. */
export function readWords(words: readonly string[], scope: 'pad' | 'ray'): Said {
  return words.reduce<Said>(
    (said, word) => {
      const [name, value] = parted(word)
      if (name === 'order') return { ...said, order: orderOf(value, scope) }
      if (name in choices) return { ...said, choices: { ...said.choices, [name]: choiceOf(name as Choice, value) } }
      if (envelopeNames.includes(name as EnvelopeName))
        return { ...said, envelopes: { ...said.envelopes, [name]: envelopeOf(name as EnvelopeName, value) } }
      return { ...said, values: { ...said.values, [name]: numberOf(name, value, scope) } }
    },
    { values: {}, choices: {}, envelopes: {} },
  )
}

function parted(word: string): [string, string] {
  const at = word.indexOf('=')
  if (at < 1) throw new WrongUsage(`"${word}" is not NAME=VALUE, as driveDb=12.`)
  return [word.slice(0, at), word.slice(at + 1)]
}

function numberOf(name: string, text: string, scope: 'pad' | 'ray'): number {
  const names = parametersOf(scope)
  const param = names.find((one) => one === name)
  if (!param)
    throw new WrongUsage(`A ${scope} has no "${name}". It has ${[...names, ...Object.keys(choices), ...envelopeNames].join(', ')}.`)
  const { min, max, unit } = parameterRow(param)
  const value = Number(text)
  if (text.trim() === '' || !(value >= min && value <= max))
    throw new WrongUsage(`${name} takes a number from ${min} to ${Number(max.toFixed(4))} (${unit}), not "${text}".`)
  return value
}

function choiceOf(name: Choice, text: string): string {
  const list: readonly string[] = choices[name]
  if (!list.includes(text)) throw new WrongUsage(`${name} is one of ${list.join(', ')}, not "${text}".`)
  return text
}

function orderOf(text: string, scope: 'pad' | 'ray'): Stage[] {
  if (scope === 'ray') throw new WrongUsage('The order of stages is a pad’s; leave out --ray.')
  const order = text.split(',') as Stage[]
  if (order.length !== stages.length || stages.some((stage) => !order.includes(stage)))
    throw new WrongUsage(`order names each of ${stages.join(', ')} once, not "${text}".`)
  return order
}

/** Points as SECONDS:VALUE or SECONDS:VALUE:BEND; a star behind the one at which a held strike waits. None removes all. */
function envelopeOf(name: EnvelopeName, text: string): Envelope {
  if (text === 'none') return { points: [] }
  const [least, most] = name === 'pitch' ? [-12000, 12000] : [0, 1]
  const parts = text.split(',')
  const points = parts.map((part) => {
    const numbers = part.replace(/\*$/, '').split(':').map((one) => (one.trim() === '' ? NaN : Number(one))) // prettier-ignore
    const [seconds, value, bend = 0] = numbers
    const isRight = numbers.length <= 3 && seconds >= 0 && seconds <= 3600 && value >= least && value <= most && bend >= -1 && bend <= 1
    if (!isRight)
      throw new WrongUsage(
        `"${part}" is no point of ${name}: SECONDS:VALUE or SECONDS:VALUE:BEND, values ${least} to ${most}, bends -1 to 1.`,
      )
    return { seconds, value, bend }
  })
  if (points.length > 32) throw new WrongUsage(`An envelope has 32 points at most, not ${points.length}.`)
  if (points.some(({ seconds }, i) => i > 0 && seconds < points[i - 1].seconds))
    throw new WrongUsage(`The points of ${name} do not run forward in time.`)
  const sustain = parts.findIndex((part) => part.endsWith('*'))
  return { points, ...(sustain < 0 ? {} : { sustain }) }
}

/** What a pad or ray has of its own, as such words. */
export function sayWords({
  values = {},
  choices: chosen = {},
  envelopes = {},
  order,
}: Pick<OwnSettings, 'values' | 'choices' | 'envelopes' | 'order'>): string[] {
  const numbers = (Object.keys(values) as Parameter[]).map((name) => `${name}=${Number(values[name]!.toFixed(6))}`)
  const kinds = Object.entries(chosen).map(([name, choice]) => `${name}=${choice}`)
  const shapes = Object.entries(envelopes).map(([name, envelope]) => `${name}=${pointsOf(envelope)}`)
  return [...numbers, ...kinds, ...shapes, ...(order ? [`order=${order.join(',')}`] : [])]
}

function pointsOf({ points, sustain }: Envelope): string {
  if (points.length === 0) return 'none'
  const short = (value: number) => String(Number(value.toFixed(6)))
  return points.map(({ seconds, value, bend }, i) => `${short(seconds)}:${short(value)}${bend === 0 ? '' : `:${short(bend)}`}${i === sustain ? '*' : ''}`).join(',') // prettier-ignore
}
