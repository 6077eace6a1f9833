import { filterCodes } from '../../program/codes'
import { exp2, sin } from '../../math'
import { FilterSection } from '../../program/layout'
import { put } from './cells'

/**
 * Sections of filters: state variable filters by the trapezoidal rule (A. Simper, "Linear Trapezoidal Integrated SVF",
 * 2013), whose input, band and low are mixed to what a kind of filter gives.
 *
 *   input ──┬─────────────────────────── × mix0 ──┐
 *           └─ tangent g, damping k ─ band × mix1 ─┼─ out
 *                                   └ low  × mix2 ─┘
 */

const PI = 3.141592653589793
/** Dampings of the two sections of a filter of 24 dB that is flat (S. Butterworth, 1930). */
const FIRST_OF_PAIR = 1.8477590650225735
const LAST_OF_PAIR = 0.5411961001461969
const MOST_GAIN_DB = 60

/** Holds a damping within what is stable and can be heard. */
export function heldDamping(damping: f64): f64 {
  return Math.min(2, Math.max(0.05, damping))
}

/**
 * Writes what a section needs, from `a1` on, at `to`. `sections` is 1 for 12 dB, 2 for 24 dB, `section` which of them.
 * The damping is that of the filter: 1/Q, which for low and high pass is the level at the cutoff, whatever their slope.
 */
export function designSection(
  to: i32,
  kind: i32,
  sections: i32,
  section: i32,
  cutoffHz: f64,
  damping: f64,
  gainDb: f64,
  rateHz: f64,
): void {
  const held = heldDamping(damping)
  const isPass = kind === filterCodes.lowPass || kind === filterCodes.highPass
  const isPair = sections === 2 && kind !== filterCodes.bandPass && kind !== filterCodes.notch && kind !== filterCodes.peak
  const k: f64 = isPair ? (section === 0 ? FIRST_OF_PAIR : LAST_OF_PAIR * held) : held
  const hz = Math.min(Math.max(cutoffHz, 5), rateHz * 0.49)
  if (!isPass && kind !== filterCodes.bandPass && kind !== filterCodes.notch) {
    const gain = Math.min(MOST_GAIN_DB, Math.max(-MOST_GAIN_DB, gainDb)) / (sections === 2 ? 2 : 1)
    designLifting(to, kind, hz, k, gain, rateHz)
    return
  }
  const angle = hz * (PI / rateHz)
  const g = sin(angle) / sin(angle + PI / 2)
  if (kind === filterCodes.lowPass) write(to, g, k, 0, 0, 1)
  else if (kind === filterCodes.bandPass) write(to, g, k, 0, k, 0)
  else if (kind === filterCodes.highPass) write(to, g, k, 1, -k, -1)
  else write(to, g, k, 1, -k, 0)
}

function write(to: i32, g: f64, k: f64, mix0: f64, mix1: f64, mix2: f64): void {
  const a1 = 1 / (1 + g * (g + k))
  put(to + FilterSection.a1, a1)
  put(to + FilterSection.a2, g * a1)
  put(to + FilterSection.a3, g * g * a1)
  put(to + FilterSection.mix0, mix0)
  put(to + FilterSection.mix1, mix1)
  put(to + FilterSection.mix2, mix2)
}

/**
 * Shelves and peaks, which the trapezoidal rule alone would squeeze together below half the rate. What it makes of a
 * squared frequency is w^2 = x / (c + d x), x = sin^2(w / 2), of which c = 1/4 and d = -1/4 is only one choice: here c and d
 * are such that it is right at two frequencies, where the filter turns. Numerator and denominator of the analogue filter's
 * squared magnitude stay quadratic in x, so each is factored into three numbers with two roots, always stable.
 * (What is to be met, after S. J. Orfanidis, "Digital Parametric Equalizer Design With Prescribed Nyquist-Frequency Gain",
 * 1997, and M. Vicanek, "Matched Second Order Digital Filters", 2016; the way is our own.)
 */
