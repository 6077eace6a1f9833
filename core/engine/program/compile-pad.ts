import type { Band, Clip, Kit, Pad } from '../../kit/kit'
import type { PadId } from '../../kit/ids'
import { valueOf } from '../../kit/parameters'
import { bandsOfRay, chokedBy, clipOfCell, padSettings, raySound, shapeOf } from '../../kit/resolve'
import type { PadSettings } from '../../kit/resolve'
import { bendOf } from '../../kit/shape'
import type { Envelope, Response } from '../../kit/shape'
import { hashId } from '../strike/chance'
import { dbToGain, exp2 } from '../math'
import {
  BandField, ChokeField, ClipField, EnvelopeField, filterCodes, Head, modeCodes, pickCodes, PointField, RayField, ResponseField,
  responseFromCodes, responseToCodes, TurnField,
} from './layout' // prettier-ignore
import type { Region } from '../memory/sample-store'

export interface CompileContext {
  readonly sampleRateHz: number
  /** The slot of a pad in the engine. */
  slotOf(padId: PadId): number
  /** Where a clip's samples lie, or undefined when its audio is not there (yet). */
  regionOf(clip: Clip): Region | undefined
}

/** Compiles a pad to its flat program. The same pad, ties and regions give the same numbers. */
export function compilePad(kit: Kit, pad: Pad, context: CompileContext): Float64Array {
  const out: number[] = new Array<number>(Head.length).fill(0)
  const settings = padSettings(kit, pad)
  const group = kit.ties.find((tie) => tie.kind === 'chokeGroup' && tie.pads.includes(pad.id))
  out[Head.padHash] = hashId(pad.id)
  out[Head.mode] = modeCodes[settings.mode]
  out[Head.maxStrikes] = settings.maxStrikes
  out[Head.pick] = pickCodes[settings.pick]
  out[Head.counter] = settings.counter === 'band' ? 1 : 0
  out[Head.gain] = dbToGain(settings.values.gainDb)
  out[Head.pan] = settings.values.pan
  out[Head.tuneCents] = settings.values.tuneCents
  out[Head.rootNote] = settings.rootNote ?? -1
  out[Head.group] = group ? hashId(group.id) : -1
  out[Head.againFrames] = typeof settings.startAgain === 'number' ? toFrames(settings.startAgain, context) : -1
  out[Head.againAtGroove] = settings.startAgain === 'groove' ? 1 : 0
  const limit = kit.ties.find((tie) => tie.kind === 'limit' && tie.pads.includes(pad.id))
  out[Head.limit] = limit ? hashId(limit.id) : -1
  out[Head.limitMaxStrikes] = limit?.kind === 'limit' ? limit.maxStrikes : 128
  out[Head.groupMaxStrikes] = group?.kind === 'chokeGroup' ? (group.maxStrikes ?? 128) : 128
  writeChokes(out, kit, pad, context)
  writeOpenings(out, kit, pad, context)
  writeTakeTurns(out, kit, pad, context)
  writeAlso(out, kit, pad, context)
  writeResponses(out, pad, settings.responses)
  writeRays(out, kit, pad, settings, context)
  writeHeadBands(out, pad, context)
  out[Head.size] = out.length
  return Float64Array.from(out)
}

/** Makes room for a table of `count` rows and returns where it begins. */
function table(out: number[], count: number, width: number): number {
  const at = out.length
  for (let i = 0; i < count * width; i++) out.push(0)
  return at
}

function writeChokes(out: number[], kit: Kit, pad: Pad, context: CompileContext): void {
  const choked = chokedBy(kit, pad.id).filter((tie) => kit.pads.some((other) => other.id === tie.padId))
  const at = table(out, choked.length, ChokeField.length)
  out[Head.chokeCount] = choked.length
  out[Head.chokes] = at
  choked.forEach((tie, i) => {
    out[at + i * ChokeField.length + ChokeField.padSlot] = context.slotOf(tie.padId)
    out[at + i * ChokeField.length + ChokeField.fadeFrames] = toFrames(tie.fadeSeconds, context)
  })
}

