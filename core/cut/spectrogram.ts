import { magnitudes } from './spectrum'

const SIZE = 1024
const LOWEST_HZ = 40
const FLOOR_DB = -90

/**
 * How strong each frequency is over time, for drawing: `columns` moments of [startFrame, endFrame) by `rows` frequencies,
 * evenly spaced in pitch from 40 Hz at the bottom to half the rate at the top. Values 0 (-90 dB or less) to 255 (0 dB),
 * row by row from the top.
 */
export function spectrogramOf(
  mono: Float32Array,
  sampleRateHz: number,
  startFrame: number,
  endFrame: number,
  columns: number,
  rows: number,
): Uint8Array {
  const out = new Uint8Array(columns * rows)
  const binOf = rowBins(sampleRateHz, rows)
  const step = (endFrame - startFrame) / columns
  for (let column = 0; column < columns; column++) {
    const bins = magnitudes(mono, Math.max(0, Math.round(startFrame + (column + 0.5) * step - SIZE / 2)), SIZE)
    for (let row = 0; row < rows; row++) {
      const [from, to] = binOf[row]
      let most = 0
      for (let bin = from; bin <= to; bin++) if (bins[bin] > most) most = bins[bin]
      const db = 20 * Math.log10(most / (SIZE / 4) + 1e-9) // a full sine gives SIZE / 4 under this window
      out[row * columns + column] = Math.max(0, Math.min(255, Math.round(((db - FLOOR_DB) / -FLOOR_DB) * 255)))
    }
  }
  return out
}

function rowBins(sampleRateHz: number, rows: number): [number, number][] {
  const octaves = Math.log2(sampleRateHz / 2 / LOWEST_HZ)
  const binAt = (row: number) => (LOWEST_HZ * 2 ** (octaves * (1 - row / rows)) * SIZE) / sampleRateHz
  return Array.from({ length: rows }, (_, row) => {
    const from = Math.min(SIZE / 2 - 1, Math.round(binAt(row + 1)))
    return [from, Math.max(from, Math.min(SIZE / 2 - 1, Math.round(binAt(row)) - 1))]
  })
}
