import type { Biquad } from './biquad'
import { kWeighting } from './loudness'

/** What a mix measures. Loudness in LUFS, levels in dB of full scale, -Infinity in silence; correlation -1 to 1, 0 in silence. */
export interface MixReading {
  /** Of the last 400 ms, of the last 3 s, and of all since the meter began, gated (ITU-R BS.1770-5; EBU Tech 3341). */
  readonly momentary: number
  readonly short: number
  readonly integrated: number
  /** The highest since the last reading: of samples, and of what lies between them. */
  readonly peakDb: number
  readonly truePeakDb: number
  /** Over the last 400 ms. */
  readonly rmsDb: number
  readonly correlation: number
}

/** A meter over two channels, in runs of any length. */
export interface MixMeter {
  add(left: ArrayLike<number>, right: ArrayLike<number>, count: number): void
  read(): MixReading
  /** Forgets what `integrated` is of. */
  begin(): void
}

const STEP_SECONDS = 0.1
const MOMENTARY_STEPS = 4
const SHORT_STEPS = 30
/** Below this nothing counts, and what is so much softer than the rest neither. */
const GATE_LUFS = -70
const RELATIVE_LU = 10
const OFFSET_DB = -0.691
/** Blocks are counted by their loudness, in classes of a tenth of a LU. */
const CLASS_LU = 0.1
const CLASSES = 900

/** A meter at a rate in Hz. It keeps no more for an hour than for a second. */
export function createMixMeter(sampleRateHz: number): MixMeter {
  const stepFrames = Math.round(STEP_SECONDS * sampleRateHz)
  const sides = [createSide(sampleRateHz), createSide(sampleRateHz)]
  const steps: Step[] = []
  let now = emptyStep()
  let filled = 0
  let [peak, truePeak] = [0, 0]
  const counts = new Float64Array(CLASSES)
  const powers = new Float64Array(CLASSES)

  function endStep(): void {
    steps.push(now)
    if (steps.length > SHORT_STEPS) steps.shift()
    now = emptyStep()
    filled = 0
    if (steps.length < MOMENTARY_STEPS) return
    const power = mean(steps.slice(-MOMENTARY_STEPS), 'weighted', stepFrames)
    const at = Math.floor((loudnessOf(power) - GATE_LUFS) / CLASS_LU)
    if (at < 0) return
    counts[Math.min(CLASSES - 1, at)]++
    powers[Math.min(CLASSES - 1, at)] += power
  }

  return {
    add(left, right, count) {
      for (let i = 0; i < count; i++) {
        const [l, r] = [left[i]!, right[i]!]
        now.weighted += sides[0]!.weighted(l) + sides[1]!.weighted(r)
        now.left += l * l
        now.right += r * r
        now.both += l * r
        peak = Math.max(peak, Math.abs(l), Math.abs(r))
        truePeak = Math.max(sides[0]!.highest(l, truePeak), sides[1]!.highest(r, truePeak), truePeak)
        if (++filled === stepFrames) endStep()
      }
    },
    read() {
      const last = steps.slice(-MOMENTARY_STEPS)
      const [left, right, both] = (['left', 'right', 'both'] as const).map((of) => mean(last, of, stepFrames)) as [number, number, number]
      const reading: MixReading = {
        momentary: loudnessOf(mean(last, 'weighted', stepFrames)),
        short: loudnessOf(mean(steps, 'weighted', stepFrames)),
        integrated: integratedOf(counts, powers),
        peakDb: 20 * Math.log10(peak),
        truePeakDb: 20 * Math.log10(Math.max(peak, truePeak)),
        rmsDb: 10 * Math.log10((left + right) / 2),
        correlation: left * right > 0 ? both / Math.sqrt(left * right) : 0,
      }
      peak = truePeak = 0
      return reading
    },
    begin() {
      counts.fill(0)
      powers.fill(0)
    },
  }
}

interface Step {
  weighted: number
  left: number
  right: number
  both: number
}
const emptyStep = (): Step => ({ weighted: 0, left: 0, right: 0, both: 0 })

function mean(steps: readonly Step[], of: keyof Step, stepFrames: number): number {
  return steps.length === 0 ? 0 : steps.reduce((sum, step) => sum + step[of], 0) / (steps.length * stepFrames)
}

const loudnessOf = (power: number): number => OFFSET_DB + 10 * Math.log10(power)

/** The mean of all blocks that are louder than 10 LU under the mean of those above -70. */
function integratedOf(counts: Float64Array, powers: Float64Array): number {
  const over = (from: number) => {
    let [count, power] = [0, 0]
    for (let i = Math.max(0, from); i < CLASSES; i++) {
      count += counts[i]!
      power += powers[i]!
    }
    return count === 0 ? -Infinity : loudnessOf(power / count)
  }
  const all = over(0)
  return all === -Infinity ? all : over(Math.floor((all - RELATIVE_LU - GATE_LUFS) / CLASS_LU))
}

/** Samples between samples: eight for one, from 24 around (windowed sincs; J. F. Kaiser, 1974). */
const PHASES = 8
const TAPS = 24
/** Where both samples beside a place are so far below what was found already, it is not looked at. */
const NEAR = 0.3
const between = new Float64Array((PHASES - 1) * TAPS)
for (let phase = 0; phase < PHASES - 1; phase++) {
  let sum = 0
  for (let k = 0; k < TAPS; k++) {
    const away = k - (TAPS / 2 - 1) - (phase + 1) / PHASES
    const share = away / (TAPS / 2)
    between[phase * TAPS + k] = (Math.sin(Math.PI * away) / (Math.PI * away)) * besselI0(6 * Math.sqrt(Math.max(0, 1 - share * share)))
    sum += between[phase * TAPS + k]!
  }
  for (let k = 0; k < TAPS; k++) between[phase * TAPS + k] = between[phase * TAPS + k]! / sum
}

function besselI0(x: number): number {
  let [sum, term] = [1, 1]
  for (let k = 1; k < 40; k++) sum += term *= (x / 2 / k) ** 2
  return sum
}

function createSide(sampleRateHz: number) {
  const [shelf, pass] = kWeighting(sampleRateHz).map(createSection) as [(x: number) => number, (x: number) => number]
  const past = new Float64Array(2 * TAPS)
  let at = 0
  return {
    /** The square of a sample as it is heard. */
    weighted: (sample: number): number => pass(shelf(sample)) ** 2,
    /** The highest of what lies between two samples, where that can be above what was found already. */
    highest(sample: number, found: number): number {
      past[at] = past[at + TAPS] = sample
      at = (at + 1) % TAPS
      let most = 0
      if (Math.max(Math.abs(past[at + TAPS / 2 - 1]!), Math.abs(past[at + TAPS / 2]!)) < NEAR * found) return most
      for (let from = 0; from < between.length; from += TAPS) {
        let sum = 0
        for (let k = 0; k < TAPS; k++) sum += between[from + k]! * past[at + k]!
        most = Math.max(most, Math.abs(sum))
      }
      return most
    },
  }
}

function createSection({ b0, b1, b2, a1, a2 }: Biquad): (x: number) => number {
  let [one, two] = [0, 0]
  return (x) => {
    const y = b0 * x + one
    one = b1 * x - a1 * y + two
    two = b2 * x - a2 * y
    if (Math.abs(one) < 1e-20) one = 0
    if (Math.abs(two) < 1e-20) two = 0
    return y
  }
}
