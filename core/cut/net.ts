/** A net of one layer between: signs in, log odds out. Weights of a unit lie together. */
export interface Net {
  readonly units: number
  /** For each unit a weight for each sign and what is added. */
  readonly inner: Float64Array
  /** For each unit one weight, and what is added. */
  readonly outer: Float64Array
}

/** The log odds of a row of `width` signs that begins at `from`. */
export function oddsOf({ units, inner, outer }: Net, signs: Float32Array | Float64Array, from: number, width: number): number {
  let odds = outer[units]
  for (let unit = 0; unit < units; unit++) {
    const at = unit * (width + 1)
    let sum = inner[at + width]
    for (let i = 0; i < width; i++) sum += inner[at + i] * signs[from + i]
    odds += outer[unit] * Math.tanh(sum)
  }
  return odds
}
