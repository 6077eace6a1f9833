import type { Parameter } from '../../../kit/parameters'
import { envelopeAt } from './envelope'
import { held, RATE } from './terms'
import type { Sides } from './terms'
import type { Voice } from './voice'

export function filter(voice: Voice, name: 'filter1' | 'filter2', sides: Sides, late: number): void {
  const { values, choices, envelopes } = voice.shape
  const at = (param: Parameter, base: number, t: number) => base + voice.settled(param) + voice.moved(param, t - late)
  const cutoff = (t: number) => {
    const reach = at(`${name}EnvelopeCents`, values[`${name}EnvelopeCents`], t)
    const cents = at(`${name}CutoffHz`, 0, t) + (envelopeAt(envelopes[name], t, voice.otherScale) ?? 0) * reach
    return values[`${name}CutoffHz`] * 2 ** (held(cents, -24000, 24000) / 1200)
  }
  const damping = (t: number) => at(`${name}Damping`, held(values[`${name}Damping`], 0.05, 2), t)
  const kind = choices[`${name}Kind`] as PassKind
  passes(sides, kind, choices[`${name}Slope`] === '24' ? 2 : 1, cutoff, damping)
}

type PassKind = 'lowPass' | 'highPass' | 'bandPass' | 'notch'

/** The trapezoidal state variable filter, its coefficients anew for each sample. */
export function passes(
  sides: Sides,
  kind: PassKind,
  sections: number,
  hzAt: (t: number) => number,
  dampingAt: (t: number) => number,
): void {
  const isPair = sections === 2 && (kind === 'lowPass' || kind === 'highPass')
  const frames = sides[0].length
  const tangents = Float64Array.from({ length: frames }, (_, t) => Math.tan((Math.PI * held(hzAt(t), 5, 0.49 * RATE)) / RATE))
  const dampings = Float64Array.from({ length: frames }, (_, t) => held(dampingAt(t), 0.05, 2))
  for (const side of sides)
    for (let section = 0; section < sections; section++) {
      let [s1, s2] = [0, 0]
      for (let t = 0; t < frames; t++) {
        const pair = section === 0 ? 2 * Math.cos(Math.PI / 8) : dampings[t] * Math.SQRT2 * Math.sin(Math.PI / 8)
        const k = isPair ? pair : dampings[t]
        const g = tangents[t]
        const high = (side[t] - (g + k) * s1 - s2) / (1 + g * (g + k))
        const band = g * high + s1
        const low = g * band + s2
        s1 = g * high + band
        s2 = g * band + low
        side[t] = kind === 'lowPass' ? low : kind === 'highPass' ? high : kind === 'bandPass' ? k * band : low + high
      }
    }
}
