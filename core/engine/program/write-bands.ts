import type { Band, Clip, Pad } from '../../kit/kit'
import { valueOf } from '../../kit/parameters'
import { bandsOfRay, clipOfCell } from '../../kit/resolve'
import { dbToGain } from '../math'
import { hashId } from '../strike/chance'
import { lawCodes } from './codes'
import { table } from './context'
import type { CompileContext, Reading } from './context'
import { BandField, ClipField, TurnField } from './layout'

/** Writes a list of bands with their turns and clips, and returns where it begins; `readings` says how each ray reads its clips. */
export function writeBands(out: number[], pad: Pad, bands: readonly Band[], readings: readonly Reading[], context: CompileContext): number {
  const at = table(out, bands.length, BandField.length)
  bands.forEach((band, index) => {
    const row = at + index * BandField.length
    out[row + BandField.hash] = hashId(band.id)
    out[row + BandField.fromVelocity] = band.fromVelocity
    out[row + BandField.blendVelocities] = band.blendVelocities
    out[row + BandField.blendLaw] = lawCodes[band.blendLaw]
    out[row + BandField.gain] = dbToGain(valueOf(band, 'gainDb'))
    out[row + BandField.turnCount] = band.turns.length
    out[row + BandField.turns] = writeTurns(out, pad, bands, index, readings, context)
  })
  return at
}

function writeTurns(
  out: number[],
  pad: Pad,
  bands: readonly Band[],
  bandIndex: number,
  readings: readonly Reading[],
  context: CompileContext,
): number {
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
      writeClip(out, clips + rayIndex * ClipField.length, clip, readings[rayIndex], context)
    })
  })
  return at
}

export function writeClip(out: number[], at: number, clip: Clip | undefined, reading: Reading, context: CompileContext): void {
  const region = clip && context.regionOf(clip, reading)
  out[at + ClipField.chunk] = region ? region.chunk : -1
  if (!clip || !region) return
  out[at + ClipField.left] = region.left
  out[at + ClipField.right] = region.right
  out[at + ClipField.frames] = region.frames
  out[at + ClipField.levels] = region.levels
  out[at + ClipField.rate] = region.sampleRateHz / context.sampleRateHz
  out[at + ClipField.gain] = dbToGain(clip.gainDb) * (clip.invert ? -1 : 1)
}
