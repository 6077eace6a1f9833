/** Compares names as people do: 2 before 10, capitals beside small letters. */
export function compareNames(a: string, b: string): number {
  return collator.compare(a, b)
}

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' })
