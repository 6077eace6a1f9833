import { magnitudes } from '@heliaster/core/cut'

const SIZE = 1024
const HOP = 256
const BANDS = 64
const FLOOR_DB = 60

/** Levels of mel bands along a sound, dB, one row for each hop; nothing lower than 60 dB under `loudest`. */
export interface MelLevels {
  readonly rows: Float32Array[]
  readonly most: number
}

const melOf = (hz: number) => 2595 * Math.log10(1 + hz / 700)

/** Energies of mel bands, in dB, not held up yet. Row i is the sound around frame i * 256. */
export function melLevels(samples: Float32Array, sampleRateHz: number): MelLevels {
  const edges = Array.from({ length: BANDS + 2 }, (_, i) => {
    const mel = melOf(30) + ((melOf(Math.min(16_000, sampleRateHz / 2)) - melOf(30)) * i) / (BANDS + 1)
    return (700 * (10 ** (mel / 2595) - 1) * SIZE) / sampleRateHz
  })
  const padded = new Float32Array(samples.length + SIZE)
  padded.set(samples, SIZE / 2)
  const rows: Float32Array[] = []
  let most = -Infinity
  for (let at = 0; at < samples.length; at += HOP) {
    const bins = magnitudes(padded, at, SIZE)
    const row = new Float32Array(BANDS)
    for (let band = 0; band < BANDS; band++) {
      const [low, middle, high] = [edges[band]!, edges[band + 1]!, edges[band + 2]!]
      let sum = 0
      for (let bin = Math.max(1, Math.floor(low)); bin <= Math.min(bins.length - 1, Math.ceil(high)); bin++) {
        const share = Math.max(0, bin <= middle ? (bin - low) / (middle - low) : (high - bin) / (high - middle))
        sum += bins[bin]! ** 2 * Math.max(share, bin === Math.round(middle) ? 0.2 : 0)
      }
      row[band] = 10 * Math.log10(sum + 1e-12)
      if (row[band]! > most) most = row[band]!
    }
    rows.push(row)
  }
  return { rows, most }
}

/**
 * Mean difference of mel levels, dB, over the frames and bands in which one of the two is within 60 dB of the truth's loudest.
 * `truthAt` says which frame of the truth belongs to a frame of the sound.
 */
export function melDistance(truth: MelLevels, sound: MelLevels, truthAt: (frame: number) => number = (frame) => frame): number {
  const floor = truth.most - FLOOR_DB
  let sum = 0
  let count = 0
  sound.rows.forEach((row, i) => {
    const place = truthAt(i * HOP) / HOP
    const below = Math.floor(place)
    const [a, b] = [truth.rows[Math.max(0, below)], truth.rows[below + 1] ?? truth.rows[below]]
    if (place < 0 || !a || !b) return
    for (let band = 0; band < BANDS; band++) {
      const wanted = Math.max(floor, a[band]! + (b[band]! - a[band]!) * (place - below))
      const got = Math.max(floor, row[band]!)
      if (wanted === floor && got === floor) continue
      sum += Math.abs(wanted - got)
      count++
    }
  })
  return count > 0 ? sum / count : 0
}

/** The loudest 2 ms in the 20 ms before an attack against the loudest 2 ms of the 20 ms from it on, dB. */
export function preEchoDb(samples: Float32Array, sampleRateHz: number, attack: number): number {
  const ms = sampleRateHz / 1000
  const loudest = (from: number, to: number) => {
    let most = 1e-20
    for (let at = from; at + 2 * ms <= to; at += ms) {
      let sum = 0
      for (let i = Math.max(0, Math.round(at)); i < Math.min(samples.length, at + 2 * ms); i++) sum += samples[i]! ** 2
      most = Math.max(most, sum)
    }
    return most
  }
  return 10 * Math.log10(loudest(attack - 20 * ms, attack) / loudest(attack, attack + 20 * ms))
}
