import { z } from 'zod'

import { effectChoices, effectKinds, effects } from './effects'
import type { Effect } from './effects'
import { audioHashSchema, busIdSchema, insertIdSchema } from './ids'
import { valuesSchema } from './values-schema'

const nameSchema = z.string().max(120)

/** How much goes to a bus; from before the fader or after it. */
export const sendSchema = z.strictObject({ busId: busIdSchema, values: valuesSchema('send'), tap: z.enum(['pre', 'post']) })
export type Send = z.infer<typeof sendSchema>

const numbersOf = (kind: Effect) =>
  z.strictObject(
    Object.fromEntries(Object.entries(effects[kind]).map(([name, { min, max }]) => [name, z.number().min(min).max(max).optional()])),
  )
const choicesOf = (kind: Effect) =>
  z.strictObject(Object.fromEntries(Object.entries(effectChoices[kind] ?? {}).map(([name, list]) => [name, z.enum(list).optional()])))

export const insertSchema = z
  .strictObject({
    id: insertIdSchema,
    kind: z.enum(effectKinds),
    values: z.record(z.string().max(60), z.number()),
    choices: z.record(z.string().max(60), z.string().max(60)),
    bypass: z.boolean(),
    /** The bus that a compressor or gate listens to, where it is not its own. */
    key: busIdSchema.optional(),
    /** The recorded impulse of a room. */
    audio: audioHashSchema.optional(),
  })
  .superRefine((insert, context) => {
    for (const [schema, part] of [[numbersOf(insert.kind), 'values'], [choicesOf(insert.kind), 'choices']] as const) {
      const issue = schema.safeParse(insert[part]).error?.issues[0]
      if (issue) context.addIssue({ code: 'custom', path: [part, ...issue.path], message: issue.message })
    }
  }) // prettier-ignore
export type Insert = z.infer<typeof insertSchema>
export const insertsSchema = z.array(insertSchema).max(6)

export const busSchema = z.strictObject({
  id: busIdSchema,
  name: nameSchema,
  values: valuesSchema('bus'),
  mute: z.boolean(),
  /** A return is fed by sends; it is drawn apart. */
  isReturn: z.boolean(),
  inserts: insertsSchema,
  sends: z.array(sendSchema).max(16),
  /** The bus it goes into; the master where it is not said. */
  out: busIdSchema.optional(),
})
export type Bus = z.infer<typeof busSchema>
