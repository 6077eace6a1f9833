import type { PadId } from '@heliaster/core/kit'

import { padSounds } from '../audio/engine/sound'
import { session } from './session'

/** How often it is asked which pads still sound; and a pad is lit at least so long, so that a short one is seen, ms. */
const LOOK_MS = 80
const LEAST_MS = 160

const since = new Map<PadId, number>()
let looking: ReturnType<typeof setInterval> | undefined

/** Lights pads that were struck, for as long as each of them sounds. */
export function lightUp(struck: readonly PadId[]): void {
  if (struck.length === 0) return
  const now = performance.now()
  for (const padId of struck) since.set(padId, now)
  show()
  looking ??= setInterval(look, LOOK_MS)
}

/** Puts all lights out, since another kit is opened or this one is left. */
export function putOut(): void {
  since.clear()
  look()
}

function look(): void {
  const now = performance.now()
  for (const [padId, at] of since) if (now - at >= LEAST_MS && !padSounds(padId)) since.delete(padId)
  show()
  if (since.size > 0) return
  clearInterval(looking)
  looking = undefined
}

function show(): void {
  const sounding = [...since.keys()]
  const { sounding: before } = session.getState()
  if (sounding.length !== before.length || sounding.some((padId) => !before.includes(padId))) session.setState({ sounding })
}
