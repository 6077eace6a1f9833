import type { PadId } from '../kit/ids'
import type { Kit } from '../kit/kit'
import { chokesOf, padById, padSettings } from '../kit/resolve'
import { inOrderOfOpening } from './lines'
import { listed, nameOf } from './words'

/** What someone did that may stop what sounds, with the value of a control or pressure before it. */
export type Stopping =
  | { readonly type: 'letGo'; readonly padId: PadId }
  | { readonly type: 'stop'; readonly padId?: PadId }
  | { readonly type: 'press'; readonly padId: PadId; readonly before: number; readonly value: number }
  | { readonly type: 'control'; readonly control: number; readonly before: number; readonly value: number }

/** Pressure beyond this silences what a pad silences by pressure. */
const PRESSED = 0.5

/** What stops by something that is no strike, one sentence each; none where it stops nothing. Whether anything sounded is not known here. */
export function whyStoppedWords(kit: Kit, stopping: Stopping): string[] {
  switch (stopping.type) {
    case 'stop':
      if (!stopping.padId) return ['Everything was stopped by hand.']
      return [`${nameOf(kit, stopping.padId)} was stopped by hand.`]
    case 'letGo':
      return letGoWords(kit, stopping.padId)
    case 'press': {
      const { padId, before, value } = stopping
      return before <= PRESSED && value > PRESSED ? silencing(kit, padId, 'pressure', `${nameOf(kit, padId)} was pressed`) : []
    }
    case 'control':
      return closingWords(kit, stopping)
  }
}

function letGoWords(kit: Kit, padId: PadId): string[] {
  const pad = padById(kit, padId)
  if (!pad) return []
  const { mode } = padSettings(kit, pad)
  const name = nameOf(kit, padId)
  const holds = mode === 'hold' || mode === 'loopUntilLetGo'
  return [...(holds ? [`${name} was let go of: what it held ends.`] : []), ...silencing(kit, padId, 'letGo', `${name} was let go of`)]
}

function silencing(kit: Kit, padId: PadId, by: 'letGo' | 'pressure', what: string): string[] {
  const silenced = chokesOf(kit, padId).filter(({ on }) => on === by)
  if (silenced.length === 0) return []
  const whom = listed(silenced.map((choke) => (choke.padId === padId ? 'itself' : nameOf(kit, choke.padId))))
  return [`${what}, and that silenced ${whom}.`]
}

/** At or below the value that closes, all but the pad it has come to stop; a control that stays there says nothing new. */
function closingWords(kit: Kit, { control, before, value }: Extract<Stopping, { type: 'control' }>): string[] {
  return kit.ties.flatMap((tie) => {
    if (tie.kind !== 'openings' || tie.controller !== control || tie.chokeAt === undefined) return []
    if (value > tie.chokeAt || before <= tie.chokeAt) return []
    const [closed, ...others] = inOrderOfOpening(tie).map((padId) => nameOf(kit, padId))
    return others.length > 0 ? [`Controller ${control} closed: ${listed(others)} stopped, ${closed} may sound.`] : []
  })
}
