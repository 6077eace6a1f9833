import type { Choices, Parameter, Values } from '../parameters'
import { parameterRow } from '../parameters'
import { bentCurve } from '../shape'
import type { Envelopes, Response } from '../shape'
import type { Response as OldResponse, Shape as OldShape } from './shape'

/** What a shape of the first version says, by itself: a section that it has is wholly its own. */
export interface Shaped {
  readonly values: Values
  readonly choices: Choices
  readonly envelopes: Envelopes
}

/** The damping that the first version's resonance stood for, by the very expression it was played with. */
export function dampingOfResonance(resonance: number): number {
  return 2 - 1.95 * resonance
}

export function upgradedShape(shape: Partial<OldShape> | undefined): Shaped {
  if (!shape) return { values: {}, choices: {}, envelopes: {} }
  const { amp, pitch, filter, driveDb, crush, startSeconds, decayScale } = shape
  return {
    values: defined({
      driveDb,
      crush,
      startSeconds,
      decayScale,
      filter1CutoffHz: filter?.cutoffHz,
      filter1Damping: filter && dampingOfResonance(filter.resonance),
      filter1EnvelopeCents: filter?.envCents,
    }),
    choices: defined({ filter1Kind: filter?.type }),
    envelopes: defined({ level: amp, pitch, filter1: filter?.env }),
  }
}

/** An object without the fields that are not there. */
export function defined<T extends object>(fields: T): { [Key in keyof T]?: Exclude<T[Key], undefined> } {
  return Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)) as never
}

/** What a response of the first version moved. */
export const movedByOldTarget = {
  gainDb: 'gainDb',
  pan: 'pan',
  tuneCents: 'tuneCents',
  startSeconds: 'startSeconds',
  cutoffCents: 'filter1CutoffHz',
  decay: 'decayScale',
} as const satisfies Record<OldResponse['to']['kind'], Parameter>

export const sourceOfOld = { lfo: 'oscillator', quick: 'tiller' } as const

/** Responses get ids by what they are from and to, so that every device gives the same one the same. */
export function upgradedResponses(responses: readonly OldResponse[]): Response[] {
  const taken = new Map<string, number>()
  return responses.map((response) => {
    const { from, which, to, amount, bend, min, max, bypass } = response
    const name = [from, which, to.kind, to.rayId?.replace(/[^A-Za-z0-9_-]/g, '_')].filter((part) => part !== undefined).join('-')
    const count = (taken.get(name) ?? 0) + 1
    taken.set(name, count)
    const param = movedByOldTarget[to.kind]
    return {
      id: count === 1 ? name : `${name}.${count}`,
      draw: parameterRow(param).draw,
      from: defined({ kind: from === 'lfo' || from === 'quick' ? sourceOfOld[from] : from, number: which }) as Response['from'],
      to: [{ param, ...(to.rayId === undefined ? {} : { ray: to.rayId }) }],
      amount,
      ...defined({ curve: bentCurve(bend), min, max }),
      bypass,
    }
  })
}
