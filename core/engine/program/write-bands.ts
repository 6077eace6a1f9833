import type { Band, Clip, Pad, Turn } from '../../kit/kit'
import type { FormedClip } from '../../kit/matter-values'
import type { BusId } from '../../kit/ids'
import { parameters, valueOf } from '../../kit/parameters'
import { playedSlices } from '../../kit/slices'
import { bandsOfRay, clipOfCell } from '../../kit/resolve'
import { dbToGain } from '../math'
import { hashId } from '../strike/chance'
import { lawCodes } from './codes'
import { table } from './context'
import type { CompileContext, Reading } from './context'
import { BandField, ClipField, FormField, MASTER, SliceField, TurnField } from './layout'

/** How the rays of a pad, by their places, play their cells. */
export interface Cells {
  readonly readings: readonly Reading[]
  /** Where the row of a ray is that a turn shapes for itself; 0 where it does not. */
  rowOf(turn: Turn, place: number): number
}

/** Writes a list of bands with their turns and clips, and returns where it begins. */
export function writeBands(out: number[], pad: Pad, bands: readonly Band[], cells: Cells, context: CompileContext): number {
  const at = table(out, bands.length, BandField.length)
  bands.forEach((band, index) => {
    const row = at + index * BandField.length
    out[row + BandField.hash] = hashId(band.id)
    out[row + BandField.fromVelocity] = band.fromVelocity
    out[row + BandField.blendVelocities] = band.blendVelocities
    out[row + BandField.blendLaw] = lawCodes[band.blendLaw]
    out[row + BandField.gain] = dbToGain(valueOf(band, 'gainDb'))
    out[row + BandField.turnCount] = band.turns.length
    out[row + BandField.turns] = writeTurns(out, pad, bands, index, cells, context)
  })
  return at
}

function writeTurns(out: number[], pad: Pad, bands: readonly Band[], bandIndex: number, cells: Cells, context: CompileContext): number {
  const turns = bands[bandIndex].turns
  const at = table(out, turns.length, TurnField.length)
  turns.forEach((turn, index) => {
    const clips = table(out, pad.rays.length, ClipField.length)
    const row = at + index * TurnField.length
    out[row + TurnField.hash] = hashId(turn.id)
    out[row + TurnField.weight] = turn.weight
    out[row + TurnField.clips] = clips
    pad.rays.forEach((ray, rayIndex) => {
      const shared = bandsOfRay(pad, ray) === bands
      const clip = shared ? clipOfCell(bands, bandIndex, index, ray) : undefined
      writeClip(out, clips + rayIndex * ClipField.length, clip, cells.readings[rayIndex], context)
      out[clips + rayIndex * ClipField.length + ClipField.ray] = cells.rowOf(turn, rayIndex)
    })
  })
  return at
}

export function writeClip(out: number[], at: number, clip: FormedClip | undefined, reading: Reading, context: CompileContext): void {
  writePlainClip(out, at, clip, reading, context)
  if (clip) writeSlices(out, at, clip, context)
  const forms = clip?.forms ?? []
  if (!clip || forms.length === 0) return
  const rows = table(out, forms.length, FormField.length)
  out[at + ClipField.formCount] = forms.length
  out[at + ClipField.forms] = rows
  out[at + ClipField.byVelocity] = clip.byVelocity ?? 0
  out[at + ClipField.byChance] = clip.byChance ?? 0
  forms.forEach((form, i) => {
    const row = rows + i * FormField.length
    out[row + FormField.note] = form.note ?? -1
    out[row + FormField.root] = form.isTuned ? (form.note ?? -1) : -1
    out[row + FormField.octaves] = form.octaves
    out[row + FormField.clip] = table(out, 1, ClipField.length)
    writePlainClip(out, out[row + FormField.clip]!, form.clip, reading, context)
    writeSlices(out, out[row + FormField.clip]!, form.clip, context)
  })
}

function writePlainClip(out: number[], at: number, clip: Clip | undefined, reading: Reading, context: CompileContext): void {
  const loop = clip?.loop && (clip.loop.until === 'end' || reading.isHeld) ? clip.loop : undefined
  const region = clip && context.regionOf(clip, loop ? { ...reading, alongLoop: true } : reading)
  out[at + ClipField.chunk] = region ? region.chunk : -1
  out[at + ClipField.roundFrom] = -1
  if (!clip || !region) return
  if (region.loop) {
    out[at + ClipField.roundFrom] = region.loop.roundFrom
    out[at + ClipField.loopStart] = region.loop.startFrame
    out[at + ClipField.loopPeriod] = region.loop.periodFrames
    out[at + ClipField.loopPlain] = region.loop.plainFrames
    out[at + ClipField.turnsBackAfter] = loop?.kind === 'backAndForth' ? region.loop.periodFrames / 2 : 0
    const tail = loop?.until === 'letGo' ? context.regionOf(clip, { ...reading, loops: false }) : undefined
    out[at + ClipField.tailChunk] = tail?.chunk ?? -1
    out[at + ClipField.tailLeft] = tail?.left ?? 0
    out[at + ClipField.tailRight] = tail?.right ?? -1
    out[at + ClipField.tailFrames] = tail?.frames ?? 0
    out[at + ClipField.tailLevels] = tail?.levels ?? 0
  }
  out[at + ClipField.left] = region.left
  out[at + ClipField.right] = region.right
  out[at + ClipField.frames] = region.frames
  out[at + ClipField.levels] = region.levels
  out[at + ClipField.rate] = region.sampleRateHz / context.sampleRateHz
  out[at + ClipField.gain] = dbToGain(clip.gainDb) * (clip.invert ? -1 : 1)
}

/** What is set for parts of a clip, in the order in which it plays them; nothing where nothing is set. */
function writeSlices(out: number[], at: number, clip: Clip, context: CompileContext): void {
  const slices = playedSlices(clip)
  if (slices.length === 0) return
  const rows = table(out, slices.length, SliceField.length)
  out[at + ClipField.sliceCount] = slices.length
  out[at + ClipField.slices] = rows - at
  slices.forEach(({ frame, slice }, i) => {
    const row = rows + i * SliceField.length
    out[row + SliceField.frame] = frame
    if (!slice) return
    out[row + SliceField.gainDb] = valueOf(slice, 'gainDb')
    out[row + SliceField.pan] = valueOf(slice, 'pan')
    out[row + SliceField.tuneCents] = valueOf(slice, 'tuneCents')
    const sends = Object.entries(slice.sends ?? {}).flatMap(([busId, { gainDb }]) => {
      const to = context.busSlotOf(busId as BusId)
      return to === MASTER ? [] : [{ to, gain: gainDb <= parameters.gainDb.min ? 0 : dbToGain(gainDb) }]
    })
    out[row + SliceField.sendCount] = sends.length
    out[row + SliceField.sends] = out.length - row
    for (const { to, gain } of sends) out.push(to, gain)
  })
}
