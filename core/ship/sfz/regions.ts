import type { FormedClip } from '../../kit/matter-values'
import type { Audio } from '../../audio/audio'
import { peakOfAudio, toDb } from '../../audio/audio'
import { clipSamples } from '../../engine'
import type { Band, Clip, Kit, Ray } from '../../kit/kit'
import { valueOf } from '../../kit/parameters'
import { bandsOfRay, clipOfCell, rayOfTurn, raySound } from '../../kit/resolve'
import type { PadSettings } from '../../kit/resolve'
import { cellLabel, clipName } from '../cells'
import type { NamedPad } from '../cells'
import { drawShape } from '../draw'
import type { AudioOf } from '../draw'
import { isDrawn, laidRound, roundLines, writtenRound } from './rounds'
import type { Round } from './rounds'

/** A region before its level is fitted to what SFZ allows. */
export interface Region {
  readonly sample: Sample
  readonly note: number
  /** Level over that of its sample as it is. */
  volumeDb: number
  readonly lines: readonly string[]
}

/** A WAV file of the samples folder. */
export interface Sample {
  readonly path: string
  audio: Audio
  /** What of it goes round, said in the file too. */
  readonly loop?: Round
}

export interface RegionsNeed {
  readonly kit: Kit
  readonly audioOf: AudioOf
  /** Takes a file up, once for each path. */
  sample(path: string, make: () => Omit<Sample, 'path'>): Sample
  note(words: string): void
}

/** All regions of one ray of a pad. */
export function regionsOfRay(need: RegionsNeed, named: NamedPad, settings: PadSettings, ray: Ray, notes: readonly number[]): Region[] {
  const bands = bandsOfRay(named.pad, ray)
  return bands.flatMap((band, bandIndex) =>
    band.turns.flatMap((_, turnIndex) => {
      const clip = clipOfCell(bands, bandIndex, turnIndex, ray)
      if (!clip) return []
      const label = cellLabel(named, ray, bandIndex, turnIndex)
      if (!need.audioOf(clip.audio)) {
        need.note(`${named.name}: the audio "${clipName(need.kit, clip)}" is missing, so ${label} was left out.`)
        return []
      }
      const shared = [...velocities(band, bands[bandIndex + 1]), ...turnLines(settings, ray, band, turnIndex)]
      const cell = { named, settings, ray: rayOfTurn(ray, band.turns[turnIndex]), band, clip, label, shared }
      return notes.map((note) => region(need, cell, note))
    }),
  )
}

/** A cell of a ray, as it is written for one note. */
interface WrittenCell {
  readonly named: NamedPad
  readonly settings: PadSettings
  readonly ray: Ray
  readonly band: Band
  readonly clip: Clip
  readonly label: string
  /** Lines that all notes of the cell share. */
  readonly shared: readonly string[]
}

function region(need: RegionsNeed, cell: WrittenCell, note: number): Region {
  const { kit } = need
  const { settings, ray, band, label, shared } = cell
  // What was worked for this note sounds there as it is.
  const form = (cell.clip as FormedClip).forms?.find((one) => one.note === note)
  const clip = form?.clip ?? cell.clip
  const { pad, name } = cell.named
  const sound = raySound(kit, settings, ray)
  const tracked = form || settings.rootNote === undefined ? 0 : valueOf(ray, 'keyTrack') * (note - settings.rootNote) * 100
  const cents = settings.values.tuneCents + valueOf(ray, 'tuneCents') + tracked
  // A shape moves with time and pitch, so its tuning is drawn with it: a file for each tuning.
  const drawn = isDrawn(kit, pad, ray, clip)
  const round = drawn ? undefined : writtenRound(settings, clip)
  const sample = drawn
    ? need.sample(`${name}/${label}${tracked === 0 && !form ? '' : ` n${note}`}.wav`, () => ({
        audio: drawShape(kit, pad, ray, clip, cents, need.audioOf)!,
      }))
    : need.sample(`${name}/${label}${form ? ` n${note}` : ''}.wav`, () =>
        round ? laidRound(need.audioOf(clip.audio)!, clip, round) : { audio: plainSample(need.audioOf, clip) },
      )
  const lines = [
    ...shared,
    `pan=${plainNumber(panOf(settings.values.pan + sound.pan))}`,
    ...(drawn ? [] : tuning(cents)),
    ...(sample.loop ? roundLines(sample.loop) : []),
  ]
  const delaySeconds = settings.values.delaySeconds + valueOf(ray, 'delaySeconds')
  const bend = Math.round(200 * valueOf(ray, 'bendTrack'))
  if (bend !== 0) lines.push(`bend_up=${bend}`, `bend_down=${-bend}`)
  if (delaySeconds > 0) lines.push(`delay=${plainNumber(delaySeconds)}`)
  if (ray.invert !== clip.invert) lines.push('phase=invert')
  const volumeDb = valueOf(kit, 'gainDb') + settings.values.gainDb + sound.gainDb + valueOf(band, 'gainDb') + clip.gainDb
  return { sample, note, volumeDb, lines }
}