/** The first openings that a pad is among, from the lowest threshold up; pads that are gone are tidied away before. */
function writeOpenings(out: number[], kit: Kit, pad: Pad, context: CompileContext): void {
  const tie = kit.ties.find((one) => one.kind === 'openings' && one.steps.some((step) => step.pad === pad.id))
  out[Head.openings] = -1
  if (tie?.kind !== 'openings') return
  const steps = [...tie.steps].sort((a, b) => a.from - b.from)
  out[Head.openings] = out.length
  out.push(tie.controller, tie.chokeAt ?? -1, steps.length)
  for (const step of steps) out.push(step.from, context.slotOf(step.pad))
}

function writeTakeTurns(out: number[], kit: Kit, pad: Pad, context: CompileContext): void {
  const tie = kit.ties.find((one) => one.kind === 'takeTurns' && one.pads.includes(pad.id))
  out[Head.takeTurns] = -1
  if (tie?.kind !== 'takeTurns') return
  out[Head.takeTurns] = out.length
  out.push(context.slotOf(tie.pads[0]), hashId(tie.id), pickCodes[tie.pick], tie.pads.length)
  for (const id of tie.pads) out.push(context.slotOf(id))
}

function writeAlso(out: number[], kit: Kit, pad: Pad, context: CompileContext): void {
  const also = kit.ties.flatMap((tie) => (tie.kind === 'alsoStrike' && tie.from === pad.id ? tie.to.map((to) => ({ to, tie })) : []))
  out[Head.alsoCount] = also.length
  out[Head.also] = out.length
  for (const { to, tie } of also)
    out.push(context.slotOf(to.pad), to.chance, dbToGain(to.gainDb), toFrames(to.delaySeconds, context), tie.passOn ? 1 : 0, hashId(tie.id))
}

/** Responses whose source or target the engine does not play yet stay in the document and are left out here. */
function writeResponses(out: number[], pad: Pad, responses: readonly Response[]): void {
  const played = responses.flatMap((response) => {
    const from = response.bypass ? undefined : codeIn(responseFromCodes, response.from.kind)
    if (from === undefined) return []
    return response.to.flatMap(({ param, ray }) => {
      const to = codeIn(responseToCodes, param)
      return to === undefined ? [] : [{ response, from, to, ray }]
    })
  })
  const at = table(out, played.length, ResponseField.length)
  out[Head.responseCount] = played.length
  out[Head.responses] = at
  played.forEach(({ response, from, to, ray }, i) => {
    const row = at + i * ResponseField.length
    out[row + ResponseField.from] = from
    out[row + ResponseField.to] = to
    out[row + ResponseField.amount] = response.amount
    out[row + ResponseField.k] = bendToK(bendOf(response.curve) ?? 0)
    out[row + ResponseField.ray] = ray === undefined ? -1 : pad.rays.findIndex((one) => one.id === ray)
    out[row + ResponseField.draw] = response.draw
  })
}

function codeIn(codes: Readonly<Record<string, number>>, name: string): number | undefined {
  return codes[name]
}

/** A ray sounds through its bus, or its pad's: level and place of the bus are in the ray's own. */
function writeRays(out: number[], kit: Kit, pad: Pad, settings: PadSettings, context: CompileContext): void {
  const rays = table(out, pad.rays.length, RayField.length)
  out[Head.rayCount] = pad.rays.length
  out[Head.rays] = rays
  pad.rays.forEach((ray, index) => {
    const row = rays + index * RayField.length
    const shape = shapeOf(settings, ray)
    const sound = raySound(kit, settings, ray)
    out[row + RayField.gain] = dbToGain(sound.gainDb) * (ray.invert ? -1 : 1)
    out[row + RayField.pan] = sound.pan
    out[row + RayField.tuneCents] = valueOf(ray, 'tuneCents')
    out[row + RayField.keyTrack] = valueOf(ray, 'keyTrack')
    out[row + RayField.delayFrames] = toFrames(valueOf(ray, 'delaySeconds'), context)
    out[row + RayField.mute] = sound.isMuted || ray.source.kind === 'body' ? 1 : 0
    const { values, envelopes } = shape
    out[row + RayField.startSeconds] = values.startSeconds
    out[row + RayField.amp] = writeEnvelope(out, envelopes.level, values.decayScale, context)
    out[row + RayField.pitch] = writeEnvelope(out, envelopes.pitch, 1, context)
    out[row + RayField.filterType] = codeIn(filterCodes, shape.choices.filter1Kind) ?? filterCodes.off
    out[row + RayField.cutoffHz] = values.filter1CutoffHz
    out[row + RayField.damping] = values.filter1Damping
    out[row + RayField.filterEnv] = values.filter1EnvelopeCents === 0 ? -1 : writeEnvelope(out, envelopes.filter1, 1, context)
    out[row + RayField.filterEnvCents] = values.filter1EnvelopeCents
    const own = ray.source.kind === 'clips' ? ray.source.bands : undefined
    out[row + RayField.bandCount] = own ? own.length : -1
    if (!own) return
    out[row + RayField.bands] = writeBands(out, pad, own, context)
    out[row + RayField.pick] = pickCodes[(ray.source.kind === 'clips' && ray.source.pick) || settings.pick]
  })
}

