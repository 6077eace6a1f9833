import type { Audio } from '@heliaster/core/audio'
import { workRecipe } from '@heliaster/core/engine'
import { partSound } from '@heliaster/core/matter'
import type { MatterResult, PartingSettings, Recipe } from '@heliaster/core/matter'
import { transfer } from 'comlink'

/** Long work says how far it is so often, ms. */
const TOLD_MS = 80

/** The matter of hits, worked away from the page and from all other work. */
export const work = {
  /** What a recipe makes of its source. */
  recipe(recipe: Recipe, source: Audio, told: (share: number) => void): MatterResult {
    let last = performance.now()
    const result = workRecipe(recipe, source, (share) => {
      if (performance.now() - last < TOLD_MS) return
      last = performance.now()
      told(share)
    })
    return result.ok ? transfer(result, result.audio.channels.map(({ buffer }) => buffer as ArrayBuffer)) : result // prettier-ignore
  },
  /** The ringing and the noise of one channel. */
  part(mono: Float32Array, sampleRateHz: number, settings: PartingSettings): { ringing: Float32Array; noise: Float32Array } {
    const { ringing, noise } = partSound([mono], sampleRateHz, settings)
    return transfer({ ringing: ringing[0]!, noise: noise[0]! }, [ringing[0]!.buffer as ArrayBuffer, noise[0]!.buffer as ArrayBuffer])
  },
}
export type MatterWork = typeof work
