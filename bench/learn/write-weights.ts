import { writeFileSync } from 'node:fs'
import { join } from 'node:path'

import type { TrainedNet } from './train-net'

/** Writes a net as a file of core/cut; a page that loads it has less to bring with fewer digits. */
export function writeWeights(name: string, by: string, { units, inner, outer }: TrainedNet, digits = 5): void {
  const file = join(import.meta.dirname, `../../core/cut/${name}.ts`)
  const numbers = (values: Float64Array) => [...values].map((value) => Number(value.toPrecision(digits))).join(', ')
  writeFileSync(
    file,
    `// Made by bench/${by}.ts; not written by hand.
import type { Net } from './net'

export const learned: Net = {
  units: ${units},
  inner: Float64Array.of(${numbers(inner)}),
  outer: Float64Array.of(${numbers(outer)}),
} // prettier-ignore
`,
  )
  console.log(`written: ${file}`)
}
