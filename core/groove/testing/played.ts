import { seeded } from '../../kit/builders'
import { readyPatterns } from '../ready/patterns'
import type { PlayedHit } from '../rhythm/pace'

/** What a hand plays: the strikes with their true places, s, and how it was meant. */
export interface Playing {
  readonly hits: readonly PlayedHit[]
  readonly tempoBpm: number
  readonly swing: number
  readonly stepsPerBeat: number
  /** Where the first bar begins, s. */
  readonly firstSeconds: number
}

const CENTRES: Record<string, number> = { kick: 120, snare: 900, hat: 5000, openHat: 4500, clap: 1400, shaker: 6000, lowTom: 180, midTom: 300, bell: 3000, wood: 1500 } // prettier-ignore

/** A hand plays a pattern over and over, straying by so many ms, at a tempo and a swing; some strikes are left out. */
export function playedPattern(seed: number, { tempoBpm, swing, bars = 8, strayMs = 12, pattern = seed }: { tempoBpm: number; swing: number; bars?: number; strayMs?: number; pattern?: number }): Playing {
  const random = seeded(seed * 31 + 5)
  for (let i = 0; i < 8; i++) random()
  const patterns = readyPatterns.filter(({ isFill, strings }) => !isFill && strings[0].steps.length % 4 === 0)
  const { strings, stepsPerBeat } = patterns[pattern % patterns.length]!
  const normal = () => Math.sqrt(-2 * Math.log(random() + 1e-12)) * Math.cos(2 * Math.PI * random())
  const firstSeconds = 0.4 + random()
  const perBeat = 60 / tempoBpm
  const steps = strings[0].steps.length
  const hits: PlayedHit[] = []
  for (let at = 0; at < bars * 4 * stepsPerBeat; at++)
    strings.forEach(({ steps: signs, family }, thing) => {
      const sign = signs[at % steps]!
      if (sign === '.' || random() < 0.05) return
      const late = at % 2 === 1 && stepsPerBeat % 2 === 0 ? 2 * swing - 1 : 0
      const seconds = firstSeconds + ((at + late) / stepsPerBeat) * perBeat + (normal() * strayMs) / 1000
      hits.push({ seconds, strength: Number(sign) / 9, thing, centreHz: (CENTRES[family] ?? 1000) * (0.9 + 0.2 * random()) })
    })
  hits.sort((a, b) => a.seconds - b.seconds)
  return { hits, tempoBpm, swing, stepsPerBeat, firstSeconds }
} // prettier-ignore
