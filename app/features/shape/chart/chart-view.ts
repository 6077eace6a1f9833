import { levelUnits, pitchUnits, timeUnits } from '@heliaster/core/shaping'
import type { Layer, LevelUnit, PitchUnit, TimeUnit } from '@heliaster/core/shaping'
import { z } from 'zod'
import { createStore } from 'zustand/vanilla'

import { deviceSettings } from '../../../ui/device/device-settings'

const schema = z.object({ time: z.literal(timeUnits), level: z.literal(levelUnits), pitch: z.literal(pitchUnits), isSnapping: z.boolean() })
interface ChartSettings {
  readonly time: TimeUnit
  readonly level: LevelUnit
  readonly pitch: PitchUnit
  readonly isSnapping: boolean
}
const usual: ChartSettings = { time: 'ms', level: '%', pitch: 'ct', isSnapping: false }

/** What points are told in on this device, and whether they are drawn to the hit. */
export const chartSettings = deviceSettings('heliaster-envelopes', schema, usual)

/** What of a hit is seen, all of it or its first 20 ms, whether with its frequencies (in Matter it is, until it is switched off there); and which envelope is drawn on: it stays when another pad is struck. */
export const chartView = createStore<{
  readonly isFirst: boolean
  readonly showsSpectrum: boolean
  readonly showsMatter: boolean
  readonly layer: Layer
}>(() => ({
  isFirst: false,
  showsSpectrum: false,
  showsMatter: true,
  layer: 'level',
}))