function writeHeadBands(out: number[], pad: Pad, context: CompileContext): void {
  out[Head.bandCount] = pad.bands.length
  out[Head.bands] = writeBands(out, pad, pad.bands, context)
}

function writeBands(out: number[], pad: Pad, bands: readonly Band[], context: CompileContext): number {
  const at = table(out, bands.length, BandField.length)
  bands.forEach((band, index) => {
    const row = at + index * BandField.length
    out[row + BandField.fromVelocity] = band.fromVelocity
    out[row + BandField.blendVelocities] = band.blendVelocities
    out[row + BandField.blendLaw] = band.blendLaw === 'power' ? 0 : 1
    out[row + BandField.gain] = dbToGain(valueOf(band, 'gainDb'))
    out[row + BandField.turnCount] = band.turns.length
    out[row + BandField.turns] = writeTurns(out, pad, bands, index, context)
  })
  return at
}

function writeTurns(out: number[], pad: Pad, bands: readonly Band[], bandIndex: number, context: CompileContext): number {
  const turns = bands[bandIndex].turns
  const at = table(out, turns.length, TurnField.length)
  turns.forEach((turn, index) => {
    const clips = table(out, pad.rays.length, ClipField.length)
    out[at + index * TurnField.length + TurnField.weight] = turn.weight
    out[at + index * TurnField.length + TurnField.clips] = clips
    pad.rays.forEach((ray, rayIndex) => {
      const shared = bandsOfRay(pad, ray) === bands
      writeClip(out, clips + rayIndex * ClipField.length, shared ? clipOfCell(bands, bandIndex, index, ray) : undefined, context)
    })
  })
  return at
}

function writeClip(out: number[], at: number, clip: Clip | undefined, context: CompileContext): void {
  const region = clip && context.regionOf(clip)
  out[at + ClipField.chunk] = region ? region.chunk : -1
  if (!clip || !region) return
  out[at + ClipField.left] = region.left
  out[at + ClipField.right] = region.right
  out[at + ClipField.frames] = region.frames
  out[at + ClipField.rate] = region.sampleRateHz / context.sampleRateHz
  out[at + ClipField.gain] = dbToGain(clip.gainDb) * (clip.invert ? -1 : 1)
}

/** Writes an envelope and returns its offset; -1 for none. Points fall on whole frames. */
function writeEnvelope(out: number[], envelope: Envelope, timeScale: number, context: CompileContext): number {
  const { points } = envelope
  if (points.length === 0) return -1
  const at = table(out, 1, EnvelopeField.length + points.length * PointField.length)
  out[at + EnvelopeField.count] = points.length
  out[at + EnvelopeField.sustain] = envelope.sustain !== undefined && envelope.sustain < points.length ? envelope.sustain : -1
  points.forEach((point, index) => {
    const row = at + EnvelopeField.length + index * PointField.length
    out[row + PointField.frame] = toFrames(point.seconds * timeScale, context)
    out[row + PointField.value] = point.value
    out[row + PointField.k] = bendToK(point.bend)
  })
  return at
}

/** k of the bend formula: 64^bend, exactly 1 for a straight line. */
export function bendToK(bend: number): number {
  return bend === 0 ? 1 : exp2(6 * bend)
}

function toFrames(seconds: number, context: CompileContext): number {
  return Math.floor(seconds * context.sampleRateHz + 0.5)
}
