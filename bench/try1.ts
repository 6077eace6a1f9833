import { realStrikes } from './real/material'
import { realScene } from './real/compose'
import { heardStrikes, findHits } from '../core/cut'
import { fMeasure } from './onsets'
const s = realStrikes('minetest-data')
for (const seed of [900, 901, 902]) {
  const sc = realScene('dense', s, seed)
  const h = heardStrikes(sc.samples, 48000)
  const f = findHits(sc.samples, 48000, h.strikes).map((o) => o.frame / 48000)
  const truth = sc.truth.map((x) => x / 48000)
  console.log(seed, f.length, truth.length, h.strikes.line, fMeasure(f, truth, 0.05), [...new Set(sc.things)])
  if (f.length < 60) console.log(h.strikes.strikes.slice(0, 60).map((x) => [(x.hop / 750).toFixed(2), x.strength.toFixed(2), x.height.toFixed(2), truth.some((t) => Math.abs(t - x.hop / 750) < 0.02) ? 'T' : ''].join(' ')).join(' | '))
}
