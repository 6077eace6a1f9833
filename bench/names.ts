import { planByNames, readNames } from '@heliaster/core/place'
import { isUnseen, laysRight, nameKinds, nameSet } from '@heliaster/core/place/testing'
import type { SetOptions } from '@heliaster/core/place/testing'

import type { Figure } from './figure'

const SETS_OF_A_KIND = 20
/** Seeds of their own: none that tests or anyone who makes the reader looks at. */
const FIRST_SEED = Number(process.env.BENCH_SEED ?? 5000)

/** Sets that were named by a generator which shares no list with the reader: how many lie right with nothing said. */
export function figuresOfNames(): Record<string, Figure> {
  const ways: [name: string, options: SetOptions][] = [
    ['natural lengths', {}],
    ['random letters for all words', { scrambled: true }],
    ['all lengths equal', { equalLengths: true }],
  ]
  return Object.fromEntries(
    ways.flatMap(([name, options]) =>
      [false, true].map((unseen) => {
        const kinds = nameKinds.filter((kind) => isUnseen(kind) === unseen)
        return [`names, ${name}, kinds ${unseen ? 'never looked at' : 'seen'}`, shareRight(kinds, options)] as const
      }),
    ),
  )
}

function shareRight(kinds: readonly string[], options: SetOptions): Figure {
  const shares = kinds.map((kind) => {
    const sets = Array.from({ length: SETS_OF_A_KIND }, (_, i) => nameSet(kind, FIRST_SEED + i, options))
    const right = sets.filter((set) => {
      const files = set.files.map(({ file }) => file)
      return laysRight(set, planByNames(files, readNames(files)))
    })
    return right.length / sets.length
  })
  return {
    value: shares.reduce((sum, share) => sum + share, 0) / shares.length,
    unit: `of ${kinds.length * SETS_OF_A_KIND} sets right`,
    spread: [Math.min(...shares), Math.max(...shares)],
  }
}
