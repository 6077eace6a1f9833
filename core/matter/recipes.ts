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

/** Recipes live as long as a clip that is played by them: settings that were left again leave nothing behind. */
const recipes = new Map<AudioHash, WeakRef<Recipe>>()
const held = new WeakMap<Clip, Recipe>()
const left = new FinalizationRegistry<AudioHash>((hash) => {
  if (!recipes.get(hash)?.deref()) recipes.delete(hash)
})

/** Notes what the sound of a worked clip is made of. */
export function noteRecipe(worked: Clip, recipe: Recipe): void {
  const known = recipes.get(worked.audio)?.deref()
  held.set(worked, known ?? recipe)
  if (known) return
  recipes.set(worked.audio, new WeakRef(recipe))
  left.register(recipe, worked.audio)
}

/** What a worked sound is made of; undefined for a recording. */
export const recipeOf = (hash: AudioHash): Recipe | undefined => recipes.get(hash)?.deref()
