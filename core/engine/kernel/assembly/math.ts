// The engine's own mathematics (core/engine/math.ts), operation for operation, so that both give the same bits.

const LN2: f64 = 0.6931471805599453
const HALF_PI: f64 = 1.5707963267948966

/** A whole power of two, -1022 to 1023. */
function powerOfTwo(whole: f64): f64 {
  return reinterpret<f64>((<i64>whole + 1023) << 52)
}

/** 2 to the power of `x`. */
export function exp2(x: f64): f64 {
  if (!(x > -1074)) return 0
  if (x >= 1023) return powerOfTwo(1023)
  const whole = floor<f64>(x + 0.5)
  const t = (x - whole) * LN2
  let sum: f64 = 2.08767569878681e-9
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
  // Below the smallest normal number the power is made of two that are exact.
  return sum * (whole < -1022 ? powerOfTwo(whole + 54) * powerOfTwo(-54) : powerOfTwo(whole))
}

const INVERSE_LN2: f64 = 1.4426950408889634

/** Logarithm to base 2 of a positive number; -Infinity for 0 and below. */
export function log2(x: f64): f64 {
  if (!(x > 0)) return -Infinity
  const bits = reinterpret<i64>(x)
  let exponent = <i32>((bits >> 52) & 0x7ff) - 1023
  if (exponent == -1023) return log2(x * 18014398509481984) - 54
  let mantissa = reinterpret<f64>((bits & 0x000fffffffffffff) | 0x3ff0000000000000)
  if (mantissa > 1.4142135623730951) {
    mantissa /= 2
    exponent++
  }
  const z = (mantissa - 1) / (mantissa + 1)
  const zz = z * z
  let sum: f64 = 1.0 / 23.0
  for (let n: f64 = 21; n >= 1; n -= 2) sum = 1 / n + zz * sum
  return <f64>exponent + 2 * z * sum * INVERSE_LN2
}

/** The gain of so many dB. */
export function dbToGain(db: f64): f64 {
  return db == 0 ? 1 : exp2(db * 0.16609640474436813)
}

/** The frequency ratio of so many cents. */
export function centsToRatio(cents: f64): f64 {
  return cents == 0 ? 1 : exp2(cents / 1200)
}

/** Sine of `x` radians. */
export function sin(x: f64): f64 {
  const quarter = floor<f64>(x / HALF_PI + 0.5)
  const t = x - quarter * HALF_PI
  const tt = t * t
  const turn = <i32>quarter
  let sum: f64
  if ((turn & 1) != 0) {
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
  return (turn & 2) != 0 ? -sum : sum
}

/** Tangent of 0..1.5 radians, for filter coefficients. */
export function tan(x: f64): f64 {
  return sin(x) / sin(x + HALF_PI)
}
