import { familyWords } from '../kit/families'
import type { Family } from '../kit/families'

/** Words of the trade for what something is; all that are named together must stand in a name. The first that fits counts. */
const WORDS: readonly (readonly [family: Family, ...needs: RegExp[]])[] = [
  ['openHat', /^(hi ?hat|hihat|hat|hats|hh|ohh)$/, /^(open|opened|ohh|loose|half)$/],
  ['openHat', /^ohh?$/],
  ['closedHat', /^(hi ?hat|hihat|hat|hats|hh|chh)$/, /^(closed|close|cl|pedal|foot|tight)$/],
  ['closedHat', /^(chh|ch)$/],
  ['hat', /^(hihat|hat|hats|hh)$/],
  ['lowTom', /^(tom|toms)$/, /^(low|lo|floor|large|big|deep)$/],
  ['midTom', /^(tom|toms)$/, /^(mid|middle|medium)$/],
  ['highTom', /^(tom|toms)$/, /^(high|hi|small|rack)$/],
  ['tom', /^(tom|toms)$/],
  ['bell', /^(ride)$/, /^(bell|cup)$/],
  ['ride', /^(ride|rides)$/],
  ['crash', /^(crash|crashes)$/],
  ['splash', /^(splash|splashes)$/],
  ['cymbal', /^(cymbal|cymbals|cym|china)$/],
  ['kick', /^(kick|kicks|bd|kik)$/],
  ['kick', /^bass$/, /^drum$/],
  ['snare', /^(snare|snares|sd|sidestick|rimshot)$/],
  ['clap', /^(clap|claps)$/],
  ['shaker', /^(shaker|shakers|tambourine|maracas|cabasa)$/],
  ['bell', /^(bell|bells|cowbell|agogo|triangle)$/],
  ['wood', /^(wood|woodblock|clave|claves|block)$/],
] // prettier-ignore

/** What a name says that something is, in the trade's words; nothing where it says none. */
export function familyInName(name: string): Family | undefined {
  const parts = name
    .replace(/\.\w{2,4}$/, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .replace(/hi[-_ ]hat/g, 'hihat')
    .split(/[^a-z]+/)
  return WORDS.find(([, ...needs]) => needs.every((need) => parts.some((part) => need.test(part))))?.[0]
}

/** The kind that someone types: its own words, the trade's, or how it begins; nothing where it is none. */
export function familyTyped(typed: string, among: readonly Family[]): Family | undefined {
  const wanted = typed.trim().toLowerCase()
  if (!wanted) return undefined
  return among.find((one) => familyWords(one) === wanted) ?? familyInName(wanted) ?? among.find((one) => familyWords(one).includes(wanted))
}
