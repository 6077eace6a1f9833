import type { Kit, Pad, Ray, Turn } from '../../kit/kit'
import { movedParameters, parameterRow, parameters, valueOf } from '../../kit/parameters'
import type { Parameter, Stage } from '../../kit/parameters'
import { bandsOfRay, lenderOf, padSettings, filledPad, rayOfTurn, shapeOf } from '../../kit/resolve'
import type { PadSettings } from '../../kit/resolve'
import { stretchOf } from '../../kit/shape'
import { busesOfSlices } from '../../kit/slices'
import type { Shape } from '../../kit/shape'
import { dbToGain } from '../math'
import { hashId } from '../strike/chance'
import { DRIVE_FRAMES } from '../voice/both/drive'
import { driveCodes, filterCodes, modeCodes, pickCodes, stageCodes } from './codes'
import { movedValue, table, toFrames } from './context'
import type { CompileContext } from './context'
import { greatestCents } from './greatest-rate'
import { Head, MOST_SENDS, ParamCode, PARAMS, RayField, SendField } from './layout'
import { writeBands } from './write-bands'
import type { Cells } from './write-bands'
import { writeEnvelope } from './write-envelope'
import { writeLinks } from './write-links'
import { isLive, moversOf, writeMovers } from './write-responses'
import type { Mover } from './write-responses'

/** Compiles a pad to its flat program. The same pad, ties and regions give the same numbers. */
export function compilePad(kit: Kit, given: Pad, context: CompileContext): Float64Array {
  const out: number[] = new Array<number>(Head.length).fill(0)
  const pad = filledPad(kit, given)
  const settings = padSettings(kit, pad)
  out[Head.padHash] = hashId(pad.id)
  const lender = lenderOf(kit, given) ?? pad
  out[Head.turnsOf] = context.slotOf(lender.id)
  out[Head.turnsHash] = hashId(lender.id)
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
  out[Head.rollSeconds] = settings.values.rollSeconds
  out[Head.glideFrames] = settings.values.glideSeconds * context.sampleRateHz
  writeLinks(out, kit, pad, context)
  const movers = moversOf(kit, pad, settings)
  const settled = movers.filter((mover) => !isLive(mover))
  out[Head.settledCount] = settled.length
  out[Head.settled] = writeMovers(out, settled)
  out[Head.aheadFrames] = DRIVE_FRAMES * mostDrives(pad, settings, movers)
  const readings = greatestCents(kit, pad, settings, movers).map((mostCents) => ({ mostCents, ...padHolds(settings) }))
  const rowOf = (turn: Turn, place: number): number => {
    const ray = rayOfTurn(pad.rays[place], turn)
    return ray === pad.rays[place] ? 0 : writeRay(out, table(out, 1, RayField.length), pad, settings, ray, place, movers, context)
  }
  const cells = { readings, rowOf }
  writeRays(out, pad, settings, movers, cells, context)
  out[Head.bandCount] = pad.bands.length
  out[Head.bands] = writeBands(out, pad, pad.bands, cells, context)
  out[Head.size] = out.length
  return Float64Array.from(out)
}

/** Whether the clips of a pad go round, and whether its strikes are held. */
export function padHolds({ mode }: Pick<PadSettings, 'mode'>): { loops: boolean; isHeld: boolean } {
  return { loops: mode === 'loopUntilLetGo' || mode === 'loopUntilStruckAgain', isHeld: mode === 'hold' || mode === 'loopUntilLetGo' }
}

function writeRays(out: number[], pad: Pad, settings: PadSettings, movers: readonly Mover[], cells: Cells, context: CompileContext): void {
  const rays = table(out, pad.rays.length, RayField.length)
  out[Head.rayCount] = pad.rays.length
  out[Head.rays] = rays
  pad.rays.forEach((ray, index) => {
    const row = rays + index * RayField.length
    writeRay(out, row, pad, settings, ray, index, movers, context)
    const own = ray.source.kind === 'clips' ? ray.source.bands : undefined
    out[row + RayField.bandCount] = own ? own.length : -1
    if (!own) return
    out[row + RayField.bands] = writeBands(out, pad, own, cells, context)
    out[row + RayField.pick] = pickCodes[(ray.source.kind === 'clips' && ray.source.pick) || settings.pick]
  })
}

