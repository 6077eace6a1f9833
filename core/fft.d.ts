declare module 'fft.js' {
  export default class FFT {
    constructor(size: number)
    createComplexArray(): number[]
    realTransform(out: number[], input: ArrayLike<number>): void
  }
}
