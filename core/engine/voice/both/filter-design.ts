import { filterCodes } from '../../program/codes'
import { exp2, sin, tan } from '../../math'
import { FilterSection } from '../../program/layout'
import { get, put } from './cells'
import { peakWays, shelfWays } from './lifting-points'

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
  const g = tan(angle)
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
 * Shelves and peaks, which the trapezoidal rule alone would squeeze together below half the rate. An analogue one is a share
 * of two squares of its frequency, quadratic in w^2, and a section is one of two quadratics in x = sin^2(w / 2). With
 * w^2 = x / (c + d x), of which the trapezoidal rule's c = 1/4 and d = -1/4 is only one choice, both squares times
 * (c + d x)^2 would be quadratic, and right at two frequencies. Here each is the quadratic that is right at 0 and at two
 * frequencies of its own, near which it turns; where the six points lie was learned (lifting-points.ts), and where that
 * would leave no square they are the same two for all. Each square is factored into three numbers with two roots, always stable.
 * (What is to be met, after S. J. Orfanidis, "Digital Parametric Equalizer Design With Prescribed Nyquist-Frequency Gain",
 * 1997, and M. Vicanek, "Matched Second Order Digital Filters", 2016; the way is our own.)
 */
function designLifting(to: i32, kind: i32, hz: f64, k: f64, gainDb: f64, rateHz: f64): void {
  const a = exp2(gainDb * DB_TO_OCTAVES)
  const w = (2 * PI * hz) / rateHz
  if (kind === filterCodes.peak) designPeak(to, w, k, a)
  else designShelf(to, w, k, a, kind === filterCodes.lowShelf)
}

/** 18 kHz at 48 kHz, in radians a frame. */
const HIGHEST_HEARD = 2.36
/** log2(10) / 40: the root of a gain. */
const DB_TO_OCTAVES = 0.08304820237218406

function designPeak(to: i32, w: f64, k: f64, a: f64): void {
  const spread = (k * k) / (k * k + 0.2)
  const here = Math.min(w, 2.2)
  const below = here < 1.05 ? here * (1 + 0.25 * spread) : here - (here - 1.05) * spread
  const above = here + Math.max(0, highTurn(w) - here) * spread
  const far = Math.max(a, 1 / a)
  const wide = k * far
  const narrow = k / far
  peakWays(to, Math.min(w, 2.8) - 1, bentDamping(narrow), bentDamping(wide))
  settlePoints(to, below, above, w, Math.min(1, (3 * (wide - narrow)) / (wide + narrow)))
  if (a >= 1) share(to, w, wide, w, narrow, 1, 0)
  else share(to, w, narrow, w, wide, 1, 1)
}

/** A low shelf over its own high one is the whole gain: both are made of the same two squares, which turn at `low` and `high`. */
function designShelf(to: i32, w: f64, k: f64, a: f64, isLow: bool): void {
  const root = Math.sqrt(a)
  const low = Math.min(w * root, w / root)
  const high = Math.max(w * root, w / root)
  const spread = (k * k) / (k * k + 0.3)
  const lower = Math.min(low, 2.1)
  const upper = Math.min(high, 2.2)
  const below = lower + (Math.min(1.1, 0.45 + 0.45 * w) - lower) * spread
  const above = upper + (highTurn(w) - upper) * spread
  shelfWays(to, Math.min(low, 2.8) - 1, Math.min(high, 2.8) - 1, bentDamping(k))
  settlePoints(to, below, above, high, Math.min(1, (6 * (high - low)) / (high + low)))
  const level = isLow ? a * a : 1
  if (isLow === a >= 1) share(to, high, k, low, k, level, 1)
  else share(to, low, k, high, k, level, 0)
}

function highTurn(w: f64): f64 {
  return Math.min(2.1, 1.3 + 0.5 * w)
}

function bentDamping(damping: f64): f64 {
  return (damping - 0.4) / (damping + 0.4)
}

/** Where all squares are right if they are right at the same two frequencies. */
let commonBelow: f64 = 0
let commonAbove: f64 = 0

/** Turns the six ways that lie in a section into points: of the common map, of the square that turns first, of the other one. */
function settlePoints(to: i32, below: f64, above: f64, highest: f64, apart: f64): void {
  commonBelow = below
  commonAbove = above
  const reach = Math.min(1, highest / 0.6)
  const much = reach * reach
  const first = much * get(to + FilterSection.mix1) * apart
  const second = much * get(to + FilterSection.mix2) * apart
  const squareBelow = below + much * get(to + FilterSection.a3)
  const squareAbove = above + much * get(to + FilterSection.mix0)
  putPoints(to + FilterSection.a1, below + much * get(to + FilterSection.a1), above + much * get(to + FilterSection.a2))
  putPoints(to + FilterSection.a3, squareBelow - first, squareAbove - second)
  putPoints(to + FilterSection.mix1, squareBelow + first, squareAbove + second)
}

