import { getLine, putLine } from '../../../voice/both/cells'
import { TURNS } from './sizes'

/** The discrete Fourier transform of `size` complex numbers in place (J. W. Cooley, J. W. Tukey, 1965). */
export function transform(turns: i32, re: i32, im: i32, size: i32): void {
  for (let i = 1, j = 0; i < size; i++) {
    let bit = size >> 1
    for (; (j & bit) !== 0; bit >>= 1) j ^= bit
    j ^= bit
    if (i >= j) continue
    swap(re + i, re + j)
    swap(im + i, im + j)
  }
  for (let span = 2; span <= size; span <<= 1) {
    const half = span >> 1
    const stride = TURNS / span
    for (let from = 0; from < size; from += span)
      for (let k = 0; k < half; k++) {
        const c = getLine(turns + k * stride)
        const s = getLine(turns + TURNS / 2 + k * stride)
        const at = from + k
        const oneRe = getLine(re + at)
        const oneIm = getLine(im + at)
        const otherRe = getLine(re + at + half) * c + getLine(im + at + half) * s
        const otherIm = getLine(im + at + half) * c - getLine(re + at + half) * s
        putLine(re + at, oneRe + otherRe)
        putLine(im + at, oneIm + otherIm)
        putLine(re + at + half, oneRe - otherRe)
        putLine(im + at + half, oneIm - otherIm)
      }
  }
}

function swap(one: i32, other: i32): void {
  const kept = getLine(one)
  putLine(one, getLine(other))
  putLine(other, kept)
}
