import { z } from 'zod'

import { choices, parameterRow, parametersOf, stages } from './parameters'
import type { Choices, Scope, Values } from './parameters'

/** Values that something of this kind can have, each within its range in the table. */
export function valuesSchema(scope: Scope) {
  const shape = Object.fromEntries(
    parametersOf(scope).map((name) => {
      const { min, max } = parameterRow(name)
      return [name, z.number().min(min).max(max).optional()]
    }),
  )
  return z.strictObject(shape) as unknown as z.ZodType<Values>
}

export const choicesSchema = z.strictObject(
  Object.fromEntries(Object.entries(choices).map(([name, list]) => [name, z.enum(list as readonly string[]).optional()])),
) as unknown as z.ZodType<Choices>

/** All stages, each once, in the order in which a voice passes them. */
export const orderSchema = z
  .array(z.enum(stages))
  .length(stages.length)
  .refine((order) => new Set(order).size === stages.length, { message: 'each stage stands in the order once' })