/** All of a ray but the bands it sounds from; returns where it was written. */
function writeRay(
  out: number[],
  row: number,
  pad: Pad,
  settings: PadSettings,
  ray: Ray,
  place: number,
  movers: readonly Mover[],
  context: CompileContext,
): number {
  const shape = shapeOf(settings, ray)
  const live = movers.filter((mover) => isLive(mover) && (mover.only < 0 || mover.only === place))
  writeWay(out, row, pad, settings, ray, context)
  writeShape(out, row, shape, settings.order, movers, context)
  writeValues(out, row, settings, shape)
  out[row + RayField.levelShareMoves] = live.some(({ param }) => param === 'levelEnvelope') ? 1 : 0
  out[row + RayField.liveCount] = live.length
  out[row + RayField.live] = writeMovers(out, live)
  out[row + RayField.bandCount] = -1
  return row
}

/** How loud a ray is, where it stands and where it goes. */
function writeWay(out: number[], row: number, pad: Pad, settings: PadSettings, ray: Ray, context: CompileContext): void {
  out[row + RayField.hash] = hashId(ray.id)
  out[row + RayField.gain] = dbToGain(valueOf(ray, 'gainDb')) * (ray.invert ? -1 : 1)
  out[row + RayField.pan] = valueOf(ray, 'pan')
  out[row + RayField.tuneCents] = valueOf(ray, 'tuneCents')
  out[row + RayField.keyTrack] = valueOf(ray, 'keyTrack')
  out[row + RayField.delayFrames] = toFrames(settings.values.delaySeconds + valueOf(ray, 'delaySeconds'), context)
  out[row + RayField.mute] = ray.mute || settings.mute || ray.source.kind === 'body' ? 1 : 0
  out[row + RayField.bus] = context.busSlotOf(ray.bus ?? settings.bus)
  writeSends(out, row, pad, ray, context)
}

/** What a ray sends to other buses, and what only slices of its clips do: that from behind the fader. */
function writeSends(out: number[], row: number, pad: Pad, ray: Ray, context: CompileContext): void {
  const sends = ray.sends.filter(({ busId }) => context.busSlotOf(busId) !== 0)
  const ofSlices = busesOfSlices(pad, ray).filter((busId) => context.busSlotOf(busId) !== 0 && sends.every((send) => send.busId !== busId))
  const count = Math.min(MOST_SENDS, sends.length + ofSlices.length)
  const at = table(out, count, SendField.length)
  out[row + RayField.sendCount] = count
  out[row + RayField.sends] = at
  for (let i = 0; i < count; i++) {
    const send = sends[i]
    const to = at + i * SendField.length
    out[to + SendField.to] = context.busSlotOf(send ? send.busId : ofSlices[i - sends.length])
    out[to + SendField.gain] = send ? dbToGain(valueOf(send, 'gainDb')) : 1
    out[to + SendField.isPre] = send?.tap === 'pre' ? 1 : 0
    out[to + SendField.isOfSlices] = send ? 0 : 1
  }
}

