import { strikesWithin } from '../slices/find'
import { createStft } from './stft'
import { madeStrike, noiseOf, RATE } from './testing'
import { workMatter } from './work'

const time = (values: Record<string, number>) => ({ id: 't', kind: 'time' as const, values, bypass: false })

/** Two bars of strikes that ring into each other, with room noise under them, and where they begin. */
function aLoop(seed: number) {
  const step = Math.round(RATE * (0.19 + 0.02 * seed))
  const starts = [0, 1, 2, 3, 5, 6, 7].map((place) => 600 + place * step)
  const room = noiseOf(600 + 8 * step, seed)
  const samples = room.map((sample) => 0.0003 * sample)
  starts.forEach((start, i) => {
    const strike = madeStrike({ hz: [70, 900, 240][i % 3]!, seconds: [0.5, 0.1, 0.25][i % 3]!, noise: 0.5, seed: 10 * seed + i })
    for (let at = 0; at < strike.length && start + at < samples.length; at++) samples[start + at]! += 0.6 * strike[at]!
  })
  return { samples, starts }
}

test.each([50, 66.7, 80, 120, 150, 200])('a sliced loop at %d %% of its tempo has each strike once, in time', (percent) => {
  for (const seed of [1, 2, 3]) {
    const { samples, starts } = aLoop(seed)
    const seconds = samples.length / RATE
    // As many beats as it has at 120; the kit goes at another tempo.
    const tempoBpm = (120 * percent) / 100
    const result = workMatter({ audio: { sampleRateHz: RATE, channels: [samples] }, startFrame: 0, steps: [time({ beats: 2 * seconds })], tempoBpm, strikes: starts }) // prettier-ignore
    if (!result.ok) throw new Error(result.message)
    const [out] = result.audio.channels
    const ratio = 100 / percent
    expect(Math.abs(out!.length - samples.length * ratio)).toBeLessThan(2)
    // Judged by what finds strikes in recordings, which knows nothing of how it was worked.
    const found = strikesWithin(result.audio, { startFrame: 0, endFrame: out!.length })
    const wanted = strikesWithin({ sampleRateHz: RATE, channels: [samples] }, { startFrame: 0, endFrame: samples.length })
    expect(wanted).toHaveLength(starts.length)
    expect(found).toHaveLength(starts.length)
    found.forEach((frame, i) => expect(Math.abs(frame - starts[i]! * ratio)).toBeLessThan(0.005 * RATE))
  }
})

/** How alike the powers of bins are a while apart, the mean over bins: what wavers slowly stays alike. */
function staysAlike(samples: Float32Array, frames: number): number {
  const stft = createStft(1024)
  const spectrum = new Float64Array(2 * stft.bins)
  const rows: Float64Array[] = []
  for (let centre = 4096; centre < samples.length - 4096; centre += 256) {
    stft.forward(samples, centre, spectrum)
    rows.push(Float64Array.from({ length: stft.bins }, (_, bin) => Math.log(spectrum[2 * bin]! ** 2 + spectrum[2 * bin + 1]! ** 2 + 1e-12)))
  }
  let [sum, count] = [0, 0]
  for (let bin = 40; bin < 400; bin += 3) {
    const row = rows.map((powers) => powers[bin]!)
    const mean = row.reduce((all, power) => all + power, 0) / row.length
    let [both, own] = [0, 0]
    for (let i = 0; i + frames < row.length; i++) {
      both += (row[i]! - mean) * (row[i + frames]! - mean)
      own += (row[i]! - mean) ** 2
    }
    sum += both / own
    count++
  }
  return sum / count
}

describe('noise made anew', () => {
  const stretched = (channels: Float32Array[], percent: number, freshNoise: number, draw = 0) => {
    const result = workMatter({ audio: { sampleRateHz: RATE, channels }, startFrame: 0, steps: [time({ lengthPercent: percent, freshNoise, draw })], tempoBpm: 120 }) // prettier-ignore
    if (!result.ok) throw new Error(result.message)
    return result.audio.channels
  }
  const level = (samples: Float32Array) => Math.sqrt(samples.reduce((sum, sample) => sum + sample ** 2, 0) / samples.length)

  test.each([200, 400])('wavers as fast as it did at %i %% of its length, and is as loud', (percent) => {
    const noise = noiseOf(RATE, 5).map((sample) => 0.2 * sample)
    expect(Math.abs(staysAlike(noise, 4))).toBeLessThan(0.06)
    const [slow] = stretched([noise], percent, 0)
    const [fresh] = stretched([noise], percent, 1)
    expect(staysAlike(slow!, 4)).toBeGreaterThan(0.1)
    expect(Math.abs(staysAlike(fresh!, 4))).toBeLessThan(0.06)
    expect(Math.abs(20 * Math.log10(level(fresh!) / level(noise)))).toBeLessThan(0.7)
  })

  test('leaves a tone in it what it was: as loud, as high, as long', () => {
    const noise = noiseOf(RATE, 6)
    const tone = (i: number) => 0.3 * Math.sin((2 * Math.PI * 440 * i) / RATE)
    const [out] = stretched([noise.map((sample, i) => 0.02 * sample + tone(i))], 300, 1)
    let [re, im] = [0, 0]
    const [from, to] = [RATE, 2 * RATE]
    for (let i = from; i < to; i++) {
      re += out![i]! * Math.cos((2 * Math.PI * 440 * i) / RATE)
      im += out![i]! * Math.sin((2 * Math.PI * 440 * i) / RATE)
    }
    const found = (2 * Math.hypot(re, im)) / (to - from)
    expect(Math.abs(20 * Math.log10(found / 0.3))).toBeLessThan(0.5)
  })

  test('is another one with each draw, and leaves the attack as it was', () => {
    const strike = madeStrike({ hz: 300, seconds: 0.4, noise: 0.6, seed: 4 })
    const [one, other] = [stretched([strike], 200, 1, 1)[0]!, stretched([strike], 200, 1, 2)[0]!]
    expect(one).not.toEqual(other)
    for (let i = 0; i < 190; i++) expect(one[i]).toBeCloseTo(strike[i]!, 5)
    expect(stretched([strike], 200, 1, 1)[0]).toEqual(one)
  })
})
