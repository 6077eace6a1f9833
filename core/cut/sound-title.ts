import { families, familyWords } from '../kit/families'
import type { Family } from '../kit/families'

const capital = (word: string) => word[0]!.toUpperCase() + word.slice(1)
const TITLE = new RegExp(`^(${[...families.map((family) => capital(familyWords(family))), 'Hit'].join('|')}) \\d+\\.\\d\\d$`)

/** What a hit is called that nobody has named: its kind, and the second of its recording where it is. */
export function soundTitle(family: Family | undefined, seconds: number): string {
  return `${family ? capital(familyWords(family)) : 'Hit'} ${seconds.toFixed(2)}`
}

/** Whether something is called as a hit is that nobody has named. */
export function isSoundTitle(name: string): boolean {
  return TITLE.test(name)
}
