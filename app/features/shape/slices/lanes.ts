import type { BusId, Kit, Pad, RayId } from '@heliaster/core/kit'
import type { SliceLane } from '@heliaster/core/slices'
import { OFF_DB } from '@heliaster/core/slices'

/** What can be drawn over slices, and how it is said. */
export interface Lane {
  readonly key: string
  readonly text: string
  readonly lane: SliceLane
  readonly least: number
  readonly most: number
  readonly step: number
  /** What a slice has of which nothing is drawn. */
  readonly usual: number
  /** Below the least it is off. */
  readonly hasOff: boolean
  words(amount: number): string
}

const dB = (amount: number) => (amount <= OFF_DB ? 'off' : `${amount > 0 ? '+' : ''}${amount.toFixed(1)} dB`)
const place = (amount: number) => (Math.abs(amount) < 0.005 ? 'middle' : `${Math.round(Math.abs(amount) * 100)} % ${amount < 0 ? 'left' : 'right'}`) // prettier-ignore
const tuned = (cents: number) => `${cents > 0 ? '+' : ''}${(cents / 100).toFixed(cents % 100 === 0 ? 0 : 2)} semitones`

const LEVELS = { least: -36, most: 12, step: 0.5, hasOff: true, words: dB } as const
const OWN: readonly Lane[] = [
  { key: 'level', text: 'Level', lane: { kind: 'value', param: 'gainDb' }, usual: 0, ...LEVELS },
  { key: 'place', text: 'Place', lane: { kind: 'value', param: 'pan' }, least: -1, most: 1, step: 0.05, usual: 0, hasOff: false, words: place },
  { key: 'tuning', text: 'Tuning', lane: { kind: 'value', param: 'tuneCents' }, least: -1200, most: 1200, step: 100, usual: 0, hasOff: false, words: tuned },
] // prettier-ignore

/** What can be drawn over the slices of a ray's clip: level, place, tuning, and what goes to each bus that it does not go to anyway. */
export function lanesOf(kit: Kit, pad: Pad, rayId: RayId): readonly Lane[] {
  const ray = pad.rays.find(({ id }) => id === rayId)
  const into = ray?.bus ?? pad.own.bus
  const sends = [...kit.buses]
    .filter(({ id }) => id !== into)
    .sort((a, b) => Number(b.isReturn) - Number(a.isReturn))
    .map(({ id, name }): Lane => {
      const isSent = ray?.sends.some(({ busId }) => busId === id) ?? false
      return { key: id, text: `To ${name}`, lane: { kind: 'send', busId: id as BusId }, usual: isSent ? 0 : OFF_DB, ...LEVELS }
    })
  return [...OWN, ...sends]
}

/** An amount as high as a pointer stands: 0 at the foot, 1 at the top; in steps. */
export function amountAt({ least, most, step, hasOff }: Lane, share: number): number {
  const from = hasOff ? least - step : least
  const amount = from + Math.min(1, Math.max(0, share)) * (most - from)
  const held = Math.round((amount - least) / step) * step + least
  return hasOff && held < least ? OFF_DB : Math.round(Math.min(most, Math.max(least, held)) * 1000) / 1000
}

/** How high an amount stands, 0..1. */
export function shareOf({ least, most, step, hasOff }: Lane, amount: number): number {
  const from = hasOff ? least - step : least
  return Math.min(1, Math.max(0, (amount - from) / (most - from)))
}

/** One step up or down; from off to the least and back. */
export function stepped(lane: Lane, amount: number, steps: number): number {
  const from = amount <= OFF_DB && lane.hasOff ? lane.least - lane.step : amount
  const to = Math.round((from + steps * lane.step) / lane.step) * lane.step
  if (lane.hasOff && to < lane.least) return OFF_DB
  return Math.round(Math.min(lane.most, Math.max(lane.least, to)) * 1000) / 1000
}
