import { padSettings } from '@heliaster/core/kit'
import type { Kit, KitEdit, Pad } from '@heliaster/core/kit'

import { padName } from '../../../kit-view/use-kit'
import type { HidingPads } from './measure-mix'

/** Something that lets be heard what is hidden: in words, and what it changes. */
export interface Offer {
  readonly words: string
  readonly edits: readonly KitEdit[]
}

/** Larger moves than these are not offered. */
const MOST_DIP_DB = 12
const MOST_LEVEL_DB = 6
const TUNE_CENTS = 300

const hz = (value: number): string => (value < 1000 ? `${Math.round(value / 5) * 5} Hz` : `${(value / 1000).toFixed(1)} kHz`)
export const rangeWords = ({ fromHz, toHz }: Pick<HidingPads, 'fromHz' | 'toHz'>): string => {
  const [from, to] = [hz(fromHz), hz(toHz)]
  if (from === to) return `around ${from}`
  const [number, unit] = from.split(' ')
  return to.endsWith(` ${unit}`) ? `from ${number} to ${to}` : `from ${from} to ${to}`
}

export const nameOf = (kit: Kit, one: Pad | 'song'): string => (one === 'song' ? 'the song' : padName(kit, one))
const firstUp = (words: string) => words[0]!.toUpperCase() + words.slice(1)

/** Who hides whom, where and by how much. */
export function hidingWords(kit: Kit, one: HidingPads): string {
  return `${firstUp(nameOf(kit, one.by))} hides ${nameOf(kit, one.whom)} ${rangeWords(one)} by ${Math.round(one.byDb)} dB.`
}

/** What can be done: a dip in what hides, a level, a tune; what stands in the song is not ours to change. */
export function offersFor(kit: Kit, { by, whom, fromHz, toHz, byDb }: HidingPads): Offer[] {
  const offers: Offer[] = []
  const dip = Math.round(Math.min(MOST_DIP_DB, byDb))
  if (by !== 'song' && padSettings(kit, by).choices.filter2Kind === 'off') {
    const centre = Math.sqrt(fromHz * toHz)
    const damping = Math.min(2, Math.max(0.1, (toHz - fromHz) / centre))
    const own: Pad['own'] = { choices: { filter2Kind: 'peak', filter2Slope: '12' }, values: { filter2CutoffHz: Math.round(centre), filter2GainDb: -dip, filter2Damping: damping } } // prettier-ignore
    offers.push({
      words: `Take ${dip} dB out of ${padName(kit, by)} ${rangeWords({ fromHz, toHz })}`,
      edits: [{ type: 'setPad', padId: by.id, own }],
    })
  }
  const louder = Math.round(Math.min(MOST_LEVEL_DB, byDb))
  if (whom !== 'song') offers.push({ words: `Raise ${padName(kit, whom)} by ${louder} dB`, edits: [levelEdit(kit, whom, louder)] })
  else if (by !== 'song') offers.push({ words: `Lower ${padName(kit, by)} by ${louder} dB`, edits: [levelEdit(kit, by, -louder)] })
  const tuned = whom !== 'song' ? whom : by
  if (tuned !== 'song') {
    const { tuneCents } = padSettings(kit, tuned).values
    offers.push({ words: `Tune ${padName(kit, tuned)} up by ${TUNE_CENTS / 100} semitones`, edits: [{ type: 'setPad', padId: tuned.id, own: { values: { tuneCents: tuneCents + TUNE_CENTS } } }] }) // prettier-ignore
  }
  return offers
}

/** A level moved, held where levels go. */
export function levelEdit(kit: Kit, pad: Pad, byDb: number): KitEdit {
  const gainDb = Math.round(10 * Math.min(24, Math.max(-48, padSettings(kit, pad).values.gainDb + byDb))) / 10
  return { type: 'setPad', padId: pad.id, own: { values: { gainDb } } }
}
