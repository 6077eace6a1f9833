/** Draws of chance, 0 to 1, the same for the same seed. Source: xorshift of 32 bits, G. Marsaglia 2003. */
export function createDraws(seed: number): () => number {
  let state = (Math.imul(seed | 0, 0x9e3779b1) ^ 0x85ebca6b) | 0 || 1
  return () => {
    state ^= state << 13
    state ^= state >>> 17
    state ^= state << 5
    return (state >>> 0) / 4294967296
  }
}

/** A draw of a normal distribution of mean 0 and deviation 1, as near as twelve even draws come. */
export function normalDraw(random: () => number): number {
  let sum = -6
  for (let i = 0; i < 12; i++) sum += random()
  return sum
}
