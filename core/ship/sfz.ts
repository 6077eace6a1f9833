import type { Audio } from '../audio/audio'
import { writeWav } from '../audio/wav-write'
import { bent, bendToK, clipSamples } from '../engine'
import type { AudioHash, PadId } from '../kit/ids'
import type { Band, Clip, Kit, Pad, PadSettings, Ray } from '../kit/kit'
import { bandsOfRay, chokedBy, notesOfPads, padSettings } from '../kit/resolve'
import { bakeClip, isShaped } from './bake'
import { fileName, uniqueNames } from './names'

export interface ShippedFile {
  readonly path: string
  readonly bytes: Uint8Array
}

export interface SfzShip {
  readonly files: ShippedFile[]
  /** What SFZ cannot say just so, in words for a person. */
  readonly notes: string[]
}

interface Writer {
  readonly kit: Kit
  readonly audioOf: (audio: AudioHash) => Audio | undefined
  readonly files: ShippedFile[]
  readonly notes: string[]
  readonly groups: Map<PadId, number>
}

/** A kit as an SFZ file and its WAV files. Shaped hits are written as they sound; the rest at their own rate. */
export function writeSfz(kit: Kit, audioOf: (audio: AudioHash) => Audio | undefined): SfzShip {
  const writer: Writer = { kit, audioOf, files: [], notes: [], groups: chokeGroups(kit) }
  const unique = uniqueNames()
  const notes = notesOfPads(kit)
  const lines = [`// ${oneLine(kit.name)}, made with Heliaster`, '<control>', 'default_path=samples/', '<global>', 'pitch_keytrack=0']
  for (const pad of kit.pads)
    lines.push('', ...writePad(writer, pad, unique(fileName(padSettings(kit, pad).name || 'pad')), notes.get(pad.id) ?? []))
  noteShuffles(writer)
  const text = lines.join('\n') + '\n'
  return { files: [{ path: `${fileName(kit.name)}.sfz`, bytes: new TextEncoder().encode(text) }, ...writer.files], notes: writer.notes }
}

function noteShuffles({ kit, notes }: Writer): void {
  const shuffled = kit.pads
    .map((pad) => ({ pad, settings: padSettings(kit, pad) }))
    .filter(({ pad, settings }) => settings.pick === 'shuffle' && pad.bands.some((band) => band.turns.length > 1))
  if (shuffled.length > 0)
    notes.push(
      `SFZ has no shuffle: the turns of ${shuffled.map(({ settings }) => settings.name || 'unnamed pad').join(', ')} are written as a cycle.`,
    )
}

function oneLine(text: string): string {
  return text.replace(/[\r\n]+/g, ' ')
}

function number(opcode: string, value: number): string {
  return `${opcode}=${Number(value.toFixed(4))}`
}

/** Pads tied by a choke share a group number where all silence each other; a one-way tie gives the silencing pad its own. */
function chokeGroups(kit: Kit): Map<PadId, number> {
  const groups = new Map<PadId, number>()
  let next = 1
  for (const tie of kit.ties) {
    if (tie.kind === 'chokeGroup') {
      for (const padId of tie.pads) if (!groups.has(padId)) groups.set(padId, next)
      next++
    } else if (tie.kind === 'choke' && !groups.has(tie.from)) groups.set(tie.from, next++)
  }
  return groups
}

function writePad(writer: Writer, pad: Pad, name: string, notes: number[]): string[] {
  const settings = padSettings(writer.kit, pad)
  const lines = [`// ${name}`, '<group>']
  lines.push(settings.mode === 'hold' ? 'loop_mode=no_loop' : 'loop_mode=one_shot', `polyphony=${settings.maxStrikes}`)
  lines.push(...velocityCurve(settings), ...chokeLines(writer, pad, name))
  if (notes.length === 0) writer.notes.push(`${name} has no note left to answer (128 are taken); it was left out.`)
  if (settings.mode === 'hold' && settings.shape.amp.sustain !== undefined)
    writer.notes.push(`${name}: its envelope is written into the samples, so it does not wait while the note is held.`)
  for (const ray of pad.rays) {
    if (ray.mute || ray.source.kind !== 'clips') continue
    const bands = bandsOfRay(pad, ray)
    bands.forEach((_, index) => lines.push(...writeBand(writer, pad, settings, ray, bands, index, name, notes)))
  }
  return lines
}

/** The level of 17 velocities; readers draw straight lines between them. */
function velocityCurve(settings: PadSettings): string[] {
  const responses = settings.responses.filter((r) => r.from === 'velocity' && r.to.kind === 'gainDb' && !r.bypass)
  if (responses.length === 0) return ['amp_veltrack=0']
  const gainAt = (velocity: number) => responses.reduce((db, r) => db + r.amount * (bent(0, 1, velocity / 127, bendToK(r.bend)) - 1), 0)
  const lines = ['amp_veltrack=100']
  for (let i = 0; i <= 16; i++) {
    const velocity = Math.max(1, Math.round((i * 127) / 16))
    lines.push(`amp_velcurve_${velocity}=${Number((10 ** (gainAt(velocity) / 20)).toFixed(5))}`)
  }
  return lines
}

