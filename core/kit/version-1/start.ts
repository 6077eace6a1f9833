import { z } from 'zod'

import { startIdSchema } from '../ids'
import { cutSchema } from '../source'
import { padSettingsSchema } from './kit'

/** Starts as the first version wrote them: settings of a pad in its form. */
export const startSchema = z.strictObject({
  format: z.literal('heliaster-start'),
  version: z.literal(1),
  id: startIdSchema,
  name: z.string().max(120),
  pad: padSettingsSchema.omit({ name: true, family: true, group: true, rootNote: true, bus: true, mute: true }).partial().optional(),
  cut: cutSchema.optional(),
})
