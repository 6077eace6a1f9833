import { bandHz } from '@heliaster/core/cut'
import { useEffect, useState } from 'react'
import { useStore } from 'zustand'

import type { Player } from './player'
import { sound } from './sound'

const BANDS = 96
const SIZE = 8192
const LOOK_MS = 80
const FLOOR_DB = -110

const analysers = new WeakMap<Player, AnalyserNode>()

function analyserOf(player: Player): AnalyserNode {
  let analyser = analysers.get(player)
  if (!analyser) {
    analyser = new AnalyserNode(player.context, { fftSize: SIZE, smoothingTimeConstant: 0.7, minDecibels: FLOOR_DB })
    player.node.connect(analyser, 0)
    analysers.set(player, analyser)
  }
  return analyser
}

/** The loudest of the bins of each band, dB; low bands that are narrower than a bin take the nearest. */
export function inBands(bins: Float32Array, binHz: number, bands = BANDS): Float32Array {
  return Float32Array.from({ length: bands }, (_, band) => {
    const from = Math.round(bandHz(band - 0.5, bands) / binHz)
    const to = Math.round(bandHz(band + 0.5, bands) / binHz)
    let most = FLOOR_DB
    for (let bin = from; bin <= to && bin < bins.length; bin++) most = Math.max(most, bins[bin]!)
    return most
  })
}

/** The spectrum of what is heard now, in bands from 20 Hz to 20 kHz, while this is shown; nothing while all is silent. */
export function useMixSpectrum(): Float32Array | undefined {
  const player = useStore(sound, (state) => state.player)
  const [bands, setBands] = useState<Float32Array>()
  useEffect(() => {
    if (!player) return undefined
    const analyser = analyserOf(player)
    const bins = new Float32Array(analyser.frequencyBinCount)
    const timer = setInterval(() => {
      analyser.getFloatFrequencyData(bins)
      const heard = inBands(bins, player.sampleRateHz / SIZE)
      setBands(heard.some((db) => db > FLOOR_DB + 20) ? heard : undefined)
    }, LOOK_MS)
    return () => clearInterval(timer)
  }, [player])
  return bands
}