/** What its voices pass; a stage that does nothing is not among them. */
function writeShape(
  out: number[],
  row: number,
  { values, choices, envelopes }: Shape,
  order: readonly Stage[],
  movers: readonly Mover[],
  context: CompileContext,
): void {
  out[row + RayField.startSeconds] = values.startSeconds
  out[row + RayField.endSeconds] = values.endSeconds
  out[row + RayField.fadeInSeconds] = values.fadeInSeconds
  out[row + RayField.fadeOutSeconds] = values.fadeOutSeconds
  out[row + RayField.amp] = writeEnvelope(out, envelopes.level, stretchOf({ values, envelopes }, 'level'), context)
  out[row + RayField.pitch] = writeEnvelope(out, envelopes.pitch, stretchOf({ values, envelopes }, 'pitch'), context)
  writeFilter(out, row, 'filter1', { values, choices, envelopes }, movers, context)
  writeFilter(out, row, 'filter2', { values, choices, envelopes }, movers, context)
  writeLowCut(out, row, values)
  out[row + RayField.crush] = values.crush
  out[row + RayField.crushBits] = values.crushBits
  out[row + RayField.crushRateHz] = values.crushRateHz
  out[row + RayField.crushFilter] = choices.crushFilter === 'on' ? 1 : 0
  out[row + RayField.width] = values.width
  out[row + RayField.levelShare] = values.levelEnvelope
  out[row + RayField.pitchShare] = values.pitchEnvelope
  out[row + RayField.attackDb] = values.attackDb
  out[row + RayField.tailDb] = values.tailDb
  out[row + RayField.driveKind] = driveCodes[choices.driveKind]
  out[row + RayField.driveDb] = values.driveDb
  out[row + RayField.driveAfterDb] = values.driveAfterDb
  out[row + RayField.driveLevelDb] = values.driveLevelDb
  const drives = drivesOf(values, movers)
  const waitFrames = out[Head.aheadFrames] - DRIVE_FRAMES * drives.count
  out[row + RayField.waitFrames] = waitFrames
  out[row + RayField.levelIsAfter] = drives.after ? 1 : 0
  const isMoved = (name: Parameter) => movers.some(({ param }) => param === name)
  const isOn = {
    edges: values.fadeInSeconds > 0 || values.fadeOutSeconds > 0 || isMoved('fadeInSeconds') || isMoved('fadeOutSeconds'),
    lowCut: values.lowCutHz > parameters.lowCutHz.usual || isMoved('lowCutHz'),
    transient: values.attackDb !== 0 || values.tailDb !== 0 || isMoved('attackDb') || isMoved('tailDb'),
    drive: drives.before,
    wait: waitFrames > 0,
    crush: values.crush > 0 || isMoved('crush'),
    filter1: out[row + RayField.filter1] !== filterCodes.off,
    filter2: out[row + RayField.filter2] !== filterCodes.off,
    driveAfter: drives.after,
    width: values.width !== parameters.width.usual || isMoved('width'),
    level: out[row + RayField.amp] >= 0,
  }
  if (!isOn.lowCut) out[row + RayField.lowCut] = filterCodes.off
  const stages = (['edges', 'wait', 'lowCut', ...order, 'driveAfter', 'width', 'level'] as const).filter((stage) => isOn[stage])
  out[row + RayField.stageCount] = stages.length
  out[row + RayField.stages] = out.length
  out.push(...stages.map((stage) => stageCodes[stage]))
}

/** Which drives a ray of such values passes. */
function drivesOf(values: Shape['values'], movers: readonly Mover[]): { before: boolean; after: boolean; count: number } {
  const before = values.driveDb > 0 || movers.some(({ param }) => param === 'driveDb')
  const after = values.driveAfterDb > 0 || movers.some(({ param }) => param === 'driveAfterDb')
  return { before, after, count: (before ? 1 : 0) + (after ? 1 : 0) }
}

/** The most drives that any ray of a pad passes, as it is or as a turn has it: all its rays are read as far ahead. */
function mostDrives(pad: Pad, settings: PadSettings, movers: readonly Mover[]): number {
  const shapes = pad.rays.flatMap((ray) => [
    ray,
    ...bandsOfRay(pad, ray).flatMap(({ turns }) => turns.map((turn) => rayOfTurn(ray, turn)).filter((one) => one !== ray)),
  ])
  return Math.max(0, ...shapes.map((ray) => drivesOf(shapeOf(settings, ray).values, movers).count))
}

/** A low cut is a high pass of 12 dB that is flat down to where it begins. */
function writeLowCut(out: number[], row: number, values: Shape['values']): void {
  out[row + RayField.lowCut] = filterCodes.highPass
  out[row + RayField.lowCutSections] = 1
  out[row + RayField.lowCutCutoffHz] = values.lowCutHz
  out[row + RayField.lowCutDamping] = Math.SQRT2
  out[row + RayField.lowCutEnv] = -1
}

function writeFilter(
  out: number[],
  row: number,
  name: 'filter1' | 'filter2',
  { values, choices, envelopes }: Shape,
  movers: readonly Mover[],
  context: CompileContext,
): void {
  const reach = values[`${name}EnvelopeCents`]
  const isMoved = movers.some(({ param }) => param === `${name}EnvelopeCents`)
  out[row + RayField[name]] = filterCodes[choices[`${name}Kind`]]
  out[row + RayField[`${name}Sections`]] = choices[`${name}Slope`] === '24' ? 2 : 1
  out[row + RayField[`${name}CutoffHz`]] = values[`${name}CutoffHz`]
  out[row + RayField[`${name}Damping`]] = values[`${name}Damping`]
  out[row + RayField[`${name}GainDb`]] = values[`${name}GainDb`]
  out[row + RayField[`${name}Env`]] =
    reach === 0 && !isMoved ? -1 : writeEnvelope(out, envelopes[name], stretchOf({ values, envelopes }, name), context)
  out[row + RayField[`${name}EnvCents`]] = reach
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
