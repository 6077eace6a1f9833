import type { Band, Bus, Clip, Kit, Pad, Ray, Tie, Turn } from '../../kit/kit'
import type { Parameter } from '../../kit/parameters'
import { clipsOfPad, notesOfPads, padSettings, raySound, shapeOf } from '../../kit/resolve'
import type { PadSettings } from '../../kit/resolve'
import type { Response } from '../../kit/shape'
import { isShaped, leftOutOfHits } from '../draw'
import { sayResponse } from './response-words'
import { lostRounds } from './rounds'

/**
 * What becomes of a field when a kit is written as SFZ. `written`: an opcode says it. `inSamples`: the WAV files have it.
 * `silent`: it changes nothing that is heard. `unplayed`: Heliaster keeps it and does not play it yet. A function tells what
 * is lost, where something is, in words that follow the name of the pad or kit.
 */
export type Fate<Of> = 'written' | 'inSamples' | 'silent' | 'unplayed' | ((of: Of) => readonly string[])

export interface OfPad {
  readonly kit: Kit
  readonly pad: Pad
  readonly settings: PadSettings
}

const manyTurns = ({ pad }: OfPad) => pad.bands.some(({ turns }) => turns.length > 1)
const when = (isLost: boolean, words: string) => (isLost ? [words] : [])

const kitFates: Record<keyof Kit, Fate<Kit>> = {
  format: 'silent',
  version: 'silent',
  id: 'silent',
  name: 'written',
  tempoBpm: 'silent',
  values: 'written',
  inserts: leftOutOfHits,
  seed: 'silent',
  tuningA4Hz: 'silent',
  maxStrikes: ({ maxStrikes }) => when(maxStrikes !== undefined, `the limit of ${maxStrikes} strikes at once is left out.`),
  arrangement: 'silent',
  pads: 'written',
  buses: ({ buses }) =>
    when(
      buses.some(({ sends }) => sends.length > 0),
      'what buses send to each other is left out.',
    ),
  ties: 'written',
  responses: ({ responses }) =>
    when(
      responses.some(({ to, bypass }) => !bypass && to.length > 0),
      'what moves the mix stands as it is set without that.',
    ),
  oscillators: 'silent', // said where something responds to them
  tillers: ({ tillers }) =>
    when(
      tillers.some(({ to }) => to.length > 0),
      'what tillers lead stands as it is set without them.',
    ),
  song: 'silent',
  grooves: ({ grooves }) =>
    when(grooves.some(({ strings }) => strings.some(({ beads }) => beads.length > 0)), 'SFZ holds no patterns; grooves stay here.'), // prettier-ignore
  audio: 'silent',
}

const padFates: Record<keyof Pad, Fate<OfPad>> = {
  id: 'silent',
  notes: ({ kit, pad }) => when((notesOfPads(kit).get(pad.id) ?? []).length === 0, 'no note is left (128 are taken); left out.'),
  leansOn: 'written',
  own: 'written',
  rays: 'written',
  bands: 'written',
  spread: 'silent',
}

const settingsFates: Record<keyof PadSettings, Fate<OfPad>> = {
  name: 'written',
  family: 'silent',
  tint: 'silent',
  group: 'silent',
  values: 'written',
  choices: 'inSamples',
  order: 'inSamples',
  mode: ({ kit, pad }) => lostRounds(kit, pad),
  maxStrikes: 'written',
  pick: (of) => when(of.settings.pick === 'shuffle' && manyTurns(of), 'SFZ has no shuffle; turns are written as a cycle.'),
  counter: (of) =>
    when(
      of.settings.counter === 'pad' && of.settings.pick === 'cycle' && of.pad.bands.length > 1 && manyTurns(of),
      'turns are counted over the whole pad here; in SFZ each band counts its own.',
    ),
  startAgain: (of) => when(of.settings.startAgain !== 'never' && manyTurns(of), 'turns begin anew here; in SFZ they always go on.'),
  mute: ({ settings: { mute } }) => when(mute, 'muted, so left out.'),
  bus: 'written',
  rootNote: 'written',
  envelopes: ({ pad, settings }) =>
    when(
      settings.mode === 'hold' && pad.rays.some((ray) => shapeOf(settings, ray).envelopes.level.sustain !== undefined),
      'the envelope is in the samples, so it does not wait while the note is held.',
    ),
  responses: ({ kit, pad, settings }) => settings.responses.flatMap((response) => sayResponse(response, kit, pad)),
}

