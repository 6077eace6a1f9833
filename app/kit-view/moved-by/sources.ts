import type { Kit, KitEdit, Oscillator, Response } from '@heliaster/core/kit'
import { firstWave } from '@heliaster/core/kit'

/** What moves something, as choices on screen. A pedal is a controller of its own number. */
export const SOURCES = [
  { value: 'velocity', group: 'The strike', text: 'Velocity', words: 'Softer strikes' },
  { value: 'chance', group: 'The strike', text: 'Chance', words: 'Chance' },
  { value: 'wheel', group: 'Hands', text: 'Wheel', words: 'The wheel' },
  { value: 'pedal', group: 'Hands', text: 'Pedal', words: 'The pedal' },
  { value: 'controller', group: 'Hands', text: 'Controller', words: 'Controller' },
  { value: 'bend', group: 'Hands', text: 'Bend', words: 'The bend' },
  { value: 'pressure', group: 'Hands', text: 'Pressure', words: 'Pressure' },
  { value: 'keyPressure', group: 'Hands', text: 'Pressure on its key', words: 'Pressure on its key' },
  { value: 'turn', group: 'The strike', text: 'Turn', words: 'The turn' },
  { value: 'strikeRate', group: 'The strike', text: 'Fast strikes', words: 'Fast strikes' },
  { value: 'note', group: 'The strike', text: 'Note', words: 'Each octave of the note' },
  { value: 'oscillator', group: 'By itself', text: 'A slow wave', words: 'A slow wave' },
] as const
export type SourceChoice = (typeof SOURCES)[number]['value']

/** The number by which a pedal comes. */
export const PEDAL = 64

/** How far something is moved: in a unit that says something to the ear, `factor` of what the document holds. */
export interface Reach {
  /** The most that is offered, in `unit`. */
  readonly most: number
  readonly unit: string
  readonly factor: number
  readonly step: number
}

type From = Response['from']

/** The choice that a source is. */
export function choiceOf(from: From): SourceChoice | undefined {
  if (from.kind === 'controller' && from.number === PEDAL) return 'pedal'
  return SOURCES.find(({ value }) => value === from.kind)?.value
}

/** What a source is called where a sentence begins with it. */
export function sourceWords(from: From): string {
  const choice = SOURCES.find(({ value }) => value === choiceOf(from))
  return choice?.value === 'controller' ? `Controller ${from.number ?? 1}` : (choice?.words ?? 'A tiller')
}

/** The source that a choice means; `number` is of a controller. */
export function sourceOf(choice: SourceChoice, number: number, wave: Pick<Oscillator, 'id'>): From {
  if (choice === 'pedal') return { kind: 'controller', number: PEDAL }
  return { kind: choice, ...(choice === 'controller' ? { number } : {}), ...(choice === 'oscillator' ? { id: wave.id } : {}) }
}

/** An id made of words, numbered where it is taken. */
export function freeId(parts: readonly (string | number | undefined)[], taken: readonly { readonly id: string }[]): string {
  const plain = parts.filter((part) => part !== undefined && part !== '').join('-')
  let id = plain
  for (let count = 2; taken.some((one) => one.id === id); count++) id = `${plain}-${count}`
  return id
}

/** The kit's slow wave, and the edits that make it where a source needs it and there is none. */
export function waveFor(kit: Kit, choice: SourceChoice): { readonly wave: Oscillator; readonly edits: KitEdit[] } {
  const wave = kit.oscillators[0] ?? firstWave
  const needsOne = choice === 'oscillator' && kit.oscillators.length === 0
  return { wave, edits: needsOne ? [{ type: 'setKit', fields: { oscillators: [wave] } }] : [] }
}
