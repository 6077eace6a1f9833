import { familyOf } from '../core/cut'
import { broadFamily } from '../core/kit'
import type { Family } from '../core/kit'
import type { Figure } from './figure'
import { banks, labelledDrums } from './real/drums'
import { REAL_RATE } from './real/material'

/**
 * How often the guess of what a drum is agrees with the standard's key map, over drum sets that others made: by family, and
 * by kind where the guess names one. The peer calls everything by the family that is commonest in that bank.
 */
export function figuresOfFamilies(): Record<string, Figure> {
  const figures: Record<string, Figure> = {}
  for (const [name, { isUnseen }] of Object.entries(banks)) {
    const drums = apart(labelledDrums(name))
    if (drums.length === 0) continue
    const guesses = drums.map(({ family, samples }) => ({ family, guess: familyOf({ channels: [samples], sampleRateHz: REAL_RATE }) }))
    const title = `families.${name}${isUnseen ? ' (unseen)' : ''}`
    figures[`${title}.family`] = {
      value: shareOf(guesses, ({ family, guess }) => broadFamily(guess) === broadFamily(family)),
      unit: `of ${drums.length} drums`,
      peer: `the commonest family, ${commonest(drums.map(({ family }) => broadFamily(family))).toFixed(3)}`,
    }
    const named = guesses.filter(({ family, guess }) => broadFamily(family) !== family && broadFamily(guess) !== guess)
    figures[`${title}.kind`] = {
      value: shareOf(named, ({ family, guess }) => guess === family),
      unit: `of ${named.length} that got a finer kind`,
    }
  }
  return figures
}

/** Sets share many drums: each counts once. */
function apart(drums: ReturnType<typeof labelledDrums>) {
  const known = new Set<string>()
  return drums.filter(({ family, samples }) => {
    const key = `${family} ${samples.length} ${samples[samples.length >> 1]!.toFixed(5)}`
    return !known.has(key) && known.add(key)
  })
}

const shareOf = <T>(items: readonly T[], holds: (item: T) => boolean) => items.filter(holds).length / Math.max(1, items.length)

function commonest(list: readonly Family[]): number {
  return Math.max(...[...new Set(list)].map((family) => shareOf(list, (one) => one === family)))
}
