import type { Audio } from './audio'

export interface StereoReading {
  /** Pearson's coefficient of the first two channels without their means' removal, -1..1; 1 for two equal or silent ones. */
  readonly correlation: number
  /** Level of the mean of both against the mean level of each, dB; 0 for equal channels, far below where they cancel. */
  readonly midLossDb: number
}

/** More than this lost in the mean of left and right is worth a warning. */
export const MID_WARNING_DB = -6

/** How alike left and right are, and what their mean would lose; undefined for one channel. */
export function readStereo(audio: Audio): StereoReading | undefined {
  const [left, right] = audio.channels
  if (!left || !right) return undefined
  let product = 0
  let leftPower = 0
  let rightPower = 0
  for (let i = 0; i < left.length; i++) {
    product += left[i] * right[i]
    leftPower += left[i] * left[i]
    rightPower += right[i] * right[i]
  }
  const size = Math.sqrt(leftPower * rightPower)
  const power = (leftPower + rightPower) / 2
  const midPower = Math.max(0, (leftPower + rightPower + 2 * product) / 4)
  return {
    correlation: size > 0 ? Math.max(-1, Math.min(1, product / size)) : power > 0 ? 0 : 1,
    midLossDb: power > 0 ? Math.max(-120, 10 * Math.log10(midPower / power)) : 0,
  }
}
