import { AS_IT_COMES, keyMapSchema, USUAL_KEYS, velocityCurveSchema } from '@heliaster/core/hands'
import type { KeyMap } from '@heliaster/core/hands'
import { z } from 'zod'

import { deviceSettings } from '../../../ui/device/device-settings'

/** Inputs that are always there; others have the names that their makers gave them. */
export const FINGERS = 'Fingers and mouse'
export const KEYS = 'Computer keys'
export const NOTE_ROW = 'Notes on the screen'
export const PRACTICE = 'Practice controller'

const inputSchema = z.strictObject({
  isOn: z.boolean(),
  /** 1..16, or 0 for all. */
  channel: z.number().int().min(0).max(16),
  curve: velocityCurveSchema,
})
export type InputSettings = z.infer<typeof inputSchema>

const USUAL: InputSettings = { isOn: true, channel: 0, curve: AS_IT_COMES }

const schema = z.object({
  inputs: z.record(z.string().max(200), inputSchema),
  keys: keyMapSchema,
  /** Where the strength of a finger comes from: how far from the middle of a pad, or how it presses, where the device tells. */
  fingers: z.enum(['place', 'pressure']),
  /** How often in a beat a pad is struck again whose strike is slid outward. */
  repeatsPerBeat: z.number().int().min(1).max(16),
  isSteady: z.boolean(),
  /** Which controller of this device leads the tiller of a place, from 0, whatever kit is open. */
  tillers: z.record(z.string(), z.number().int().min(0).max(119)),
  /** Whether it was asked how octaves are counted. */
  hasCounted: z.boolean(),
})
type HandSettings = Omit<z.infer<typeof schema>, 'keys'> & { readonly keys: KeyMap }

/** How this device is played: of the device, since the same kit is played from many. */
const usual: HandSettings = {
  inputs: {},
  keys: USUAL_KEYS,
  fingers: 'place',
  repeatsPerBeat: 4,
  isSteady: false,
  tillers: {},
  hasCounted: false,
}

export const handSettings = deviceSettings('heliaster-hands', schema, usual)

export function settingsOfInput(input: string, { inputs } = handSettings.getState()): InputSettings {
  return inputs[input] ?? USUAL
}

export function setInput(input: string, changes: Partial<InputSettings>): void {
  const { inputs } = handSettings.getState()
  handSettings.setState({ inputs: { ...inputs, [input]: { ...settingsOfInput(input), ...changes } } })
}
