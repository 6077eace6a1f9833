const MS = 0.001
/** A strike stands out of the mean of so long before it by so much, and is at most so far below the loudest. */
const BEFORE_MS = 30
const OVER = 6
const UNDER_LOUDEST = 0.003
const GAP_MS = 40
/** A strike begins so long before it stands out, at most, where it is this share of its height and so much over what was before. */
const BACK_MS = 8
const BEGIN_SHARE = 0.01
const OVER_BEFORE = 2.5

/**
 * Frames at which a sound is struck: where what changes fast (the difference of samples, which leaves deep tones out) rises
 * out of what was before within a millisecond or two. A sound that begins at once is struck at frame 0.
 */
export function findAttacks(channels: readonly Float32Array[], sampleRateHz: number): number[] {
  const length = channels[0]?.length ?? 0
  const hop = Math.max(1, Math.round(MS * sampleRateHz))
  const levels = new Float64Array(Math.ceil(length / hop))
  for (const channel of channels)
    for (let i = 1; i < length; i++) levels[Math.floor(i / hop)]! += (channel[i]! - channel[i - 1]!) ** 2 + 0.001 * channel[i]! ** 2
  const loudest = levels.reduce((most, level) => Math.max(most, level), 0)
  if (loudest === 0) return []
  const attacks: number[] = []
  let last = -GAP_MS
  for (let at = 0; at < levels.length; at++) {
    const strike = levels[at]! + (levels[at + 1] ?? 0)
    if (at - last < GAP_MS || strike < 2 * UNDER_LOUDEST * loudest) continue
    const from = Math.max(0, at - BEFORE_MS)
    let before = 0
    for (let i = from; i < at; i++) before += levels[i]!
    before = at > from ? before / (at - from) : 0
    if (strike < 2 * OVER * before) continue
    last = at
    attacks.push(beginOf(channels, at * hop, hop, attacks.at(-1) ?? 0))
  }
  return attacks
}

/** The first frame of what reaches its height around `at`. */
function beginOf(channels: readonly Float32Array[], at: number, hop: number, earliest: number): number {
  const length = channels[0]!.length
  const sizeOf = (frame: number) => Math.max(...channels.map((channel) => Math.abs(channel[frame] ?? 0)))
  const most = (from: number, to: number) => {
    let size = 0
    for (let frame = Math.max(0, from); frame < Math.min(length, to); frame++) size = Math.max(size, sizeOf(frame))
    return size
  }
  const from = Math.max(earliest, at - BACK_MS * hop)
  const before = Math.max(0, from - 2 * BACK_MS * hop)
  const threshold = Math.max(BEGIN_SHARE * most(at, at + 2 * hop), OVER_BEFORE * most(before, from))
  let begin = at
  for (let frame = Math.min(length - 1, at + 2 * hop); frame >= from; frame--) if (sizeOf(frame) >= threshold) begin = frame
  return begin
}
