import type { z } from 'zod'

interface Def {
  readonly type: string
  readonly shape?: Record<string, z.ZodType>
  readonly element?: z.ZodType
  readonly innerType?: z.ZodType
  readonly options?: readonly z.ZodType[]
  readonly entries?: Record<string, unknown>
  readonly values?: readonly unknown[]
  readonly keyType?: z.ZodType
  readonly valueType?: z.ZodType
  readonly checks?: readonly { readonly _zod: { readonly def: unknown } }[]
}

/** What the checks of a schema ask. */
interface Bounds {
  minimum?: number
  maximum?: number
  isOverMinimum?: boolean
  isWhole?: boolean
  length?: number
  pattern?: RegExp
}

interface Check {
  readonly check: string
  readonly value?: number
  readonly inclusive?: boolean
  readonly format?: string
  readonly maximum?: number
  readonly length?: number
  readonly pattern?: RegExp
}

function boundsOf(def: Def): Bounds {
  const bounds: Bounds = {}
  const checks = [def, ...(def.checks ?? []).map((one) => one._zod.def)] as Check[]
  for (const { check, value, inclusive, format, maximum, length, pattern } of checks) {
    if (check === 'greater_than') Object.assign(bounds, { minimum: value, isOverMinimum: !inclusive })
    if (check === 'less_than') bounds.maximum = value
    if (format === 'safeint') bounds.isWhole = true
    if (check === 'max_length') bounds.maximum = maximum
    if (check === 'length_equals') bounds.length = length
    if (pattern) bounds.pattern = pattern
  }
  return bounds
}

const LONGEST_LIST = 3
const HEX = '0123456789abcdef'

/**
 * Any value that a schema's parts allow, by seeded chance: every kind of every union, numbers to the ends of their ranges,
 * optional fields there and not. What only a rule over several fields can tell is for the caller to mend.
 */
export function randomOf(schema: z.ZodType, random: () => number): unknown {
  const { def } = (schema as unknown as { _zod: { def: Def } })._zod
  const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  switch (def.type) {
    case 'object':
      return Object.fromEntries(
        Object.entries(def.shape!).flatMap(([key, part]) => {
          const value = randomOf(part, random)
          return value === undefined ? [] : [[key, value]]
        }),
      )
    case 'array': {
      const bag = boundsOf(def)
      const count = bag.length ?? Math.min(bag.maximum ?? LONGEST_LIST, Math.floor(random() * (LONGEST_LIST + 1)))
      return Array.from({ length: count }, () => randomOf(def.element!, random))
    }
    case 'optional':
      return random() < 0.5 ? undefined : randomOf(def.innerType!, random)
    case 'nullable':
      return random() < 0.5 ? null : randomOf(def.innerType!, random)
    case 'union':
      return randomOf(any(def.options!), random)
    case 'literal':
      return any(def.values!)
    case 'enum':
      return any(Object.values(def.entries!))
    case 'boolean':
      return random() < 0.5
    case 'number':
      return randomNumber(boundsOf(def), random)
    case 'string':
      return randomText(boundsOf(def), random)
    case 'record': {
      const keys = Array.from({ length: Math.floor(random() * 3) }, () => String(randomOf(def.keyType!, random)))
      return Object.fromEntries(keys.map((key) => [key, randomOf(def.valueType!, random)]))
    }
    case 'unknown':
      return random()
    default:
      throw new Error(`No random value is made for ${def.type}.`)
  }
}

function randomNumber({ minimum, maximum, isOverMinimum, isWhole }: Bounds, random: () => number): number {
  const low = Math.max(minimum ?? -1000, -1e9)
  const high = Math.min(maximum ?? low + 5000, 1e9)
  const share = random()
  if (share < 0.08 && !isOverMinimum) return low
  if (share > 0.92) return high
  const value = low + (high - low) * random()
  return isWhole ? Math.round(value) : value || high / 2
}

function randomText({ maximum, pattern: asked }: Bounds, random: () => number): string {
  const pattern = asked?.source ?? ''
  if (pattern.includes('{64}')) return Array.from({ length: 64 }, () => HEX[Math.floor(random() * 16)]).join('')
  const letters = pattern ? 'abcXYZ019-_' : 'ab c\u00e9\u6f6e"\\/\ud83e\udd41'
  const characters = [...letters]
  const length = 1 + Math.floor(random() * Math.min(12, (maximum ?? 12) / 2))
  return Array.from({ length }, () => characters[Math.floor(random() * characters.length)]).join('')
}