function plainSample(audioOf: AudioOf, clip: Clip): Audio {
  const audio = audioOf(clip.audio)!
  return { sampleRateHz: audio.sampleRateHz, channels: clipSamples(audio, clip) }
}

const MOST_SEMITONES = 127

function tuning(cents: number): string[] {
  if (cents === 0) return []
  const whole = Math.max(-MOST_SEMITONES, Math.min(MOST_SEMITONES, Math.trunc(cents / 100)))
  return [`transpose=${whole}`, `tune=${Math.round(Math.max(-100, Math.min(100, cents - whole * 100)))}`]
}

/**
 * SFZ's place, -100..100, for the same levels left and right as here: sqrt(1 -+ p) here against the sine and cosine of a
 * quarter turn there.
 */
export function panOf(pan: number): number {
  const held = Math.max(-1, Math.min(1, pan))
  return ((Math.atan2(Math.sqrt(1 + held), Math.sqrt(1 - held)) * 4) / Math.PI - 1) * 100
}

function velocities(band: Band, above: Band | undefined): string[] {
  const top = above ? above.fromVelocity - 1 : 127
  const low = Math.max(1, band.fromVelocity - band.blendVelocities)
  const fadesIn = band.blendVelocities > 0 && low < band.fromVelocity
  const fadesOut = above !== undefined && above.blendVelocities > 0
  const lines = [`lovel=${low}`, `hivel=${top}`]
  if (fadesIn) lines.push(`xfin_lovel=${low}`, `xfin_hivel=${band.fromVelocity}`)
  if (fadesOut)
    lines.push(
      `xfout_lovel=${Math.max(band.fromVelocity, above.fromVelocity - above.blendVelocities)}`,
      `xfout_hivel=${above.fromVelocity}`,
    )
  if (fadesIn || fadesOut) lines.push(`xf_velcurve=${(fadesIn ? band : above!).blendLaw === 'power' ? 'power' : 'gain'}`)
  return lines
}

function turnLines(settings: PadSettings, ray: Ray, band: Band, turnIndex: number): string[] {
  if (band.turns.length < 2) return []
  const pick = (ray.source.kind === 'clips' && ray.source.bands && ray.source.pick) || settings.pick
  if (pick !== 'random') return [`seq_length=${band.turns.length}`, `seq_position=${turnIndex + 1}`]
  const total = band.turns.reduce((sum, turn) => sum + turn.weight, 0)
  const weight = (i: number) => (total === 0 ? 1 / band.turns.length : band.turns[i].weight / total)
  let from = 0
  for (let i = 0; i < turnIndex; i++) from += weight(i)
  return [`lorand=${plainNumber(from)}`, `hirand=${plainNumber(turnIndex === band.turns.length - 1 ? 1 : from + weight(turnIndex))}`]
}

export function plainNumber(value: number): number {
  return Number(value.toFixed(4))
}

/** What SFZ's volume takes, dB. */
export const VOLUME_DB = { least: -144, most: 6 } as const

/**
 * Brings files within full scale and levels within what SFZ takes: what a file holds too much goes into the level, what a
 * level holds too much into the file as far as there is room, and what is left is taken from all alike. Returns that, dB.
 */
export function fitLevels(regions: readonly Region[], scale: (sample: Sample, gain: number) => void): number {
  const bySample = new Map<Sample, Region[]>()
  for (const one of regions) bySample.set(one.sample, [...(bySample.get(one.sample) ?? []), one])
  let lowered = 0
  for (const [sample, users] of bySample) {
    const peakDb = toDb(peakOfAudio(sample.audio))
    if (!Number.isFinite(peakDb)) continue
    const most = Math.max(...users.map(({ volumeDb }) => volumeDb))
    const raise = Math.min(-peakDb, Math.max(0, most - VOLUME_DB.most)) // below 0 where the file passes full scale
    if (raise !== 0) {
      scale(sample, 10 ** (raise / 20))
      for (const one of users) one.volumeDb -= raise
    }
    lowered = Math.max(lowered, most - raise - VOLUME_DB.most)
  }
  for (const one of regions) one.volumeDb -= lowered
  return lowered
}
