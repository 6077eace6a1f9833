import FFT from 'fft.js'

import { sizeAt } from './passage'
import { createStft, overlapGain } from './stft'

/** Samples of a frame at 48 kHz. */
const SIZE = 2048
const OVERLAP = 4
/** Ripples of the spectrum that are its resonances are wider than the rate over so many samples (at 48 kHz). */
const LIFTER = 90
/** ... and from this share of it on they count less and less. */
const WHOLE = 0.7
const ROUNDS = 6
const MOST_DB = 36
const FLOOR = 1e-9
/** How far it is, is told every so many frames. */
const TOLD_EVERY = 64

/**
 * A sound with its resonances at `ratio` times their frequencies and its pitch as it was: the envelope of each frame's
 * spectrum, over its partials, is moved. Source: true envelope, A. Roebel and X. Rodet, Efficient spectral envelope
 * estimation and its application to pitch shifting and envelope preservation, DAFx 2005.
 */
export function moveResonances(
  channels: readonly Float32Array[],
  sampleRateHz: number,
  ratio: number,
  told: (share: number) => void = () => undefined,
): Float32Array[] {
  const length = channels[0]?.length ?? 0
  if (ratio === 1) return channels.map((channel) => channel.slice())
  const stft = createStft(sizeAt(SIZE, sampleRateHz))
  const { size, bins } = stft
  const hop = size / OVERLAP
  const gain = overlapGain(size, hop)
  const envelopeOf = createEnvelope(size, Math.max(4, Math.round((LIFTER * size) / SIZE)))
  const spectra = channels.map(() => new Float64Array(2 * bins))
  const levels = new Float64Array(bins)
  const out = channels.map(() => new Float32Array(length))
  for (let centre = -size / 2, frame = 0; centre < length + size / 2; centre += hop, frame++) {
    if (frame % TOLD_EVERY === 0) told(Math.max(0, centre) / (length + size / 2))
    levels.fill(0)
    channels.forEach((channel, i) => {
      const spectrum = spectra[i]!
      stft.forward(channel, centre, spectrum)
      for (let bin = 0; bin < bins; bin++) levels[bin]! += spectrum[2 * bin]! ** 2 + spectrum[2 * bin + 1]! ** 2
    })
    const most = levels.reduce((a, b) => Math.max(a, b), 0)
    if (most === 0) continue
    for (let bin = 0; bin < bins; bin++) levels[bin] = 0.5 * Math.log(levels[bin]! + FLOOR * most)
    const envelope = envelopeOf(levels)
    spectra.forEach((spectrum, i) => {
      for (let bin = 0; bin < bins; bin++) {
        const moved = valueAt(envelope, bin / ratio) - envelope[bin]!
        const limit = (MOST_DB * Math.LN10) / 20
        const level = Math.exp(Math.min(limit, Math.max(-limit, moved)))
        spectrum[2 * bin]! *= level
        spectrum[2 * bin + 1]! *= level
      }
      stft.inverse(spectrum, centre, out[i]!, gain)
    })
  }
  return out
}

function valueAt(values: Float64Array, place: number): number {
  const below = Math.floor(place)
  if (below + 1 >= values.length) return values[values.length - 1]! - 12 // nothing is known up there: it fades
  return values[below]! + (values[below + 1]! - values[below]!) * (place - below)
}

/** Makes the envelope over a spectrum of log magnitudes. */
function createEnvelope(size: number, lifter: number): (levels: Float64Array) => Float64Array {
  const fft = new FFT(size)
  const half = size / 2
  const input = new Float64Array(2 * size) as unknown as number[]
  const cepstrum = new Float64Array(2 * size) as unknown as number[]
  const envelope = new Float64Array(half + 1)
  const smooth = (levels: Float64Array) => {
    for (let i = 0; i < size; i++) {
      input[2 * i] = levels[i <= half ? i : size - i]!
      input[2 * i + 1] = 0
    }
    fft.inverseTransform(cepstrum, input)
    for (let i = 0; i < size; i++) {
      const distance = Math.min(i, size - i)
      const over = Math.min(1, Math.max(0, (distance / lifter - WHOLE) / (1 - WHOLE)))
      const share = 0.5 + 0.5 * Math.cos(Math.PI * over)
      cepstrum[2 * i]! *= share
      cepstrum[2 * i + 1] = 0
    }
    fft.transform(input, cepstrum)
    for (let i = 0; i <= half; i++) envelope[i] = input[2 * i]!
  }
  return (levels) => {
    const raised = levels.slice()
    for (let round = 0; round < ROUNDS; round++) {
      smooth(raised)
      for (let i = 0; i <= half; i++) raised[i] = Math.max(levels[i]!, envelope[i]!)
    }
    return envelope
  }
}