/** Two frequencies, in bounds and apart. */
function putPoints(at: i32, below: f64, above: f64): void {
  const one = Math.min(3, Math.max(0.001, below))
  const two = Math.min(3, Math.max(0.001, above))
  const isNear = two - one < 0.05
  const middle = Math.min(2.9, 0.5 * (one + two))
  const from = isNear ? Math.max(0.001, middle - 0.025) : one
  put(at, from)
  put(at + 1, isNear ? Math.max(from + 0.001, middle + 0.025) : two)
}

/** The share of two squares, times a level; `isTurned` says that the upper one is the second of the points' squares. */
function share(to: i32, topW: f64, topK: f64, bottomW: f64, bottomK: f64, level: f64, isTurned: i32): void {
  const first = to + FilterSection.a3
  const second = to + FilterSection.mix1
  if (tryShare(to, topW, topK, bottomW, bottomK, level, isTurned ? second : first, isTurned ? first : second)) return
  const common = to + FilterSection.a1
  putPoints(common, commonBelow, commonAbove)
  if (!tryShare(to, topW, topK, bottomW, bottomK, level, common, common)) write(to, 0.1, 1, 1, 0, 0)
}

/**
 * Writes it with the points that lie in the section: those of the common map, and at `top` and `bottom` those of the two
 * squares, where the same for both says that nothing else is left to try. Nothing where one of the quadratics is no square.
 */
function tryShare(to: i32, topW: f64, topK: f64, bottomW: f64, bottomK: f64, level: f64, top: i32, bottom: i32): bool {
  const isCommon = top === bottom
  const m1 = get(to + FilterSection.a1)
  const m2 = get(to + FilterSection.a2)
  const x1 = xOf(m1)
  const x2 = xOf(m2)
  const d = (x2 / (m2 * m2) - x1 / (m1 * m1)) / (x2 - x1)
  const c = x1 / (m1 * m1) - d * x1
  quadratic(topW, topK, c, d, get(top), get(top + 1))
  if (!isCommon && missesTurn(topW, topK, c, d)) return false
  const top1 = middle
  const top2 = highest
  quadratic(bottomW, bottomK, c, d, get(bottom), get(bottom + 1))
  if (!isCommon && missesTurn(bottomW, bottomK, c, d)) return false
  const base = Math.abs(c)
  const topEnd = base * base + top1 + top2
  const bottomEnd = base * base + middle + highest
  if (!(topEnd > 0) || !(bottomEnd > 0)) return false
  const b2 = Math.sqrt(topEnd)
  const a2 = Math.sqrt(bottomEnd)
  const topInner = 2 * base * base + top1 + 2 * base * b2
  const bottomInner = 2 * base * base + middle + 2 * base * a2
  if (!(topInner > 0) || !(bottomInner > 0)) return false
  const g = Math.sqrt(base / a2)
  const k = (Math.sqrt(bottomInner) * g) / base
  const high = b2 / a2
  write(to, g, k, level * high, level * ((Math.sqrt(topInner) * g) / base - k * high), level * (1 - high))
  return true
}

function xOf(w: f64): f64 {
  const s = sin(w / 2)
  return s * s
}

/** The second and third number of the quadratic that is made last. */
let middle: f64 = 0
let highest: f64 = 0

/** The quadratic in x that is (c + d x)^2 times a square which turns at `corner`, right at 0 and at two frequencies. */
function quadratic(corner: f64, k: f64, c: f64, d: f64, p1: f64, p2: f64): void {
  const x1 = xOf(p1)
  const x2 = xOf(p2)
  const y1 = (squareAt(p1 / corner, k, c + d * x1) - c * c) / x1
  const y2 = (squareAt(p2 / corner, k, c + d * x2) - c * c) / x2
  highest = (y2 - y1) / (x2 - x1)
  middle = y1 - highest * x1
}

/** Whether the quadratic made last is another one than its square by 6 % and more where that turns, if that is heard. */
function missesTurn(corner: f64, k: f64, c: f64, d: f64): bool {
  if (corner > HIGHEST_HEARD) return false
  const x = xOf(corner)
  const made = c * c + x * (middle + x * highest)
  const wanted = squareAt(1, k, c + d * x)
  return Math.abs(made - wanted) > 0.06 * wanted
}

function squareAt(r: f64, k: f64, map: f64): f64 {
  const plain = 1 - r * r
  return (plain * plain + k * k * r * r) * map * map
}
