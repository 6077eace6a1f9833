import { findHits, findOnsets, heardStrikes, MIN_GAP_SECONDS } from '@heliaster/core/cut'

import type { Figure } from './figure'
import { fMeasure, peerOnsets } from './onsets'
import { manners, realScene } from './real/compose'
import type { RealScene } from './real/compose'
import { strikesOfBank } from './real/drums'
import { measuredPackages, realStrikes } from './real/material'
import { superFlux, superFluxOnsets } from './real/superflux'

const SEED = Number(process.env.BENCH_SEED ?? 900)
const SCENES = 3
/** Drums, each struck softly to hard. */
const BANK = 'fluid-soundfont-gm'
const LINES = Array.from({ length: 26 }, (_, i) => 0.15 + 0.03 * i)
const FLUX_DELTAS = [0.3, 0.6, 1.1, 2, 3.5, 6, 10, 15, 22]
const WITHIN_SECONDS = 0.05
const NEAR_SECONDS = 0.005

interface Measured {
  readonly found: number
  /** The best line over the bare curve, for this very recording. */
  readonly bestLine: number
  readonly fixed: number
  readonly aubio: number
  readonly flux: number
  /** Share of starts within 5 ms of where they can be told from what sounds before. */
  readonly near: number
}

/**
 * Recordings composed of impacts that were recorded by others, with nothing set: F within 50 ms of the line that finds its
 * level, beside the best line for that recording, aubioonset at its best setting for it, and SuperFlux at its best
 * threshold for it. One package was never looked at, nor were the drums.
 */
export function figuresOfWaterLine(): Record<string, Figure> {
  const figures: Record<string, Figure> = {}
  const sets = measuredPackages.map(([name, { isUnseen }]) => ({ name, isUnseen, strikes: realStrikes(name) }))
  for (const { name, isUnseen, strikes } of [...sets, { name: BANK, isUnseen: true, strikes: strikesOfBank(BANK, SEED) }]) {
    if (strikes.length === 0) continue
    for (const manner of Object.keys(manners)) {
      const all = Array.from({ length: SCENES }, (_, i) => measured(realScene(manners[manner]!, strikes, SEED + i)))
      const mean = (of: keyof Measured) => all.reduce((sum, one) => sum + one[of], 0) / all.length
      const [found, bestLine, fixed, aubio, flux, near] = (['found', 'bestLine', 'fixed', 'aubio', 'flux', 'near'] as const).map(mean)
      figures[`water.${name}${isUnseen ? ' (unseen)' : ''}.${manner}`] = {
        value: found,
        unit: `F at 50 ms; ${fixed.toFixed(3)} at the fixed line, ${bestLine.toFixed(3)} at the best; ${near.toFixed(3)} of starts within 5 ms`,
        peer: `aubioonset at its best, ${aubio.toFixed(3)}, and SuperFlux at its best, ${flux.toFixed(3)}`,
        spread: [Math.min(...all.map(({ found }) => found)), Math.max(...all.map(({ found }) => found))],
      }
    }
  }
  return figures
}

function measured(scene: RealScene): Measured {
  const { samples, sampleRateHz, told } = scene
  const truth = scene.truth.map((frame) => frame / sampleRateHz)
  const { curve, strikes } = heardStrikes(samples, sampleRateHz)
  const places = new Map<number, number>()
  const score = (seconds: readonly number[]) => fMeasure(seconds, truth, WITHIN_SECONDS)
  const atLine = (line: number) => score(findOnsets(samples, sampleRateHz, curve, line, MIN_GAP_SECONDS, places).map(({ frame }) => frame / sampleRateHz)) // prettier-ignore
  const found = findHits(samples, sampleRateHz, strikes).map(({ frame }) => frame / sampleRateHz)
  const flux = superFlux(samples, sampleRateHz)
  return {
    found: score(found),
    fixed: atLine(0.3),
    bestLine: Math.max(...LINES.map(atLine)),
    aubio: Math.max(0, ...peerOnsets({ ...scene, truth: [...scene.truth] }).map(score)),
    flux: Math.max(...FLUX_DELTAS.map((delta) => score(superFluxOnsets(flux, delta)))),
    near: told.filter((frame) => found.some((at) => Math.abs(at - frame / sampleRateHz) <= NEAR_SECONDS)).length / told.length,
  }
}
