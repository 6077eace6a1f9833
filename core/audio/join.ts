/** Stretches of samples one behind the other. */
export function joined(parts: readonly Float32Array[]): Float32Array {
  const all = new Float32Array(parts.reduce((sum, part) => sum + part.length, 0))
  parts.reduce((at, part) => (all.set(part, at), at + part.length), 0)
  return all
}

/** How many frames there are up to the last one that is not silent on every channel; at least 1. */
export function soundingFrames(channels: readonly Float32Array[]): number {
  let end = channels[0].length
  while (end > 1 && channels.every((channel) => channel[end - 1] === 0)) end--
  return end
}
