import { z } from 'zod'

import { deviceSettings } from '../../../ui/device/device-settings'

/** How recordings are looked at on this device. */
export interface CutLooks {
  readonly times: 'seconds' | 'frames' | 'beats'
  readonly hasSpectrogram: boolean
  /** Parts that are not folded away. */
  readonly showsRecordings: boolean
  readonly showsOverview: boolean
  readonly showsStrikes: boolean
  /** An end that was set by hand stays when the begin is moved; otherwise the window keeps its length. */
  readonly endsStay: boolean
}

const KEY = 'heliaster-cut-looks'
const plain: CutLooks = { times: 'seconds', hasSpectrogram: false, showsRecordings: true, showsOverview: true, showsStrikes: true, endsStay: false } // prettier-ignore

const schema = z.object({
  times: z.enum(['seconds', 'frames', 'beats']),
  hasSpectrogram: z.boolean(),
  showsRecordings: z.boolean(),
  showsOverview: z.boolean(),
  showsStrikes: z.boolean(),
  endsStay: z.boolean(),
})

export const cutLooks = deviceSettings(KEY, schema, plain)

export function changeLooks(changes: Partial<CutLooks>): void {
  cutLooks.setState(changes)
}

/** Numbers that ticks of a scale are apart by: 1, 2 or 5 of a power of ten, so that about `most` fit into `span`. */
export function tickStep(span: number, most: number): number {
  const rough = span / Math.max(1, most)
  const power = 10 ** Math.floor(Math.log10(rough))
  const factor = [1, 2, 5, 10].find((one) => one * power >= rough)!
  return factor * power
}

/** A place in a recording in words of the chosen kind, exact enough for ticks `step` apart. */
export function placeText(value: number, step: number, times: CutLooks['times']): string {
  if (times === 'frames') return String(Math.round(value))
  const digits = Math.max(0, Math.min(5, -Math.floor(Math.log10(step) + 1e-9)))
  if (times === 'beats') return value.toFixed(digits)
  if (step < 1 && Math.abs(value) < 10 && step < 0.01) return `${(value * 1000).toFixed(Math.max(0, digits - 3))} ms`
  if (value < 60) return `${value.toFixed(digits)} s`
  const minutes = Math.floor(value / 60)
  return `${minutes}:${(value - 60 * minutes).toFixed(digits).padStart(digits > 0 ? 3 + digits : 2, '0')}`
}
