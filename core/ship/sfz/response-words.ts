import type { responseFromCodes } from '../../engine/program'
import type { Kit, Pad } from '../../kit/kit'
import type { Response } from '../../kit/shape'

const FROM: Record<keyof typeof responseFromCodes, string> = { velocity: 'velocity', chance: 'chance', note: 'the note' }
const TO: Record<Response['to']['kind'], string> = {
  gainDb: 'level',
  pan: 'place',
  tuneCents: 'tuning',
  startSeconds: 'start',
  cutoffCents: 'filter',
  decay: 'decay',
}

/** Whether SFZ says a response just so: velocity to level, and nothing else so far. */
export const isWritten = ({ from, to, bypass }: Response) => !bypass && from === 'velocity' && to.kind === 'gainDb'

/** What is lost with a response; nothing for one that is written, off, or not played here either. */
export function sayResponse(response: Response, _kit: Kit, pad: Pad): string[] {
  const { from, to, bypass } = response
  if (bypass || !(from in FROM)) return []
  if (isWritten(response)) return response.amount < 0 ? ['softer strikes are louder here; in SFZ they are as loud as the hardest.'] : []
  const ray = to.rayId && pad.rays.find(({ id }) => id === to.rayId)
  return [`that ${FROM[from as keyof typeof FROM]} moves the ${TO[to.kind]}${ray ? ` of ${ray.name}` : ''} is left out.`]
}
