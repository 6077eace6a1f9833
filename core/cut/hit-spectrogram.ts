import { magnitudes } from './spectrum'

/** What a picture of a hit's spectrum along time shows. */
export interface SpectrogramView {
  /** From the strike on, s. */
  readonly seconds: number
  readonly columns: number
  readonly rows: number
  /** The middle of the lowest row and of the highest, Hz; rows between are evenly spaced in pitch. */
  readonly lowHz: number
  readonly highHz: number
}

/** Deep tones are told apart by long windows, high ones by short windows that keep their time: up to so many Hz, so many samples. */
const WINDOWS = [
  { upToHz: 250, size: 4096 },
  { upToHz: 1200, size: 1024 },
  { upToHz: Infinity, size: 256 },
] as const
const LONGEST = WINDOWS[0].size
const FLOOR_DB = -66

/**
 * How strong each frequency of a hit is over time, for drawing: `rows` by `columns` values, row by row from the highest
 * frequency, 255 at its strongest and 0 where it is 66 dB or more below that. `mono` begins at the strike.
 */
export function hitSpectrogram(mono: Float32Array, sampleRateHz: number, view: SpectrogramView): Uint8Array {
  return hitSpectrograms([mono], sampleRateHz, view)[0]!
}

/** The same of parts of one hit, by one scale: 255 is the strongest place of all of them. */
export function hitSpectrograms(parts: readonly Float32Array[], sampleRateHz: number, view: SpectrogramView): Uint8Array[] {
  const levels = parts.map((mono) => levelsOf(mono, sampleRateHz, view))
  const most = Math.max(1e-9, ...levels.map((one) => one.reduce((high, level) => Math.max(high, level), 0)))
  return levels.map((one) =>
    Uint8Array.from(one, (level) => Math.max(0, Math.min(255, Math.round(255 * (1 - (20 * Math.log10(level / most + 1e-9)) / FLOOR_DB))))),
  )
}

function levelsOf(mono: Float32Array, sampleRateHz: number, view: SpectrogramView): Float32Array {
  const { seconds, columns, rows, lowHz, highHz } = view
  const length = Math.min(mono.length, Math.ceil(seconds * sampleRateHz) + LONGEST)
  const padded = new Float32Array(length + LONGEST)
  padded.set(mono.subarray(0, length), LONGEST / 2)
  const hzOf = Array.from({ length: rows }, (_, row) => lowHz * (highHz / lowHz) ** (rows === 1 ? 0 : (rows - 1 - row) / (rows - 1)))
  const powers = new Float32Array(rows * columns)
  for (let column = 0; column < columns; column++) {
    const middle = LONGEST / 2 + ((column + 0.5) / columns) * seconds * sampleRateHz
    for (const { upToHz, size } of WINDOWS) {
      const concerned = hzOf.flatMap((hz, row) => (windowOf(hz) === upToHz ? [row] : []))
      if (concerned.length === 0) continue
      const bins = magnitudes(padded, Math.round(middle - size / 2), size)
      for (const row of concerned) {
        const level = levelAt(bins, (hzOf[row]! * size) / sampleRateHz) / (size / 4)
        powers[row * columns + column] = level
      }
    }
  }
  return powers
}

const windowOf = (hz: number) => WINDOWS.find(({ upToHz }) => hz <= upToHz)!.upToHz

/** The magnitude at a place between bins; nothing above half the rate. */
function levelAt(bins: Float64Array, place: number): number {
  const below = Math.floor(place)
  if (below + 1 >= bins.length) return 0
  return bins[below]! + (bins[below + 1]! - bins[below]!) * (place - below)
}
