declare module 'fft.js' {
  export default class FFT {
    constructor(size: number)
    createComplexArray(): number[]
    completeSpectrum(spectrum: number[]): void
    transform(out: number[], input: ArrayLike<number>): void
    inverseTransform(out: number[], input: ArrayLike<number>): void
    realTransform(out: number[], input: ArrayLike<number>): void
  }
}
