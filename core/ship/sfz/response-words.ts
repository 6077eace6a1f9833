import { movedParameters } from '../../kit/parameters'
import type { Kit, Pad } from '../../kit/kit'
import type { Parameter } from '../../kit/parameters'
import type { Response, ResponseSource } from '../../kit/shape'

const FROM: Record<ResponseSource, string> = {
  velocity: 'velocity',
  chance: 'chance',
  note: 'the note',
  turn: 'the turn',
  strikeRate: 'how fast strikes come',
  wheel: 'the wheel',
  controller: 'a controller',
  bend: 'the bend',
  pressure: 'pressure',
  keyPressure: 'pressure on the key',
  oscillator: 'an oscillator',
  tiller: 'a tiller',
}
const TO: Partial<Record<Parameter, string>> = {
  gainDb: 'level',
  pan: 'place',
  tuneCents: 'tuning',
  startSeconds: 'start',
  rollSeconds: 'time between strikes',
  endSeconds: 'end',
  fadeInSeconds: 'fade in',
  fadeOutSeconds: 'fade out',
  filter1CutoffHz: 'filter',
  filter1Damping: 'resonance of the filter',
  filter1EnvelopeCents: 'reach of the filter envelope',
  filter1GainDb: 'gain of the filter',
  filter2CutoffHz: 'second filter',
  filter2Damping: 'resonance of the second filter',
  filter2EnvelopeCents: 'reach of the second filter envelope',
  filter2GainDb: 'gain of the second filter',
  levelEnvelope: 'share of the level envelope',
  pitchEnvelope: 'share of the pitch envelope',
  attackDb: 'attack',
  tailDb: 'tail',
  driveDb: 'drive',
  driveAfterDb: 'drive after the filters',
  driveLevelDb: 'level of the drive',
  crush: 'dirt',
  crushBits: 'bits of the dirt',
  crushRateHz: 'rate of the dirt',
  width: 'width',
  lowCutHz: 'low cut',
  decayScale: 'decay',
  delaySeconds: 'delay',
  glideSeconds: 'glide',
  keyTrack: 'share by which it follows the note',
  bendTrack: 'share by which it follows the bend',
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
  if (bypass) return []
  return to.flatMap(({ param, ray: rayId }) => {
    if (!movedParameters.includes(param)) return []
    if (isSaid(response, param))
      return response.amount < 0 ? ['softer strikes are louder here; in SFZ they are as loud as the hardest.'] : []
    const ray = rayId && pad.rays.find(({ id }) => id === rayId)
    return [`that ${FROM[from.kind]} moves the ${TO[param] ?? param}${ray ? ` of ${ray.name}` : ''} is left out.`]
  })
}
