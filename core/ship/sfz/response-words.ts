import type { responseFromCodes, responseToCodes } from '../../engine/program/layout'
import type { Kit, Pad } from '../../kit/kit'
import type { Parameter } from '../../kit/parameters'
import type { Response } from '../../kit/shape'

const FROM: Record<keyof typeof responseFromCodes, string> = { velocity: 'velocity', chance: 'chance', note: 'the note' }
const TO: Record<keyof typeof responseToCodes, string> = {
  gainDb: 'level',
  pan: 'place',
  tuneCents: 'tuning',
  startSeconds: 'start',
  filter1CutoffHz: 'filter',
  decayScale: 'decay',
}

/** Whether SFZ says what a response does to a parameter just so: velocity to level, and nothing else so far. */
const isSaid = ({ from }: Response, param: Parameter) => from.kind === 'velocity' && param === 'gainDb'

/** Whether SFZ says how a response moves the level of a ray, by its id. */
export function movesLevelOf(response: Response, rayId: string): boolean {
  return !response.bypass && response.to.some(({ param, ray }) => isSaid(response, param) && (ray === undefined || ray === rayId))
}

/** What is lost with a response; nothing for one that is written, off, or not played here either. */
export function sayResponse(response: Response, _kit: Kit, pad: Pad): string[] {
  const { from, to, bypass } = response
  if (bypass || !(from.kind in FROM)) return []
  return to.flatMap(({ param, ray: rayId }) => {
    if (!(param in TO)) return []
    if (isSaid(response, param))
      return response.amount < 0 ? ['softer strikes are louder here; in SFZ they are as loud as the hardest.'] : []
    const ray = rayId && pad.rays.find(({ id }) => id === rayId)
    return [
      `that ${FROM[from.kind as keyof typeof FROM]} moves the ${TO[param as keyof typeof TO]}${ray ? ` of ${ray.name}` : ''} is left out.`,
    ]
  })
}
