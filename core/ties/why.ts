import type { CameBy, FullLimit } from '../engine/strike-record'
import type { PadId } from '../kit/ids'
import type { Kit, Pad } from '../kit/kit'
import { chokesOf, padSettings } from '../kit/resolve'
import { listed, nameOf } from './words'

/** A strike as the engine decided it, with pads by their ids. */
export interface ToldStrike {
  readonly padId: PadId | undefined
  readonly struckId: PadId | undefined
  readonly cameBy: CameBy
  readonly velocity: number
  readonly band: number
  readonly turn: number
  readonly voices: number
  readonly chokedIds: readonly PadId[]
  readonly roomIds: readonly PadId[]
  readonly fullLimits: readonly FullLimit[]
  /** Why nothing of it sounds, in words; for one that sounds nothing. */
  readonly why?: string
}

/** Why a strike sounded, or did not, and what stopped by it: one sentence for each, in the order in which they were decided. */
export function whyWords(kit: Kit, strike: ToldStrike): string[] {
  const pad = kit.pads.find(({ id }) => id === strike.padId)
  if (!pad) return ['A pad that is not in this kit any more was struck.']
  return [beganWords(kit, pad, strike), ...silencedWords(kit, pad, strike), ...roomWords(kit, strike), ...endWords(kit, pad, strike)]
}

function beganWords(kit: Kit, pad: Pad, { struckId, cameBy, velocity, band, turn, voices, why }: ToldStrike): string {
  const name = nameOf(kit, pad.id)
  const struck = struckId === undefined || struckId === pad.id ? undefined : nameOf(kit, struckId)
  const by = cameBy === 'bead' ? 'by a bead of the groove' : cameBy === 'along' ? `along with ${struck ?? 'another strike'}` : 'by hand'
  const led = struck && cameBy !== 'along' ? `, since ${struck} was struck and ${leadWords(kit, pad.id)}` : ''
  const strength = `at ${Math.round(velocity)}`
  if (voices === 0) return `${name} was struck ${by} ${strength}${led}, and nothing of it sounds${why ? `: ${why}` : ''}.`
  return `${name} sounded ${by} ${strength}${led}: band ${band + 1}, turn ${turn + 1}.`
}

/** What led from one pad to another: turns or an opening. */
function leadWords(kit: Kit, padId: PadId): string {
  return kit.ties.some((tie) => tie.kind === 'takeTurns' && tie.pads.includes(padId))
    ? 'it was the turn of this one'
    : 'the controller has opened this one'
}

function silencedWords(kit: Kit, pad: Pad, { chokedIds }: ToldStrike): string[] {
  return chokedIds.map((id) => {
    const chokes = chokesOf(kit, pad.id).filter(({ padId, on }) => padId === id && on === 'strike')
    const fade = chokes[chokes.length - 1]?.fadeSeconds
    const whom = id === pad.id ? 'its own earlier strikes' : nameOf(kit, id)
    const part = chokes.every(({ reach }) => reach) && chokes.length > 0 ? 'a part of ' : ''
    return `It silenced ${part}${whom}${fade === undefined ? '' : ` within ${Math.round(1000 * fade)} ms`}.`
  })
}

const LIMITS: Readonly<Record<FullLimit, string>> = {
  own: 'its own limit',
  group: 'the limit of its group',
  shared: 'the limit that it shares',
  kit: 'the limit of the kit',
}

function roomWords(kit: Kit, { roomIds, fullLimits }: ToldStrike): string[] {
  if (roomIds.length === 0) return []
  const whose = listed(roomIds.map((id) => nameOf(kit, id)))
  return [`The oldest strike of ${whose} stopped to make room: ${listed(fullLimits.map((limit) => LIMITS[limit]))} was full.`]
}

function endWords(kit: Kit, pad: Pad, { voices }: ToldStrike): string[] {
  const { mode } = padSettings(kit, pad)
  if (voices === 0) return []
  if (mode === 'hold' || mode === 'loopUntilLetGo') return ['It stops when it is let go.']
  return mode === 'loopUntilStruckAgain' ? ['It goes round until it is struck again.'] : []
}
