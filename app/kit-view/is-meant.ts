/** Whether all that is looked for is in a name, in any order. */
export function isMeant(name: string, words: string): boolean {
  const lower = name.toLowerCase()
  return words.toLowerCase().split(/\s+/).every((word) => lower.includes(word)) // prettier-ignore
}
