import type { Bead } from '@heliaster/core/kit'

type When = NonNullable<Bead['when']>

/** Without one condition; nothing where none is left. */
export function withoutCondition(when: When | undefined, ...names: (keyof When)[]): When | undefined {
  const kept = Object.entries(when ?? {}).filter(([name, value]) => value !== undefined && !names.includes(name as keyof When))
  return kept.length > 0 ? (Object.fromEntries(kept) as When) : undefined
}
