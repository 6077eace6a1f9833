/**
 * The engine's own mathematics. The built-in sin, exp, log and pow differ in the last bit between JavaScript hosts;
 * these use only + - * / and exact integer steps, so every host computes the same samples.
 */

const LN2 = 0.6931471805599453
const INVERSE_LN2 = 1.4426950408889634
const LOWEST_EXPONENT = -1074
const HIGHEST_EXPONENT = 1023

const powersOfTwo = new Float64Array(HIGHEST_EXPONENT - LOWEST_EXPONENT + 1)
powersOfTwo[-LOWEST_EXPONENT] = 1
for (let n = 1; n <= HIGHEST_EXPONENT; n++) powersOfTwo[n - LOWEST_EXPONENT] = powersOfTwo[n - 1 - LOWEST_EXPONENT] * 2
for (let n = -1; n >= LOWEST_EXPONENT; n--) powersOfTwo[n - LOWEST_EXPONENT] = powersOfTwo[n + 1 - LOWEST_EXPONENT] / 2

const bitsOfDouble = new Uint32Array(2)
const double = new Float64Array(bitsOfDouble.buffer)

/**
 * Where a function leaves its result, and takes what it works on. A number that is handed to a function or back from one
 * may cost memory that has to be collected again; through a cell of an array it costs none. The thin functions around
 * them are put into their callers by every engine.
 */
const cell = new Float64Array(1)

/** 2 to the power of `x`; relative error below 1e-14. Saturates to 0 and the largest power outside -1074..1023. */
export function exp2(x: number): number {
  cell[0] = x
  exp2In(cell, 0)
  return cell[0]
}

/** 2 to the power of `at[i]`, left there. */
function exp2In(at: Float64Array, i: number): void {
  const x = at[i]
  if (!(x > LOWEST_EXPONENT)) {
    at[i] = 0
    return
  }
  if (x >= HIGHEST_EXPONENT) {
    at[i] = powersOfTwo[HIGHEST_EXPONENT - LOWEST_EXPONENT]
    return
  }
  const whole = Math.floor(x + 0.5)
  const t = (x - whole) * LN2
  // Taylor series of e^t for |t| <= ln(2)/2; the first term left out is below 1e-15.
  let sum = 2.08767569878681e-9
  sum = 2.505210838544172e-8 + t * sum
  sum = 2.755731922398589e-7 + t * sum
  sum = 2.7557319223985893e-6 + t * sum
  sum = 2.48015873015873e-5 + t * sum
  sum = 0.0001984126984126984 + t * sum
  sum = 0.001388888888888889 + t * sum
  sum = 0.008333333333333333 + t * sum
  sum = 0.041666666666666664 + t * sum
  sum = 0.16666666666666666 + t * sum
  sum = 0.5 + t * sum
  sum = 1 + t * (1 + t * sum)
  at[i] = sum * powersOfTwo[whole - LOWEST_EXPONENT]
}

/** Logarithm to base 2 of a positive number; -Infinity for 0 and below. Absolute error below 1e-14. */
export function log2(x: number): number {
  if (!(x > 0)) return -Infinity
  double[0] = x
  let exponent = ((bitsOfDouble[1] >>> 20) & 0x7ff) - 1023
  if (exponent === -1023) return log2(x * 18014398509481984) - 54 // subnormal: scaled by 2^54
  bitsOfDouble[1] = (bitsOfDouble[1] & 0x000fffff) | 0x3ff00000
  let mantissa = double[0] // 1 <= mantissa < 2
  if (mantissa > 1.4142135623730951) {
    mantissa /= 2
    exponent++
  }
  // ln(m) = 2 artanh((m-1)/(m+1)), |argument| <= 0.1716
  const z = (mantissa - 1) / (mantissa + 1)
  const zz = z * z
  let sum = 1 / 23
  for (let n = 21; n >= 1; n -= 2) sum = 1 / n + zz * sum
  return exponent + 2 * z * sum * INVERSE_LN2
}

const HALF_PI = 1.5707963267948966

/** Sine of `x` radians, for |x| below about 1e6; absolute error below 1e-12. */
export function sin(x: number): number {
  cell[0] = x
  sinIn(cell)
  return cell[0]
}

function sinIn(at: Float64Array): void {
  const x = at[0]
  const quarter = Math.floor(x / HALF_PI + 0.5)
  const t = x - quarter * HALF_PI
  const tt = t * t
  let sum: number
  if ((quarter & 1) !== 0) {
    sum = 4.779477332387385e-14
    sum = -1.1470745597729725e-11 + tt * sum
    sum = 2.08767569878681e-9 + tt * sum
    sum = -2.755731922398589e-7 + tt * sum
    sum = 2.48015873015873e-5 + tt * sum
    sum = -0.001388888888888889 + tt * sum
    sum = 0.041666666666666664 + tt * sum
    sum = -0.5 + tt * sum
    sum = 1 + tt * sum
  } else {
    sum = 2.8114572543455206e-15
    sum = -7.647163731819816e-13 + tt * sum
    sum = 1.6059043836821613e-10 + tt * sum
    sum = -2.505210838544172e-8 + tt * sum
    sum = 2.7557319223985893e-6 + tt * sum
    sum = -0.0001984126984126984 + tt * sum
    sum = 0.008333333333333333 + tt * sum
    sum = -0.16666666666666666 + tt * sum
    sum = t + t * tt * sum
  }
  at[0] = (quarter & 2) !== 0 ? -sum : sum
}

/** Tangent of 0..1.5 radians, for filter coefficients. */
export function tan(x: number): number {
  return sin(x) / sin(x + HALF_PI)
}

/** Cosine of `x` radians, in the range of `sin`. */
export function cos(x: number): number {
  return sin(x + HALF_PI)
}

/** Hyperbolic tangent; absolute error below 1e-13. */
export function tanh(x: number): number {
  if (x > 20) return 1
  if (x < -20) return -1
  const e = exp2(2 * INVERSE_LN2 * x)
  return (e - 1) / (e + 1)
}

/** Linear gain of a level in dB; silence (-Infinity dB) is 0. */
export function dbToGain(db: number): number {
  cell[0] = db
  dbToGainIn(cell, 0)
  return cell[0]
}

/** Level in dB of a linear gain; -Infinity for 0. */
export function gainToDb(gain: number): number {
  return log2(gain) * 6.020599913279624
}

/** Frequency ratio of an interval in cents. */
export function centsToRatio(cents: number): number {
  cell[0] = cents
  centsToRatioIn(cell, 0)
  return cell[0]
}

/** The gain of `at[i]` dB, left there. */
export function dbToGainIn(at: Float64Array, i: number): void {
  if (at[i] === 0) at[i] = 1
  else {
    at[i] *= 0.16609640474436813 // log2(10) / 20
    exp2In(at, i)
  }
}

/** The frequency ratio of `at[i]` cents, left there. */
export function centsToRatioIn(at: Float64Array, i: number): void {
  if (at[i] === 0) at[i] = 1
  else {
    at[i] /= 1200
    exp2In(at, i)
  }
}

/** The modified Bessel function of order 0 of the root of `squared`, by its series; for 0..400, relative error below 1e-14. */
export function besselI0OfRoot(squared: number): number {
  let sum = 1
  let term = 1
  for (let k = 1; k < 60; k++) {
    term *= squared / (4 * k * k)
    sum += term
  }
  return sum
}
