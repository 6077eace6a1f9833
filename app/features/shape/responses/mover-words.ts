import { clipsOfPad, parameterRow, parameters } from '@heliaster/core/kit'
import type { Kit, Pad, Parameter, Response } from '@heliaster/core/kit'

import { choiceOf, freeId, sourceOf, sourceWords } from '../../../kit-view/moved-by/sources'
import type { Reach, SourceChoice } from '../../../kit-view/moved-by/sources'
import { PARAMETER_NAMES } from '../../../kit-view/parameter-words'

interface Target extends Reach {
  readonly value: Parameter
  readonly text: string
}

/** What is moved, each in a unit that says something to the ear. */
const REACHES: readonly Omit<Target, 'text'>[] = [
  { value: 'gainDb', most: 48, unit: 'dB', factor: 1, step: 0.1 },
  { value: 'pan', most: 100, unit: '%', factor: 100, step: 1 },
  { value: 'tuneCents', most: 2400, unit: 'cents', factor: 1, step: 1 },
  { value: 'startSeconds', most: 200, unit: 'ms', factor: 1000, step: 0.1 },
  { value: 'rollSeconds', most: 500, unit: 'ms', factor: 1000, step: 0.1 },
  { value: 'endSeconds', most: 200, unit: 'ms', factor: 1000, step: 0.1 },
  { value: 'delaySeconds', most: 50, unit: 'ms', factor: 1000, step: 0.1 },
  { value: 'glideSeconds', most: 1000, unit: 'ms', factor: 1000, step: 1 },
  { value: 'keyTrack', most: 100, unit: '%', factor: 100, step: 1 },
  { value: 'bendTrack', most: 100, unit: '%', factor: 100, step: 1 },
  { value: 'fadeInSeconds', most: 200, unit: 'ms', factor: 1000, step: 0.1 },
  { value: 'fadeOutSeconds', most: 200, unit: 'ms', factor: 1000, step: 0.1 },
  { value: 'decayScale', most: 4, unit: 'octaves', factor: 1, step: 0.01 },
  { value: 'filter1CutoffHz', most: 7200, unit: 'cents', factor: 1, step: 1 },
  { value: 'filter1Damping', most: parameters.filter1Damping.max - parameters.filter1Damping.min, unit: '', factor: 1, step: 0.01 },
  { value: 'filter1EnvelopeCents', most: 7200, unit: 'cents', factor: 1, step: 1 },
  { value: 'filter1GainDb', most: 24, unit: 'dB', factor: 1, step: 0.1 },
  { value: 'filter2CutoffHz', most: 7200, unit: 'cents', factor: 1, step: 1 },
  { value: 'filter2Damping', most: parameters.filter2Damping.max - parameters.filter2Damping.min, unit: '', factor: 1, step: 0.01 },
  { value: 'filter2EnvelopeCents', most: 7200, unit: 'cents', factor: 1, step: 1 },
  { value: 'filter2GainDb', most: 24, unit: 'dB', factor: 1, step: 0.1 },
  { value: 'levelEnvelope', most: 100, unit: '%', factor: 100, step: 1 },
  { value: 'pitchEnvelope', most: 400, unit: '%', factor: 100, step: 1 },
  { value: 'attackDb', most: 24, unit: 'dB', factor: 1, step: 0.1 },
  { value: 'tailDb', most: 24, unit: 'dB', factor: 1, step: 0.1 },
  { value: 'driveDb', most: 60, unit: 'dB', factor: 1, step: 0.1 },
  { value: 'driveAfterDb', most: 60, unit: 'dB', factor: 1, step: 0.1 },
  { value: 'driveLevelDb', most: 60, unit: 'dB', factor: 1, step: 0.1 },
  { value: 'lowCutHz', most: 7200, unit: 'cents', factor: 1, step: 1 },
  { value: 'crush', most: 100, unit: '%', factor: 100, step: 1 },
  { value: 'crushBits', most: 12, unit: 'bits', factor: 1, step: 0.1 },
  { value: 'crushRateHz', most: 7200, unit: 'cents', factor: 1, step: 1 },
  { value: 'width', most: 200, unit: '%', factor: 100, step: 1 },
]

/** The same with what they are called. */
export const TARGETS: readonly Target[] = REACHES.map((one) => ({ ...one, text: PARAMETER_NAMES[one.value]! }))

