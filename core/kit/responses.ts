import { parameterRow } from './parameters'
import type { Parameter } from './parameters'
import { bentCurve } from './shape'
import type { Oscillator, Response, ResponseSource } from './shape'

/** How many dB the softest strike lies below the loudest where `bands` recorded layers already carry the difference. */
export function velocityRangeDb(bands: number): number {
  return 30 / Math.max(1, bands)
}

/** The slow wave of a kit that has none yet: it runs by itself, twice a second. */
export const firstWave: Oscillator = { id: 'wave', name: 'Wave', wave: 'sine', rate: { unit: 'Hz', value: 2 }, runs: 'always', phase: 0 }

/** A response of a pad from one source to one parameter, of all its rays or of one. */
export function responseTo(from: ResponseSource, param: Parameter, amount: number, more: { ray?: string; bend?: number } = {}): Response {
  const { ray, bend = 0 } = more
  const curve = bentCurve(bend)
  return {
    id: [from, param, ray].filter(Boolean).join('-'),
    draw: parameterRow(param).draw,
    from: { kind: from },
    to: [{ param, ...(ray === undefined ? {} : { ray }) }],
    amount,
    ...(curve ? { curve } : {}),
    bypass: false,
  }
}

/** The response of a new pad: velocity to level. */
export function velocityToLevel(bands: number): Response {
  return responseTo('velocity', 'gainDb', velocityRangeDb(bands))
}

/** The response by which velocity moves the level of all rays, if there is one. */
export function levelResponse(responses: readonly Response[]): Response | undefined {
  return responses.find(({ from, to }) => from.kind === 'velocity' && to.some(({ param, ray }) => param === 'gainDb' && ray === undefined))
}