const rayFates: Record<keyof Ray, Fate<OfPad & { readonly ray: Ray }>> = {
  id: 'silent',
  name: 'silent',
  source: 'written',
  microphone: 'silent',
  onMissing: 'written',
  bus: 'written',
  sends: ({ ray }) => when(ray.sends.length > 0, `what the ray ${ray.name} sends to buses is left out.`),
  values: 'written',
  choices: 'inSamples',
  envelopes: 'inSamples',
  order: 'unplayed',
  invert: 'written',
  mute: ({ kit, settings, ray }) =>
    when(!settings.mute && raySound(kit, settings, ray).isMuted, `the ray ${ray.name} is muted, so it is left out.`),
}

const bandFates: Record<keyof Band, Fate<OfPad & { readonly band: Band; readonly above?: Band }>> = {
  id: 'silent',
  fromVelocity: 'written',
  blendVelocities: 'written',
  blendLaw: ({ band, above }) =>
    when(
      band.blendVelocities > 0 && above !== undefined && above.blendVelocities > 0 && above.blendLaw !== band.blendLaw,
      `the band from velocity ${band.fromVelocity} fades by two laws; SFZ takes one for both sides, that of its softer side.`,
    ),
  values: 'written',
  turns: 'written',
}

const turnFates: Record<keyof Turn, Fate<Turn>> = {
  id: 'silent',
  weight: 'written',
  clips: 'written',
  values: 'written',
  choices: 'inSamples',
  envelopes: 'inSamples',
}

const clipFates: Record<keyof Clip, Fate<Clip>> = {
  audio: 'inSamples',
  startFrame: 'inSamples',
  endFrame: 'inSamples',
  fadeInSeconds: 'inSamples',
  fadeOutSeconds: 'inSamples',
  gainDb: 'written',
  reverse: 'inSamples',
  invert: 'written',
  channel: 'inSamples',
  repairs: 'inSamples',
  loop: 'written', // what of it is not is said of the pad
  slices: ({ slices }) => when((slices ?? []).some(({ sends }) => Object.keys(sends ?? {}).length > 0), 'what slices of a clip send to buses is left out.'), // prettier-ignore
  process: 'inSamples',
  made: 'silent',
  fromHit: 'silent',
}

/** Of the parameters that are played: what is not yet is `unplayed` by the table of parameters itself. */
const parameterFates: { readonly [Name in Parameter]?: Exclude<Fate<never>, 'unplayed'> } = {
  gainDb: 'written',
  pan: 'written',
  tuneCents: 'written',
  delaySeconds: 'written',
  keyTrack: 'written',
  startSeconds: 'inSamples',
  endSeconds: 'inSamples',
  fadeInSeconds: 'inSamples',
  fadeOutSeconds: 'inSamples',
  decayScale: 'inSamples',
  filter1CutoffHz: 'inSamples',
  filter1Damping: 'inSamples',
  filter1EnvelopeCents: 'inSamples',
  filter1GainDb: 'inSamples',
  filter2CutoffHz: 'inSamples',
  filter2Damping: 'inSamples',
  filter2EnvelopeCents: 'inSamples',
  filter2GainDb: 'inSamples',
  levelEnvelope: 'inSamples',
  pitchEnvelope: 'inSamples',
  bendTrack: 'written',
  rollSeconds: 'silent', // said of the pad
  glideSeconds: 'silent', // heard between strikes only
  attackDb: 'inSamples',
  tailDb: 'inSamples',
  driveDb: 'inSamples',
  driveAfterDb: 'inSamples',
  driveLevelDb: 'inSamples',
  crush: 'inSamples',
  crushBits: 'inSamples',
  crushRateHz: 'inSamples',
  width: 'inSamples',
  lowCutHz: 'inSamples',
}

const busFates: Record<keyof Bus, Fate<Bus>> = {
  id: 'silent',
  name: 'silent',
  values: 'written', // what is no level or place is said of the kit, with its effects
  mute: 'written',
  isReturn: 'silent',
  inserts: 'silent', // said of the kit
  sends: 'silent', // said of the kit
  out: 'written',
}

