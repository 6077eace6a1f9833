import FFT from 'fft.js'

/** How many samples are looked at. */
export const SPECTRUM_SPAN = 16384
/** Bins to each side of a sine that are its own. */
const LOBE_BINS = 14
const BETA = 20

/** A window whose side lobes lie 150 dB down (Kaiser's). */
const window = Float64Array.from({ length: SPECTRUM_SPAN }, (_, i) => {
  const share = (i - SPECTRUM_SPAN / 2 + 0.5) / (SPECTRUM_SPAN / 2)
  return bessel(BETA * Math.sqrt(1 - share * share))
})
const windowSum = window.reduce((sum, one) => sum + one, 0)

function bessel(x: number): number {
  let [sum, term] = [1, 1]
  for (let k = 1; k < 80; k++) sum += term *= (x / 2 / k) ** 2
  return sum
}

/**
 * What `SPECTRUM_SPAN` samples hold beside a sine of `hz`: the highest of it below 20 kHz, and the level of the sine itself,
 * both in dB against a sine of amplitude 1. A sine above half the rate is nowhere, and all that is found is unwanted.
 */
export function besideSine(samples: ArrayLike<number>, hz: number, rateHz: number): { unwantedDb: number; levelDb: number } {
  const fft = new FFT(SPECTRUM_SPAN)
  const bins = fft.createComplexArray()
  const windowed = Float64Array.from(window, (one, i) => one * samples[i])
  fft.realTransform(bins, windowed)
  let worst = 0
  for (let bin = 1; bin < Math.min(SPECTRUM_SPAN / 2, (20000 * SPECTRUM_SPAN) / rateHz); bin++)
    if (Math.abs(bin - (hz * SPECTRUM_SPAN) / rateHz) > LOBE_BINS) worst = Math.max(worst, Math.hypot(bins[2 * bin], bins[2 * bin + 1]))
  let [real, imaginary] = [0, 0]
  windowed.forEach((sample, i) => {
    real += sample * Math.cos((2 * Math.PI * hz * i) / rateHz)
    imaginary += sample * Math.sin((2 * Math.PI * hz * i) / rateHz)
  })
  const dB = (height: number) => 20 * Math.log10((2 * height) / windowSum + 1e-20)
  return { unwantedDb: dB(worst), levelDb: dB(Math.hypot(real, imaginary)) }
}
