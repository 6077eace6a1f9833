/** Scripts without cases and, as people use them, without spaces: nothing but use shows where a word of a name ends. */
const FEWEST_TEXTS = 4
/** So many must go before and after a seam, as the values of two factors do. */
const FEWEST_SIDES = 2

/**
 * Where texts that are written without any separator come apart: at the place whose front goes with several backs and whose
 * back goes with several fronts, as 樽強, 樽弱, 板強, 板弱 do; then again in the fronts and in the backs. Gives, for each text
 * that comes apart, its pieces.
 */
export function seamsOf(texts: readonly string[]): ReadonlyMap<string, readonly string[]> {
  const known = [...new Set(texts)].map((text) => ({ text, letters: [...text] })).filter(({ letters }) => letters.length > 1)
  const pieces = new Map<string, readonly string[]>()
  if (known.length < FEWEST_TEXTS) return pieces
  const backs = new Map<string, Set<string>>()
  const fronts = new Map<string, Set<string>>()
  for (const { letters } of known)
    for (let at = 1; at < letters.length; at++) {
      const [front, back] = [letters.slice(0, at).join(''), letters.slice(at).join('')]
      backs.set(front, (backs.get(front) ?? new Set()).add(back))
      fronts.set(back, (fronts.get(back) ?? new Set()).add(front))
    }
  const halves = known.flatMap(({ text, letters }) => {
    let best: { readonly worth: number; readonly front: string; readonly back: string } | undefined
    for (let at = 1; at < letters.length; at++) {
      const [front, back] = [letters.slice(0, at).join(''), letters.slice(at).join('')]
      const [after, before] = [backs.get(front)!.size, fronts.get(back)!.size]
      const worth = after * before
      if (after >= FEWEST_SIDES && before >= FEWEST_SIDES && worth > (best?.worth ?? 0)) best = { worth, front, back }
    }
    return best ? [{ text, ...best }] : []
  })
  if (halves.length < known.length / 2) return pieces // a chance likeness of some words is no seam
  const within = [seamsOf(halves.map(({ front }) => front)), seamsOf(halves.map(({ back }) => back))]
  for (const { text, front, back } of halves) pieces.set(text, [...(within[0].get(front) ?? [front]), ...(within[1].get(back) ?? [back])])
  return pieces
}
