/** What a drum is. The finer kinds follow the family that they belong to. */
export const families = [
  'kick', 'snare', 'hat', 'closedHat', 'openHat', 'tom', 'lowTom', 'midTom', 'highTom',
  'cymbal', 'ride', 'crash', 'splash', 'clap', 'shaker', 'bell', 'wood', 'noise', 'other',
] as const // prettier-ignore
export type Family = (typeof families)[number]

const BROAD = {
  closedHat: 'hat', openHat: 'hat', lowTom: 'tom', midTom: 'tom', highTom: 'tom', ride: 'cymbal', crash: 'cymbal', splash: 'cymbal',
} as const // prettier-ignore

export type BroadFamily = Exclude<Family, keyof typeof BROAD>

/** The family that a kind belongs to; a family is its own. */
export function broadFamily(family: Family): BroadFamily {
  return family in BROAD ? BROAD[family as keyof typeof BROAD] : (family as BroadFamily)
}

/** A kind as it is written and read: `openHat` is "open hat". */
export function familyWords(family: Family): string {
  return family.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`)
}

/** Whether something of kind `family` is meant where `asked` is: a kind is meant by itself and by its family. */
export function isOfFamily(family: Family, asked: Family): boolean {
  return family === asked || broadFamily(family) === asked
}

/** The kinds that there are in `list`, with their families, in the trade's order. */
export function familiesAmong(list: readonly Family[]): Family[] {
  const there = new Set(list.flatMap((family) => [family, broadFamily(family)]))
  return families.filter((family) => there.has(family))
}

/** The finer kinds of a family; none where the trade has none. */
export function kindsOfFamily(family: Family): Family[] {
  return families.filter((one) => one !== family && broadFamily(one) === family)
}