export const targetOf = (param: Parameter): Target | undefined => TARGETS.find(({ value }) => value === param)

/** What a response does, in a line. */
export function moverWords(response: Response): string {
  const source = sourceWords(response.from)
  const targets = response.to.map(({ param }) => targetOf(param)?.text.toLowerCase() ?? param)
  return `${source} ${source === 'Softer strikes' || source === 'Fast strikes' ? 'move' : 'moves'} the ${targets.join(', the ')}`
}

/** The most that is offered for a pad, in the target's unit: where in a clip strikes begin reaches over its longest one. */
export function mostOf(kit: Pick<Kit, 'audio'>, pad: Pad, { value, most, factor }: Target): number {
  if (value !== 'startSeconds') return most
  const seconds = clipsOfPad(pad).map((clip) => (clip.endFrame - clip.startFrame) / (kit.audio[clip.audio]?.sampleRateHz ?? 48000))
  return Math.max(most, Math.floor(Math.max(0, ...seconds) * factor))
}

/** What a strike is where a parameter is lowered, and where it is raised. */
const STRIKES_ARE: Partial<Record<Parameter, readonly [less: string, more: string]>> = {
  gainDb: ['are quieter', 'are louder'],
  tuneCents: ['are lower', 'are higher'],
  startSeconds: ['start earlier', 'start later'],
  rollSeconds: ['follow closer, where they go on', 'follow farther apart, where they go on'],
  endSeconds: ['end later', 'end earlier'],
  delaySeconds: ['come earlier, where they are delayed', 'come later'],
  fadeInSeconds: ['come faster', 'come more slowly'],
  fadeOutSeconds: ['go faster', 'go more slowly'],
  decayScale: ['are shorter', 'are longer'],
  filter1CutoffHz: ['have a lower cutoff', 'have a higher cutoff'],
  attackDb: ['have less attack', 'have more attack'],
  tailDb: ['have less tail', 'have more tail'],
  pan: ['lie further left', 'lie further right'],
}
const SWINGING: readonly (SourceChoice | undefined)[] = ['chance', 'oscillator']

function amountWords(amount: number, { unit, factor, step }: Target): string {
  const places = step >= 1 ? 0 : step >= 0.1 ? 1 : 2
  return `${Math.abs(amount * factor).toFixed(places)}${unit ? ` ${unit}` : ''}`
}

/** A response as a sentence: what happens, which way, and how far it goes. */
export function moverSentence(response: Response): string {
  const target = response.to[0] && targetOf(response.to[0].param)
  const { amount } = response
  if (!target || amount === 0) return `${moverWords(response)}.`
  const choice = choiceOf(response.from)
  const most = amountWords(amount, target)
  if (SWINGING.includes(choice)) return `${moverWords(response)}: up to ${most} either way.`
  // From velocity the set value is the hardest strike's, and the amount is taken from it towards the softest.
  const isLess = choice === 'velocity' ? amount > 0 : amount < 0
  const name = target.text.toLowerCase()
  if (choice === 'velocity' && response.to.length === 1) {
    const [less, more] = STRIKES_ARE[target.value] ?? [`have less ${name}`, `have more ${name}`]
    return `Softer strikes ${isLess ? less : more}: up to ${most}.`
  }
  return `${moverWords(response).replace(/ moves? the /, (verb) => (verb === ' moves the ' ? (isLess ? ' lowers the ' : ' raises the ') : isLess ? ' lower the ' : ' raise the '))}: up to ${most}.` // prettier-ignore
}

interface Wanted {
  readonly choice: SourceChoice
  readonly param: Parameter
  /** Of a controller. */
  readonly number: number
  readonly oscillatorId: string
  /** The ray that it moves alone. */
  readonly rayId?: string
}

/** A new response of a pad: its amount begins at a quarter of what is offered, its chance by the target's own draw. */
export function newMover({ choice, param, number, oscillatorId, rayId }: Wanted, taken: readonly Response[]): Response {
  const { most, factor } = targetOf(param)!
  const from = sourceOf(choice, number, { id: oscillatorId })
  return {
    id: freeId([from.kind, from.number, param, rayId], taken),
    draw: parameterRow(param).draw,
    from,
    to: [{ param, ...(rayId === undefined ? {} : { ray: rayId }) }],
    amount: most / factor / 4,
    bypass: false,
  }
}