function designLifting(to: i32, kind: i32, hz: f64, k: f64, gainDb: f64, rateHz: f64): void {
  const a = exp2(gainDb * DB_TO_OCTAVES)
  const root = Math.sqrt(a)
  const w = (2 * PI * hz) / rateHz
  if (kind === filterCodes.peak) {
    const spread = (k * k) / (k * k + 0.2)
    const here = Math.min(w, 2.2)
    const below = here < 1.05 ? here * (1 + 0.25 * spread) : here - (here - 1.05) * spread
    const above = here + Math.max(0, highTurn(w) - here) * spread
    factor(to, w, below, above, 1, a * k, 1, 1, k / a, 1)
    return
  }
  const spread = (k * k) / (k * k + 0.3)
  const turn = Math.min(1.1, 0.45 + 0.45 * w)
  const low = Math.min(Math.min(w * root, w / root), 2.1)
  const high = Math.min(Math.max(w * root, w / root), 2.2)
  const below = low + (turn - low) * spread
  const above = high + (highTurn(w) - high) * spread
  if (kind === filterCodes.lowShelf) factor(to, w, below, above, a, a * root * k, a * a, a, root * k, 1)
  else factor(to, w, below, above, a * a, a * root * k, a, 1, root * k, a)
}

/** log2(10) / 40: the root of a gain. */
const DB_TO_OCTAVES = 0.08304820237218406

function highTurn(w: f64): f64 {
  return Math.min(2.1, 1.3 + 0.5 * w)
}

/** The share x / w^2 at a frequency in radians a frame. */
function shareAt(w: f64): f64 {
  const s = sin(w / 2)
  return (s * s) / (w * w)
}

/** Writes (b2 s^2 + b1 s + b0) / (a2 s^2 + a1 s + a0) of s in parts of `w`, right at the frequencies `below` and `above`. */
function factor(to: i32, w: f64, below: f64, above: f64, b2: f64, b1: f64, b0: f64, a2: f64, a1: f64, a0: f64): void {
  const isNarrow = above - below < 0.05
  const middle = Math.min(2.3, 0.5 * (below + above))
  const w1 = Math.max(0.001, isNarrow ? middle - 0.025 : below)
  const w2 = isNarrow ? Math.max(w1 + 0.001, middle + 0.025) : above
  const s1 = sin(w1 / 2)
  const s2 = sin(w2 / 2)
  const d = (shareAt(w2) - shareAt(w1)) / (s2 * s2 - s1 * s1)
  const c = shareAt(w1) - d * s1 * s1
  const e = c + d
  const perW = 1 / (w * w)
  const top2 = last(b2, b1, b0, e, perW)
  const top1 = middleOf(b2, b1, b0, c, e, perW, top2)
  const bottom2 = last(a2, a1, a0, e, perW)
  const bottom1 = middleOf(a2, a1, a0, c, e, perW, bottom2)
  const g = Math.sqrt((a0 * c) / bottom2)
  const k = bottom1 / (bottom2 * g)
  const high = top2 / bottom2
  write(to, g, k, high, top1 / (bottom2 * g) - k * high, b0 / a0 - high)
}

/** The squared factor's highest number, and its middle one. */
function last(q2: f64, q1: f64, q0: f64, e: f64, perW: f64): f64 {
  const inner = q1 * q1 - 2 * q0 * q2
  return Math.sqrt(Math.max(0, q0 * q0 * e * e + inner * e * perW + q2 * q2 * perW * perW))
}

function middleOf(q2: f64, q1: f64, q0: f64, c: f64, e: f64, perW: f64, highest: f64): f64 {
  const inner = q1 * q1 - 2 * q0 * q2
  return Math.sqrt(Math.max(0, 2 * q0 * q0 * c * e + inner * c * perW + 2 * q0 * c * highest))
}
