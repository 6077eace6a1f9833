import type { PadId } from '../kit/ids'
import type { Kit, Tie } from '../kit/kit'
import { USUAL_KIT_STRIKES } from '../kit/make'
import { padSettings } from '../kit/resolve'
import { inOrderOfOpening } from './lines'

/** A tie in one sentence, as it is played. */
export function tieWords(kit: Kit, tie: Tie): string {
  const name = (id: PadId) => nameOf(kit, id)
  const names = (ids: readonly PadId[]) => listed(ids.map(name))
  switch (tie.kind) {
    case 'choke':
      return `${ON_WORDS[tie.on ?? 'strike'](name(tie.from))} silences ${silenced(kit, tie)} within ${ms(tie.fadeSeconds)}${reachWords(kit, tie)}.`
    case 'chokeGroup': {
      const most = tie.maxStrikes ? `; together they sound ${strikes(tie.maxStrikes)} at once` : ''
      const each = tie.pads.length < 2 ? 'has no other pad in it yet, so it silences none' : 'silence each other'
      const itself = tie.itself ? ', and each its own strikes' : ''
      return `${tie.name}: ${names(tie.pads)} ${each} within ${ms(tie.fadeSeconds)}${itself}${reachWords(kit, tie)}${most}.`
    }
    case 'limit':
      return `${tie.name}: ${names(tie.pads)} together sound ${strikes(tie.maxStrikes)} at once, and do not silence each other otherwise.`
    case 'alsoStrike': {
      const each = tie.to.map((to) => `${name(to.pad)}${alongDetails(to)}`)
      const on = tie.passOn ? 'what they strike along sounds too' : 'it is not passed on'
      return `A strike on ${name(tie.from)} strikes ${listed(each)} along; ${on}.`
    }
    case 'takeTurns':
      return `A strike on any of ${names(tie.pads)} sounds ${PICK_WORDS[tie.pick]}.`
    case 'openings': {
      const from = new Map(tie.steps.map((step) => [step.pad, step.from]))
      const steps = inOrderOfOpening(tie).map((pad) => `${name(pad)} from ${from.get(pad)}`)
      const choke = tie.chokeAt === undefined ? '' : `; at ${tie.chokeAt} or below, all but the one it has come to are silenced`
      return `Controller ${tie.controller} opens ${listed(steps)}${choke}.`
    }
    case 'spots':
      return `${tie.name}: ${listed(tie.spots.map(({ pad, name: spot }) => `${spot || name(pad)} on ${name(pad)}`))}.`
    case 'parts':
      return `One recording lies in ${tie.parts.length} parts on ${fewNames(kit, [...new Set(tie.parts.map(({ pad }) => pad))])}.`
  }
}

/** Some names, or the first and the last of many. */
function fewNames(kit: Kit, ids: readonly PadId[]): string {
  if (ids.length <= 3) return listed(ids.map((id) => nameOf(kit, id)))
  return `${ids.length} pads, from ${nameOf(kit, ids[0]!)} to ${nameOf(kit, ids[ids.length - 1]!)}`
}

const ON_WORDS = {
  strike: (name: string) => `A strike on ${name}`,
  letGo: (name: string) => `Letting go of ${name}`,
  pressure: (name: string) => `Pressing ${name} beyond the half`,
} as const

const PICK_WORDS = {
  cycle: 'the next of them, the first one first',
  random: 'one of them by chance',
  shuffle: 'each of them once, in an order drawn anew each round',
} as const

function silenced(kit: Kit, tie: Extract<Tie, { kind: 'choke' }>): string {
  return listed(tie.to.map((to) => (to === tie.from ? 'its own earlier strikes' : nameOf(kit, to))))
}

function alongDetails({ chance, gainDb, delaySeconds, velocity }: Extract<Tie, { kind: 'alsoStrike' }>['to'][number]): string {
  const details = [
    chance < 1 ? `${Math.round(100 * chance)} % of the time` : '',
    gainDb === 0 ? '' : `${gainDb > 0 ? '+' : ''}${Number(gainDb.toFixed(1))} dB`,
    delaySeconds > 0 ? `${ms(delaySeconds)} later` : '',
    velocity ? 'by its own curve of strength' : '',
  ].filter(Boolean)
  return details.length > 0 ? ` (${details.join(', ')})` : ''
}

/** What of the pads a choke reaches, where that is not all of them. */
function reachWords(kit: Kit, { reach }: Extract<Tie, { kind: 'choke' | 'chokeGroup' }>): string {
  const rays = kit.pads.flatMap((pad) => pad.rays.filter(({ id }) => reach?.rays?.includes(id)).map((ray) => ray.name))
  const bands = kit.pads.flatMap((pad) =>
    pad.bands.flatMap(({ id }, place) => (reach?.bands?.includes(id) ? [`band ${place + 1} of ${nameOf(kit, pad.id)}`] : [])),
  )
  const parts = [rays.length > 0 ? `of the rays ${listed([...new Set(rays)])}` : '', bands.length > 0 ? `of ${listed(bands)}` : '']
  const only = parts.filter(Boolean).join(' and ')
  return only ? `, only what sounds ${only}` : ''
}

/** How many strikes of a pad may sound, and where that meets its mode, its group, limits it shares and the kit's: one sentence. */
export function limitWords(kit: Kit, padId: PadId): string {
  const pad = kit.pads.find(({ id }) => id === padId)!
  const { mode, maxStrikes } = padSettings(kit, pad)
  if (mode === 'silencer') return 'A silencer sounds nothing of its own, so no limit is asked; it only silences.'
  const group = kit.ties.find((tie) => tie.kind === 'chokeGroup' && tie.pads.includes(padId))
  const shared = kit.ties.find((tie) => tie.kind === 'limit' && tie.pads.includes(padId))
  const asked = [
    `its own (${maxStrikes})`,
    group?.kind === 'chokeGroup' && group.maxStrikes ? `its group’s (${group.name}: ${group.maxStrikes})` : '',
    shared?.kind === 'limit' ? `the one it shares (${shared.name}: ${shared.maxStrikes})` : '',
    `the kit’s (${kit.maxStrikes ?? USUAL_KIT_STRIKES})`,
  ].filter(Boolean)
  const again = mode === 'loopUntilStruckAgain' ? ' A second strike stops it, whatever the limits are.' : ''
  const choked = group ? ' What its group silences stops first, before any limit is asked.' : ''
  return `Limits are asked in this order: ${listed(asked)}. Where one is full, the oldest strike that was let go stops, else the oldest.${choked}${again}`
}

export function nameOf(kit: Kit, id: PadId): string {
  const pad = kit.pads.find((one) => one.id === id)
  return (pad && padSettings(kit, pad).name) || 'a pad without a name'
}

const strikes = (count: number) => (count === 1 ? 'one strike' : `at most ${count} strikes`)

function ms(seconds: number): string {
  return seconds >= 1 ? `${Number(seconds.toFixed(2))} s` : `${Number((seconds * 1000).toFixed(1))} ms`
}

/** "a", "a and b", "a, b and c". */
export function listed(words: readonly string[]): string {
  return words.length < 2 ? (words[0] ?? 'nothing') : `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`
}
