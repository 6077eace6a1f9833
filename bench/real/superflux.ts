import FFT from 'fft.js'

const FRAME_SECONDS = 2048 / 44100
const HOPS_PER_SECOND = 200
const BANDS_PER_OCTAVE = 24
const LOWEST_HZ = 27.5
const HIGHEST_HZ = 16000

/**
 * Spectral flux with a maximum filter over neighbouring bands, which suppresses vibrato: S. Böck and G. Widmer, "Maximum
 * filter vibrato suppression for onset detection" (DAFx 2013). Frames of 46 ms, 200 a second, quarter tones from 27.5 Hz
 * to 16 kHz, logarithmic magnitudes, the difference taken over half a frame's overlap.
 */
export function superFlux(samples: Float32Array, sampleRateHz: number): Float64Array {
  const size = 2 ** Math.round(Math.log2(FRAME_SECONDS * sampleRateHz))
  const hop = sampleRateHz / HOPS_PER_SECOND
  const frames = Math.ceil(samples.length / hop)
  const fft = new FFT(size)
  const window = Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size))
  const filters = quarterTones(size, sampleRateHz)
  const input = new Float64Array(size)
  const out = new Float64Array(2 * size)
  const spectra: Float64Array[] = []
  for (let frame = 0; frame < frames; frame++) {
    const from = Math.round(frame * hop) - size / 2
    for (let i = 0; i < size; i++) input[i] = (samples[from + i] ?? 0) * window[i]
    fft.realTransform(out as unknown as number[], input)
    spectra.push(
      Float64Array.from(filters, (filter) => {
        let sum = 0
        for (const [bin, weight] of filter) sum += weight * Math.hypot(out[2 * bin], out[2 * bin + 1])
        return Math.log10(sum + 1)
      }),
    )
  }
  const lag = Math.max(1, Math.round((size / 2 - window.findIndex((value) => value > 0.5)) / hop))
  return Float64Array.from(spectra, (spectrum, frame) => {
    const before = spectra[frame - lag]
    if (!before) return 0
    let flux = 0
    for (let band = 0; band < spectrum.length; band++) {
      const most = Math.max(before[band - 1] ?? 0, before[band], before[band + 1] ?? 0)
      flux += Math.max(0, spectrum[band] - most)
    }
    return flux
  })
}

/** Triangles a quarter tone apart; where bins are wider than that, each bin once. */
function quarterTones(size: number, sampleRateHz: number): (readonly [bin: number, weight: number])[][] {
  const bins: number[] = []
  for (let hz = LOWEST_HZ; hz <= Math.min(HIGHEST_HZ, sampleRateHz / 2); hz *= 2 ** (1 / BANDS_PER_OCTAVE)) {
    const bin = Math.round((hz * size) / sampleRateHz)
    if (bin > (bins[bins.length - 1] ?? 0)) bins.push(bin)
  }
  return bins.slice(1, -1).map((middle, i) => {
    const [low, high] = [bins[i], bins[i + 2]]
    const filter: (readonly [number, number])[] = []
    for (let bin = low + 1; bin < high; bin++)
      filter.push([bin, bin <= middle ? (bin - low) / (middle - low) : (high - bin) / (high - middle)])
    return filter
  })
}

/** Peaks of the flux that are the highest within 30 ms and stand over the mean of 100 ms before and 70 ms after by `delta`; none within 30 ms of another. */
export function superFluxOnsets(flux: Float64Array, delta: number): number[] {
  const [around, before, after] = [0.03, 0.1, 0.07].map((seconds) => Math.round(seconds * HOPS_PER_SECOND))
  const onsets: number[] = []
  for (let i = 0; i < flux.length; i++) {
    let most = 0
    for (let j = Math.max(0, i - around); j <= Math.min(flux.length - 1, i + around); j++) most = Math.max(most, flux[j])
    let sum = 0
    let count = 0
    for (let j = Math.max(0, i - before); j <= Math.min(flux.length - 1, i + after); j++, count++) sum += flux[j]
    const last = onsets[onsets.length - 1]
    if (flux[i] === most && flux[i] >= sum / count + delta && (last === undefined || i - last > around)) onsets.push(i)
  }
  return onsets.map((frame) => frame / HOPS_PER_SECOND)
}
