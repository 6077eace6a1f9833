import type { Clip } from '../kit/clip'
import type { AudioHash } from '../kit/ids'

/** How a worked sound comes from its source. */
export interface Recipe {
  readonly clip: Clip
  readonly tempoBpm: number
  readonly semitones: number
  /** By how many octaves its resonances are moved by what strikes. */
  readonly octaves: number
  /** Which of its takes, counted from 0. */
  readonly take: number
}

const recipes = new Map<AudioHash, Recipe>()

export function noteRecipe(hash: AudioHash, recipe: Recipe): void {
  recipes.set(hash, recipe)
}

/** What a worked sound is made of; undefined for a recording. */
export const recipeOf = (hash: AudioHash): Recipe | undefined => recipes.get(hash)
