/** What a name can be made of. */
export interface NameParts {
  readonly name: string
  readonly family: string
  readonly tag: string
}

export interface RenamePlan {
  readonly pattern: string
  /** In the old name, these words... */
  readonly find: string
  /** ...become these. */
  readonly replace: string
  readonly firstNumber: number
}

export const renameWords = ['{name}', '{n}', '{nn}', '{nnn}', '{family}', '{tag}'] as const

/**
 * New names for many things at once, in their order: words in braces stand for the old name, a number of one, two or
 * three digits, the family, the first tag. An empty result keeps the old name; unknown words in braces stay as typed.
 */
export function renamed(items: readonly NameParts[], { pattern, find, replace, firstNumber }: RenamePlan): string[] {
  return items.map(({ name, family, tag }, i) => {
    const old = find ? name.replaceAll(find, replace) : name
    const parts: Record<string, string> = { name: old, family, tag }
    const made = pattern.replace(/\{(\w+)\}/g, (whole, word: string) => {
      if (/^n{1,3}$/.test(word)) return String(firstNumber + i).padStart(word.length, '0')
      return parts[word] ?? whole
    })
    return made.trim().slice(0, 120) || name
  })
}
