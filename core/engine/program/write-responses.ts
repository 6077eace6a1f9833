import type { Kit, Pad } from '../../kit/kit'
import { movedParameters, parameterRow, valueOf } from '../../kit/parameters'
import type { Parameter } from '../../kit/parameters'
import { shapeOf } from '../../kit/resolve'
import type { PadSettings } from '../../kit/resolve'
import { bendOf } from '../../kit/shape'
import type { Address, Response } from '../../kit/shape'
import { controlNumbers, liveParameters, sourceCodes, TILLERS } from './codes'
import { bendToK, movedValue, table } from './context'
import { ParamCode, ResponseField } from './layout'
import { writeCurve } from './write-envelope'

/** A row of a run: what is told by a response, or by a tiller that leads a parameter from one value to another. */
export interface Mover {
  readonly from: number
  readonly number: number
  readonly param: Parameter
  readonly amount: number
  readonly bias: number
  readonly curve: Response['curve']
  /** The place of the ray it moves, -1 for all. */
  readonly only: number
  readonly draw: number
  readonly least: number
  readonly most: number
}

const settledSources: readonly number[] = [
  sourceCodes.velocity,
  sourceCodes.chance,
  sourceCodes.note,
  sourceCodes.turn,
  sourceCodes.strikeRate,
]

/** Whether it moves what already sounds; all others are settled when the strike begins. */
export function isLive({ from, param }: Pick<Mover, 'from' | 'param'>): boolean {
  return !settledSources.includes(from) && liveParameters.includes(param)
}

/** By which number the engine knows a source: what kind of thing it is, and which of them. Undefined where the kit has it no more. */
export function sourceOf(kit: Kit, { kind, number, id }: Response['from']): { from: number; number: number } | undefined {
  switch (kind) {
    case 'wheel':
      return { from: sourceCodes.control, number: controlNumbers.wheel }
    case 'controller':
      return { from: sourceCodes.control, number: number ?? controlNumbers.wheel }
    case 'bend':
    case 'pressure':
      return { from: sourceCodes.control, number: controlNumbers[kind] }
    case 'tiller':
    case 'oscillator': {
      const place = (kind === 'tiller' ? kit.tillers : kit.oscillators).findIndex((one) => one.id === id)
      if (place < 0 || (kind === 'tiller' && place >= TILLERS)) return undefined
      return kind === 'tiller'
        ? { from: sourceCodes.control, number: controlNumbers.tiller + place }
        : { from: sourceCodes.oscillator, number: place }
    }
    default:
      return { from: sourceCodes[kind], number: number ?? 0 }
  }
}

/** Rows of a pad's responses, those of what is not played left out; they stay in the document. */
function moversOfResponses(kit: Kit, pad: Pad, responses: readonly Response[]): Mover[] {
  return responses.flatMap((response) => {
    const source = response.bypass ? undefined : sourceOf(kit, response.from)
    if (!source) return []
    return response.to.flatMap(({ param, ray }): Mover[] => {
      const only = ray === undefined ? -1 : pad.rays.findIndex((one) => one.id === ray)
      if (!movedParameters.includes(param) || (ray !== undefined && only < 0)) return []
      const { amount, curve, draw, min = -Infinity, max = Infinity } = response
      return [{ ...source, param, amount, bias: 0, curve, only, draw, least: min, most: max }]
    })
  })
}

/** All that moves a pad. */
export function moversOf(kit: Kit, pad: Pad, settings: PadSettings): Mover[] {
  return [...moversOfResponses(kit, pad, settings.responses), ...moversOfTillers(kit, pad, settings)]
}

/** Rows by which the kit's tillers lead the parameters of a pad and its rays away from what they are set to. */
function moversOfTillers(kit: Kit, pad: Pad, settings: PadSettings): Mover[] {
  return kit.tillers.slice(0, TILLERS).flatMap((tiller, place) =>
    tiller.to.flatMap(({ address, from, to, curve }): Mover[] => {
      const param = movedParameters.find((name) => name === address.param)
      if (!param) return []
      const { movedBy, min, max } = parameterRow(param)
      const moved = (value: number) => movedValue(Math.min(max, Math.max(min, value)), movedBy)
      return reachedBy(pad, address, param).map((only) => {
        const set = address.scope === 'ray' ? valueOf(pad.rays[only], param) : settings.values[param]
        const own = parameterRow(param).joins === 'add' ? set : shapeOf(settings, pad.rays[only]).values[param]
        const source = { from: sourceCodes.control, number: controlNumbers.tiller + place }
        const bias = moved(from) - movedValue(own, movedBy)
        return { ...source, param, amount: moved(to) - moved(from), bias, curve, only, draw: 0, least: -Infinity, most: Infinity }
      })
    }),
  )
}

/** The rays that an address means, by their places; of a pad those that have no value of their own instead of its. */
function reachedBy(pad: Pad, { scope, id }: Address, param: Parameter): number[] {
  const places = pad.rays.map((_, place) => place)
  if (scope === 'ray') return places.filter((place) => pad.rays[place].id === id)
  if (scope !== 'pad' || id !== pad.id) return []
  return parameterRow(param).joins === 'add' ? places : places.filter((place) => pad.rays[place].values[param] === undefined)
}

/** Writes rows one after the other and returns where they begin. */
export function writeMovers(out: number[], movers: readonly Mover[]): number {
  const curves = movers.map(({ curve }) => (bendOf(curve) === undefined ? writeCurve(out, curve) : -1))
  const at = table(out, movers.length, ResponseField.length)
  movers.forEach((mover, i) => {
    const row = at + i * ResponseField.length
    out[row + ResponseField.from] = mover.from
    out[row + ResponseField.number] = mover.number
    out[row + ResponseField.to] = ParamCode[mover.param]
    out[row + ResponseField.amount] = mover.amount
    out[row + ResponseField.bias] = mover.bias
    out[row + ResponseField.k] = bendToK(bendOf(mover.curve) ?? 0)
    out[row + ResponseField.curve] = curves[i] < 0 ? 0 : curves[i] - row
    out[row + ResponseField.only] = mover.only
    out[row + ResponseField.draw] = mover.draw
    out[row + ResponseField.least] = mover.least
    out[row + ResponseField.most] = mover.most
  })
  return at
}