function lostOfChoke(tie: Extract<Tie, { kind: 'choke' | 'chokeGroup' }>): string[] {
  const on = (tie.kind === 'choke' && tie.on) || 'strike'
  return [
    ...when(tie.reach !== undefined, 'what silences only some rays or bands is left out.'),
    ...when(
      on !== 'strike' && tie.reach === undefined,
      `what is silenced ${on === 'letGo' ? 'when a pad is let go' : 'by pressure'} is left out.`,
    ),
  ]
}

const tieFates: Record<Tie['kind'], Fate<Tie>> = {
  choke: (tie) => (tie.kind === 'choke' ? lostOfChoke(tie) : []),
  chokeGroup: (tie) => (tie.kind === 'chokeGroup' ? [...lostOfChoke(tie), ...when(tie.maxStrikes !== undefined, 'the limit of strikes that a choke group shares is left out.')] : []), // prettier-ignore
  alsoStrike: () => ['pads that are struck along are left out.'],
  takeTurns: () => ['pads that take turns are written as pads of their own.'],
  openings: () => ['openings by a controller are left out; each is written as a pad of its own.'],
  limit: () => ['the limit of strikes that pads share is left out.'],
  spots: 'silent',
  parts: (tie) => when(tie.kind === 'parts' && tie.startsEveryBeats !== undefined, 'that parts of a recording begin in time is left out.'),
}

const responseFates: Record<keyof Response, Fate<Response>> = {
  id: 'silent',
  draw: 'silent',
  from: 'written',
  to: 'written',
  amount: 'written',
  curve: 'written',
  min: 'written',
  max: 'written',
  bypass: 'silent',
}

/** The one table of all that a kit can say, and what SFZ makes of it. */
export const sfzFates = {
  kit: kitFates,
  pad: padFates,
  settings: settingsFates,
  ray: rayFates,
  band: bandFates,
  turn: turnFates,
  clip: clipFates,
  parameter: parameterFates,
  bus: busFates,
  tie: tieFates,
  response: responseFates,
}

function told<Of>(fates: Record<string, Fate<Of>>, of: Of): string[] {
  return Object.values(fates).flatMap((fate) => (typeof fate === 'function' ? fate(of) : []))
}

/** What SFZ leaves out of a pad, each a sentence without its name. */
export function lostOfPad(kit: Kit, pad: Pad): string[] {
  const of = { kit, pad, settings: padSettings(kit, pad) }
  const bands = [pad.bands, ...pad.rays.flatMap((ray) => (ray.source.kind === 'clips' && ray.source.bands ? [ray.source.bands] : []))]
  const lost = [
    ...told(padFates, of),
    ...told(settingsFates, of),
    ...pad.rays.flatMap((ray) => told(rayFates, { ...of, ray })),
    ...bands.flatMap((list) => list.flatMap((band, i) => told(bandFates, { ...of, band, above: list[i + 1] }))),
    ...clipsOfPad(pad).flatMap((clip) => told(clipFates, clip)),
    ...when(of.settings.values.rollSeconds > 0, 'that it goes on while it is held is left out: it is struck once.'),
    ...shapedKeys(of),
  ]
  return [...new Set(lost)]
}

/** A shape is drawn at the note of each file, so that is exact; what only velocity moves in it is not there. */
function shapedKeys({ kit, pad, settings }: OfPad): string[] {
  const isMoved = settings.responses.some(
    ({ from, to, bypass }) => from.kind === 'velocity' && to.some(({ param }) => param !== 'gainDb') && !bypass,
  )
  return isMoved && pad.rays.some((ray) => isShaped(kit, pad, ray)) ? ['the shape is drawn as the loudest strike has it.'] : []
}

/** What SFZ leaves out of the kit as a whole. */
export function lostOfKit(kit: Kit): string[] {
  return [...new Set([...told(kitFates, kit), ...kit.ties.flatMap((tie) => sayTie(tie))])]
}

function sayTie(tie: Tie): readonly string[] {
  const fate = tieFates[tie.kind]
  return typeof fate === 'function' ? fate(tie) : []
}
