import type { Kit, Pad, Ray } from '../../kit/kit'
import { parameterRow, valueOf } from '../../kit/parameters'
import { padSettings, padWithParts, shapeOf } from '../../kit/resolve'
import type { PadSettings } from '../../kit/resolve'
import type { Shape } from '../../kit/shape'
import { dbToGain } from '../math'
import { hashId } from '../strike/chance'
import { filterCodes, modeCodes, movedParameters, pickCodes, stageCodes } from './codes'
import { codeIn, movedValue, table, toFrames } from './context'
import type { CompileContext, Reading } from './context'
import { greatestCents } from './greatest-rate'
import { Head, ParamCode, PARAMS, RayField, SendField } from './layout'
import { writeBands } from './write-bands'
import { writeEnvelope, writePitchEnvelope } from './write-envelope'
import { writeLinks } from './write-links'
import { isLive, moversOfResponses, moversOfTillers, writeMovers } from './write-responses'
import type { Mover } from './write-responses'

/** Compiles a pad to its flat program. The same pad, ties and regions give the same numbers. */
export function compilePad(kit: Kit, given: Pad, context: CompileContext): Float64Array {
  const out: number[] = new Array<number>(Head.length).fill(0)
  const pad = padWithParts(kit, given)
  const settings = padSettings(kit, pad)
  out[Head.padHash] = hashId(pad.id)
  out[Head.mode] = modeCodes[settings.mode]
  out[Head.maxStrikes] = settings.maxStrikes
  out[Head.pick] = pickCodes[settings.pick]
  out[Head.counter] = settings.counter === 'band' ? 1 : 0
  out[Head.gain] = dbToGain(settings.values.gainDb)
  out[Head.pan] = settings.values.pan
  out[Head.tuneCents] = settings.values.tuneCents
  out[Head.rootNote] = settings.rootNote ?? -1
  out[Head.againFrames] = typeof settings.startAgain === 'number' ? toFrames(settings.startAgain, context) : -1
  out[Head.againAtGroove] = settings.startAgain === 'groove' ? 1 : 0
  writeLinks(out, kit, pad, context)
  const movers = [...moversOfResponses(kit, pad, settings.responses), ...moversOfTillers(kit, pad, settings)]
  const settled = movers.filter((mover) => !isLive(mover))
  out[Head.settledCount] = settled.length
  out[Head.settled] = writeMovers(out, settled)
  const loops = padLoops(settings)
  const readings = greatestCents(kit, pad, settings, movers).map((mostCents) => ({ mostCents, loops }))
  writeRays(out, pad, settings, movers, readings, context)
  out[Head.bandCount] = pad.bands.length
  out[Head.bands] = writeBands(out, pad, pad.bands, readings, context)
  out[Head.size] = out.length
  return Float64Array.from(out)
}

/** Whether the clips of a pad go round. */
export function padLoops({ mode }: Pick<PadSettings, 'mode'>): boolean {
  return mode === 'loopUntilLetGo' || mode === 'loopUntilStruckAgain'
}

function writeRays(
  out: number[],
  pad: Pad,
  settings: PadSettings,
  movers: readonly Mover[],
  readings: readonly Reading[],
  context: CompileContext,
): void {
  const rays = table(out, pad.rays.length, RayField.length)
  out[Head.rayCount] = pad.rays.length
  out[Head.rays] = rays
  pad.rays.forEach((ray, index) => {
    const row = rays + index * RayField.length
    const shape = shapeOf(settings, ray)
    const live = movers.filter((mover) => isLive(mover) && (mover.only < 0 || mover.only === index))
    writeWay(out, row, settings, ray, context)
    writeShape(out, row, shape, movers, context)
    writeValues(out, row, settings, shape)
    out[row + RayField.liveCount] = live.length
    out[row + RayField.live] = writeMovers(out, live)
    const own = ray.source.kind === 'clips' ? ray.source.bands : undefined
    out[row + RayField.bandCount] = own ? own.length : -1
    if (!own) return
    out[row + RayField.bands] = writeBands(out, pad, own, readings, context)
    out[row + RayField.pick] = pickCodes[(ray.source.kind === 'clips' && ray.source.pick) || settings.pick]
  })
}

/** How loud a ray is, where it stands and where it goes. */
function writeWay(out: number[], row: number, settings: PadSettings, ray: Ray, context: CompileContext): void {
  out[row + RayField.hash] = hashId(ray.id)
  out[row + RayField.gain] = dbToGain(valueOf(ray, 'gainDb')) * (ray.invert ? -1 : 1)
  out[row + RayField.pan] = valueOf(ray, 'pan')
  out[row + RayField.tuneCents] = valueOf(ray, 'tuneCents')
  out[row + RayField.keyTrack] = valueOf(ray, 'keyTrack')
  out[row + RayField.delayFrames] = toFrames(valueOf(ray, 'delaySeconds'), context)
  out[row + RayField.mute] = ray.mute || settings.mute || ray.source.kind === 'body' ? 1 : 0
  out[row + RayField.bus] = context.busSlotOf(ray.bus ?? settings.bus)
  const sends = ray.sends.filter(({ busId }) => context.busSlotOf(busId) !== 0)
  const at = table(out, sends.length, SendField.length)
  out[row + RayField.sendCount] = sends.length
  out[row + RayField.sends] = at
  sends.forEach((send, i) => {
    out[at + i * SendField.length + SendField.to] = context.busSlotOf(send.busId)
    out[at + i * SendField.length + SendField.gain] = dbToGain(valueOf(send, 'gainDb'))
    out[at + i * SendField.length + SendField.isPre] = send.tap === 'pre' ? 1 : 0
  })
}

/** What its voices pass; a stage that does nothing is not among them. */
function writeShape(
  out: number[],
  row: number,
  { values, choices, envelopes }: Shape,
  movers: readonly Mover[],
  context: CompileContext,
): void {
  const moved = movers.some(({ param }) => param === 'filter1EnvelopeCents')
  out[row + RayField.startSeconds] = values.startSeconds
  out[row + RayField.amp] = writeEnvelope(out, envelopes.level, values.decayScale, context)
  out[row + RayField.pitch] = writePitchEnvelope(out, envelopes.pitch, context)
  out[row + RayField.filterType] = codeIn(filterCodes, choices.filter1Kind) ?? filterCodes.off
  out[row + RayField.cutoffHz] = values.filter1CutoffHz
  out[row + RayField.damping] = values.filter1Damping
  out[row + RayField.filterEnv] = values.filter1EnvelopeCents === 0 && !moved ? -1 : writeEnvelope(out, envelopes.filter1, 1, context)
  out[row + RayField.filterEnvCents] = values.filter1EnvelopeCents
  const stages = [
    ...(out[row + RayField.filterType] === filterCodes.off ? [] : [stageCodes.filter1]),
    ...(out[row + RayField.amp] < 0 ? [] : [stageCodes.level]),
  ]
  out[row + RayField.stageCount] = stages.length
  out[row + RayField.stages] = out.length
  out.push(...stages)
}

/** Where each parameter stands, pad and ray together: from here edits, beads and tillers reckon. */
function writeValues(out: number[], row: number, settings: PadSettings, shape: Shape): void {
  const at = table(out, 1, PARAMS)
  out[row + RayField.values] = at
  for (const name of movedParameters) {
    const { joins, movedBy } = parameterRow(name)
    const value = shape.values[name] + (joins === 'add' ? settings.values[name] : 0)
    out[at + ParamCode[name]] = movedValue(value, movedBy)
  }
}
