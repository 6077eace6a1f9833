import { snapPlacesOf } from '@heliaster/core/shaping'

import type { DrawnHit } from '../features/shape/chart/use-drawn-hit'

const tone = Float32Array.from({ length: 400 }, (_, i) => Math.sin(i / 9) / 2)

/** A hit as the engine has drawn it: a second long, dying away. */
export const aDrawnHit: DrawnHit = {
  levels: Float32Array.from({ length: 8 }, (_, i) => 1 - i / 8),
  seconds: 1,
  soundSeconds: 0.8,
  mono: tone,
  firstSamples: tone,
  snaps: snapPlacesOf(tone, 48000, 0.8),
  clipSeconds: 1,
  clipRateHz: 44100,
  clipLevels: Float32Array.from([1, 0.5]),
  loudnessDb: -20,
  spectrumDb: new Float32Array(4),
  clipSpectrumDb: new Float32Array(4),
  samples: tone,
}
