import { inTimeFrame } from '@heliaster/core/hands'
import type { Kit, PadId } from '@heliaster/core/kit'

import { kitNow, sound } from '../../engine/sound'

/** Where something began in time that may still sound, by kit. */
let since: { readonly kitId: Kit['id']; readonly frame: number } | undefined
/** Strikes whose time is still to come: when they were struck and when they begin. */
const waiting = new Map<string, { readonly struck: number; readonly begins: number }>()

/** The beats on which strikes of a pad begin, where they are asked to be in time. */
function everyBeatsOf(kit: Kit, padId: PadId): number | undefined {
  const tie = kit.ties.find((one) => one.kind === 'parts' && one.startsEveryBeats && one.parts.some(({ pad }) => pad === padId))
  return tie?.kind === 'parts' ? tie.startsEveryBeats : undefined
}

/** The frame at which a strike of now begins that is asked to be in time; nothing where it begins at once. */
export function begins(padId: PadId, key: number): number | undefined {
  const { player } = sound.getState()
  const kit = kitNow()
  const everyBeats = kit && everyBeatsOf(kit, padId)
  if (!player || !everyBeats) return undefined
  const now = player.frameNow()
  const sinceFrame = since?.kitId === kit.id && (!player.isSilent() || since.frame > now) ? since.frame : undefined
  const { tempoBpm } = kit
  const frame = inTimeFrame(now, { beat: player.grooveBeat(), sinceFrame }, { tempoBpm, everyBeats, sampleRateHz: player.sampleRateHz })
  if (sinceFrame === undefined) since = { kitId: kit.id, frame }
  waiting.set(`${padId} ${key}`, { struck: now, begins: frame })
  return frame > now ? frame : undefined
}

/** The frame at which letting go of a strike that waited takes effect: it is held as long as the hand held it. Nothing where that is now. */
export function ends(padId: PadId, key: number): number | undefined {
  const one = waiting.get(`${padId} ${key}`)
  const { player } = sound.getState()
  waiting.delete(`${padId} ${key}`)
  if (!one || !player) return undefined
  const now = player.frameNow()
  return now < one.begins ? one.begins + Math.max(1, now - one.struck) : undefined
}
