/** A plain reading of SFZ for tests: what a region says, and what a strike makes of all of them. Written from the opcodes alone. */
export type Opcodes = ReadonlyMap<string, string>

export function readSfz(text: string): Opcodes[] {
  const regions: Map<string, string>[] = []
  const levels: Record<string, Map<string, string>> = { control: new Map(), global: new Map(), group: new Map() }
  let at: Map<string, string> | undefined
  for (const line of text.split('\n')) {
    const header = /^<(\w+)>$/.exec(line)?.[1]
    if (header === 'region') {
      at = new Map([...levels.global, ...levels.group])
      regions.push(at)
    } else if (header) {
      if (header === 'global') levels.group = new Map()
      at = levels[header] = new Map()
    } else if (at && line !== '' && !line.startsWith('//')) at.set(line.slice(0, line.indexOf('=')), line.slice(line.indexOf('=') + 1))
  }
  return regions
}

export function value(region: Opcodes, name: string, otherwise: number): number {
  return region.has(name) ? Number(region.get(name)) : otherwise
}

/** The regions of one strike, `strikes` of the same kind having come before it. */
export function regionsOfStrike(regions: readonly Opcodes[], note: number, velocity: number, strikes = 0): Opcodes[] {
  return regions.filter((region) => {
    if (value(region, 'key', -1) !== note) return false
    if (velocity < value(region, 'lovel', 0) || velocity > value(region, 'hivel', 127)) return false
    return strikes % value(region, 'seq_length', 1) === value(region, 'seq_position', 1) - 1
  })
}

/** Gains left and right, linear. */
export function gainsOf(region: Opcodes, velocity: number): [number, number] {
  const angle = ((value(region, 'pan', 0) / 100 + 1) * Math.PI) / 4
  const gain = 10 ** (value(region, 'volume', 0) / 20) * curve(region, velocity) * fades(region, velocity)
  const sign = region.get('phase') === 'invert' ? -1 : 1
  return [sign * gain * Math.SQRT2 * Math.cos(angle), sign * gain * Math.SQRT2 * Math.sin(angle)]
}

function curve(region: Opcodes, velocity: number): number {
  if (value(region, 'amp_veltrack', 100) === 0) return 1
  const points = [...region].flatMap(([name, gain]) => (name.startsWith('amp_velcurve_') ? [[Number(name.slice(13)), Number(gain)]] : []))
  const above = points.findIndex(([at]) => at >= velocity)
  if (above <= 0) return points[Math.max(0, above)][1]
  const [[v0, g0], [v1, g1]] = [points[above - 1], points[above]]
  return g0 + ((g1 - g0) * (velocity - v0)) / (v1 - v0)
}

function fades(region: Opcodes, velocity: number): number {
  const law = (share: number) => (region.get('xf_velcurve') === 'gain' ? share : Math.sqrt(share))
  const within = (from: number, to: number) =>
    to > from ? Math.max(0, Math.min(1, (velocity - from) / (to - from))) : velocity >= to ? 1 : 0
  const into = region.has('xfin_lovel') ? law(within(value(region, 'xfin_lovel', 0), value(region, 'xfin_hivel', 0))) : 1
  const out = region.has('xfout_lovel') ? law(1 - within(value(region, 'xfout_lovel', 0), value(region, 'xfout_hivel', 0))) : 1
  return into * out
}

/** What a held note of a region plays of its file's channel, `frames` long: round and round between its loop's points, the last included. */
export function heldSamples(region: Opcodes, samples: Float32Array, frames: number): Float32Array {
  const isLooped = region.get('loop_mode') === 'loop_continuous'
  const [start, end] = [value(region, 'loop_start', 0), value(region, 'loop_end', samples.length - 1)]
  let at = 0
  return Float32Array.from({ length: frames }, () => {
    const sample = samples[at] ?? 0
    at = isLooped && at === end ? start : at + 1
    return sample
  })
}