function chokeLines(writer: Writer, pad: Pad, name: string): string[] {
  const lines: string[] = []
  const own = writer.groups.get(pad.id)
  if (own !== undefined) lines.push(`group=${own}`)
  const silencers = writer.kit.pads.filter((other) => chokedBy(writer.kit, other.id).some((tie) => tie.padId === pad.id))
  const groups = [...new Set(silencers.map((other) => writer.groups.get(other.id)))]
  if (groups.length > 0) lines.push(`off_by=${groups[0]}`, 'off_mode=fast')
  if (groups.length > 1) writer.notes.push(`${name} is silenced by ${groups.length} groups; SFZ can name one, the others are left out.`)
  return lines
}

function writeBand(
  writer: Writer,
  pad: Pad,
  settings: PadSettings,
  ray: Ray,
  bands: readonly Band[],
  index: number,
  name: string,
  notes: number[],
): string[] {
  const band = bands[index]
  const next = bands[index + 1]
  const lines: string[] = []
  band.turns.forEach((turn, turnIndex) => {
    const clip = turn.clips[ray.id]
    if (!clip || clip === 'intendedSilence') return
    const path = writeClip(
      writer,
      pad,
      ray,
      clip,
      `${name}/${name} b${index + 1} t${turnIndex + 1}${pad.rays.length > 1 ? ' ' + fileName(ray.name) : ''}`,
    )
    if (!path) {
      writer.notes.push(`${name}: the audio of band ${index + 1}, turn ${turnIndex + 1} is missing; that region was left out.`)
      return
    }
    for (const note of notes) {
      lines.push('<region>', `sample=${path}`, `key=${note}`, ...velocities(band, next), ...turnLines(settings, band, turnIndex))
      lines.push(
        number('volume', writer.kit.gainDb + settings.gainDb + band.gainDb + ray.gainDb + clip.gainDb),
        number('pan', clampPan(settings.pan + ray.pan) * 100),
      )
      const cents = settings.tuneCents + ray.tuneCents
      if (cents !== 0) lines.push(`transpose=${Math.trunc(cents / 100)}`, `tune=${Math.round(cents % 100)}`)
      if (ray.delaySeconds > 0) lines.push(number('delay', ray.delaySeconds))
      if (ray.invert !== clip.invert) lines.push('phase=invert')
    }
  })
  return lines
}

function velocities(band: Band, next: Band | undefined): string[] {
  const top = next ? next.fromVelocity - 1 : 127
  const low = Math.max(1, band.fromVelocity - band.blendVelocities)
  const lines = [`lovel=${low}`, `hivel=${top}`]
  const law = band.blendLaw === 'power' ? 'xf_velcurve=power' : 'xf_velcurve=gain'
  if (band.blendVelocities > 0 && low < band.fromVelocity) lines.push(`xfin_lovel=${low}`, `xfin_hivel=${band.fromVelocity}`, law)
  if (next && next.blendVelocities > 0)
    lines.push(`xfout_lovel=${Math.max(band.fromVelocity, next.fromVelocity - next.blendVelocities)}`, `xfout_hivel=${next.fromVelocity}`)
  return lines
}

function turnLines(settings: PadSettings, band: Band, turnIndex: number): string[] {
  if (band.turns.length < 2) return []
  if (settings.pick !== 'random') return [`seq_length=${band.turns.length}`, `seq_position=${turnIndex + 1}`]
  const total = band.turns.reduce((sum, turn) => sum + turn.weight, 0) || band.turns.length
  const weight = (i: number) => (total === 0 ? 1 : band.turns[i].weight) / total
  let from = 0
  for (let i = 0; i < turnIndex; i++) from += weight(i)
  return [number('lorand', from), number('hirand', from + weight(turnIndex))]
}

function clampPan(pan: number): number {
  return Math.max(-1, Math.min(1, pan))
}

function writeClip(writer: Writer, pad: Pad, ray: Ray, clip: Clip, name: string): string | undefined {
  const audio = writer.audioOf(clip.audio)
  if (!audio) return undefined
  const shipped = isShaped(writer.kit, pad, ray)
    ? bakeClip(writer.kit, pad, ray, clip, writer.audioOf)
    : { sampleRateHz: audio.sampleRateHz, channels: clipSamples(audio, clip) }
  if (!shipped) return undefined
  const path = `${name}.wav`
  writer.files.push({ path: `samples/${path}`, bytes: writeWav(shipped, { bits: 24 }) })
  return path
}
