import { besselI0OfRoot, exp2, sin } from '../math'
import { MOST_LEVELS, READING_TABLES } from '../program/layout'

/**
 * Tables by which clips are read between their samples: windowed sincs, whose cutoff falls as the rate rises.
 *
 * A table is for rates from 2^(k/32) up to the next; its length grows with the rate, so that all are alike in what they
 * keep and what they keep out. In parts of the rate at which the clip is sampled, for the first table:
 *
 *   gain 1 |‾‾‾‾‾‾‾‾‾‾‾‾‾\        a tenth of a dB lost at 0.398 (17.5 kHz of 44.1), 2 dB at 0.432
 *          |              \       -100 dB from 0.535 on, which is 24.1 kHz over the step to the next table:
 *        0 |_______________\____  what lies there would fold back below 20 kHz
 *
 * A row is one of 512 places between two samples; between rows the reader goes straight, which keeps the error below
 * -105 dB (J. O. Smith, "Digital Audio Resampling Home Page", 2002; J. F. Kaiser's window, 1974).
 */

/** Places between two samples that have a row of their own; one more row closes the table. */
export const READING_PLACES = 512
/** Tables for one octave. */
export const TABLES_PER_OCTAVE = 32
const FIRST_TAPS = 40
const STOP = 0.5465 / exp2(1 / TABLES_PER_OCTAVE)
const ATTENUATION_DB = 100
const BETA = 0.1102 * (ATTENUATION_DB - 8.7)
const PI = 3.141592653589793

/** How many samples a table reads: a multiple of four. */
export function tapsOf(table: number): number {
  return 4 * Math.ceil((FIRST_TAPS / 4) * exp2(table / TABLES_PER_OCTAVE) - 1e-9)
}

/** Where a table begins among the numbers of all. */
export function tableAt(table: number): number {
  let at = 0
  for (let k = 0; k < table; k++) at += tapsOf(k) * (READING_PLACES + 1)
  return at
}

export const READING_FLOATS = tableAt(READING_TABLES)

/** From this share of the way to the next table on both are read, and one goes over into the other. */
export const MIX_FROM = 0.85

/** What reading so many octaves above the engine's rate takes: levels of lower rates, and the first so many tables. */
export function readingUpTo(octaves: number): { readonly levels: number; readonly tables: number } {
  const last = Math.floor(TABLES_PER_OCTAVE * octaves + (1 - MIX_FROM))
  if (!(last > 0)) return { levels: 0, tables: 1 }
  return { levels: Math.min(MOST_LEVELS, Math.floor(last / TABLES_PER_OCTAVE)), tables: Math.min(READING_TABLES, last + 1) }
}

const made = new Map<number, Float32Array>()

/** The numbers of a table: rows of `tapsOf` numbers, each row summing to 1. */
export function readingTable(table: number): Float32Array {
  const known = made.get(table) ?? makeTable(table)
  made.set(table, known)
  return known
}

function makeTable(table: number): Float32Array {
  const taps = tapsOf(table)
  const half = taps / 2
  const width = (ATTENUATION_DB - 8) / (2.285 * 2 * PI * (FIRST_TAPS - 1))
  const cutoff = (STOP - width / 2) / exp2(table / TABLES_PER_OCTAVE)
  const rows = new Float32Array(taps * (READING_PLACES + 1))
  const row = new Float64Array(taps)
  for (let place = 0; place <= READING_PLACES / 2; place++) {
    let sum = 0
    for (let tap = 0; tap < taps; tap++) sum += row[tap] = windowedSinc(tap - (half - 1) - place / READING_PLACES, half, cutoff)
    const mirrored = (READING_PLACES - place) * taps
    for (let tap = 0; tap < taps; tap++) rows[place * taps + tap] = rows[mirrored + taps - 1 - tap] = row[tap] / sum
  }
  return rows
}

function windowedSinc(time: number, half: number, cutoff: number): number {
  const share = time < 0 ? -time / half : time / half
  if (share >= 1) return 0
  const angle = 2 * PI * cutoff * time
  return (angle === 0 ? 1 : sin(angle) / angle) * windowAt(share)
}

const WINDOW_POINTS = 4096
let windowPoints: Float64Array | undefined

/** Kaiser's window, 0..1 from its middle to its edge: worked out at points, and straight through four of them between. */
function windowAt(share: number): number {
  const points = (windowPoints ??= makeWindow())
  const at = share * WINDOW_POINTS
  const whole = at | 0
  const t = at - whole
  const a = points[whole]
  const b = points[whole + 1]
  const c = points[whole + 2]
  const d = points[whole + 3]
  return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)))
}

/** One point before the middle and two behind the edge, where it goes on as it would. */
function makeWindow(): Float64Array {
  const scale = 1 / besselI0OfRoot(BETA * BETA)
  return Float64Array.from({ length: WINDOW_POINTS + 4 }, (_, i) => {
    const share = (i - 1) / WINDOW_POINTS
    return besselI0OfRoot(BETA * BETA * (1 - share * share)) * scale
  })
}
