import { withWorked } from '../../engine'
import { workedKit } from '../../matter'
import { writeWav } from '../../audio/wav-write'
import type { Kit, Pad, Ray } from '../../kit/kit'
import { notesOfPads, padSettings, raySound } from '../../kit/resolve'
import type { PadSettings } from '../../kit/resolve'
import { heightOf } from '../../kit/shape'
import { namedPads } from '../cells'
import type { NamedPad } from '../cells'
import type { AudioOf } from '../draw'
import { scaled } from '../fit'
import { fileName } from '../names'
import { oneLine, readme } from '../readme'
import type { Shipment, ShippedFile } from '../shipment'
import { chokesOf, silencesItself } from './chokes'
import type { Chokes } from './chokes'
import { lostOfKit, lostOfPad } from './fates'
import { fitLevels, plainNumber, regionsOfRay, VOLUME_DB } from './regions'
import type { Region, RegionsNeed, Sample } from './regions'
import { movesLevelOf } from './response-words'
import { endsWithNote } from './rounds'

/** A held strike that is let go fades so long. */
const STOP_FADE_SECONDS = 0.004

interface Group {
  readonly head: readonly string[]
  readonly regions: readonly Region[]
}

/** A kit as an SFZ file and its WAV files. Shaped hits are written as they sound; the rest at their own rate. */
export function writeSfz(given: Kit, sourceOf: AudioOf): Shipment {
  const kit = workedKit(given)
  const audioOf = withWorked(sourceOf)
  const notes = told(sfzOmissions(kit))
  const samples = new Map<string, Sample>()
  const sample = (path: string, make: () => Omit<Sample, 'path'>): Sample => {
    const known = samples.get(path) ?? { path, ...make() }
    samples.set(path, known)
    return known
  }
  const chokes = chokesOf(kit)
  const notesOf = notesOfPads(kit)
  const need = { kit, audioOf, sample, note: (words: string) => void notes.push(words) }
  const pads = namedPads(kit).map((named) => ({
    named,
    groups: groupsOfPad(need, named, chokes, notesOf.get(named.pad.id) ?? []),
  }))
  const regions = pads.flatMap(({ groups }) => groups.flatMap((group) => group.regions))
  const lowered = fitLevels(regions, (one, gain) => (one.audio = scaled(one.audio, gain)))
  if (lowered > 0.005) notes.push(`${kit.name}: some levels pass what SFZ takes, so the whole kit is ${lowered.toFixed(1)} dB softer.`)
  const silence = silenceLines(kit, chokes, sample)
  const text = [
    `// ${oneLine(kit.name)}, made with Heliaster`,
    '<control>',
    'default_path=samples/',
    '<global>',
    'pitch_keytrack=0',
    ...pads.flatMap(({ named, groups }) => ['', `// ${named.name}`, ...groups.flatMap(groupLines)]),
    ...silence,
  ]
  const sfz: ShippedFile = { path: `${fileName(kit.name)}.sfz`, bytes: new TextEncoder().encode(text.join('\n') + '\n') }
  const wavs = [...samples.values()].map(({ path, audio, loop }) => ({
    path: `samples/${path}`,
    bytes: writeWav(audio, { bits: 24, ...(loop ? { loop } : {}) }),
  }))
  const files = [sfz, ...wavs]
  return { files: [...files, readme(kit, 'sfz', notes, files)], notes, isTooLoud: lowered > 0.005 }
}

/** Everything that SFZ cannot say of a kit, pad by pad. */
export function sfzOmissions(kit: Kit): { where: string; words: string }[] {
  const { silenced } = chokesOf(kit)
  const ofPads = namedPads(kit).flatMap(({ pad, name }) => [
    ...lostOfPad(kit, pad).map((words) => ({ where: name, words })),
    ...(silenced.get(pad.id)?.isJoined
      ? [{ where: name, words: 'others silence it with several fades; in SFZ with the longest of them.' }]
      : []),
  ])
  return [...lostOfKit(kit).map((words) => ({ where: kit.name, words })), ...ofPads]
}

/** What is said of many pads alike is said once, with all their names. */
function told(omissions: readonly { readonly where: string; readonly words: string }[]): string[] {
  const names = new Map<string, string[]>()
  for (const { where, words } of omissions) names.set(words, [...(names.get(words) ?? []), where])
  return [...names].map(([words, where]) => `${where.join(', ')}: ${words}`)
}

/** A group for each ray of a pad that sounds, since velocity may move each otherwise. */
function groupsOfPad(need: Parameters<typeof regionsOfRay>[0], named: NamedPad, chokes: Chokes, notes: readonly number[]): Group[] {
  const settings = padSettings(need.kit, named.pad)
  if (settings.mode === 'silencer') return []
  const rays = named.pad.rays.filter((ray) => ray.source.kind === 'clips' && !raySound(need.kit, settings, ray).isMuted)
  return rays.map((ray) => ({
    head: groupHead(need.kit, named.pad, settings, ray, chokes),
    regions: regionsOfRay(need, named, settings, ray, notes).filter(({ volumeDb }) => volumeDb > VOLUME_DB.least),
  }))
}

function groupHead(kit: Kit, pad: Pad, settings: PadSettings, ray: Ray, chokes: Chokes): string[] {
  const silenced = chokes.silenced.get(pad.id)
  const strikes = silencesItself(kit, pad.id) ? 1 : settings.maxStrikes
  return [
    `group=${chokes.own.get(pad.id)}`,
    ...(endsWithNote(settings) ? ['loop_mode=no_loop', `ampeg_release=${STOP_FADE_SECONDS}`] : ['loop_mode=one_shot']),
    `polyphony=${strikes * voicesOfStrike(pad)}`,
    ...(silenced ? [`off_by=${silenced.group}`, ...offLines(silenced.fadeSeconds)] : []),
    ...velocityCurve(settings, ray),
  ]
}

/** SFZ counts voices where the kit counts strikes: a voice for each ray, twice where bands blend. */
function voicesOfStrike(pad: Pad): number {
  const blends = pad.bands.some(({ blendVelocities }) => blendVelocities > 0)
  return Math.max(1, pad.rays.length) * (blends ? 2 : 1)
}

function offLines(fadeSeconds: number): string[] {
  return fadeSeconds > 0 ? ['off_mode=time', `off_time=${plainNumber(fadeSeconds)}`] : ['off_mode=fast']
}

/** How far, as a share, the straight lines that readers draw between velocities may be from the level that is meant. */
const MOST_OFF = 0.003

/** The levels of as many velocities as straight lines between them need. */
function velocityCurve(settings: PadSettings, ray: Ray): string[] {
  const responses = settings.responses.filter((r) => movesLevelOf(r, ray.id))
  if (responses.length === 0) return ['amp_veltrack=0']
  const gainDb = (velocity: number) =>
    responses.reduce((db, { amount, curve, min = -Infinity, max = Infinity }) => db + Math.min(max, Math.max(min, amount * (heightOf(curve, velocity / 127) - 1))), 0) // prettier-ignore
  const gain = (velocity: number) => Math.min(1, 10 ** (gainDb(velocity) / 20))
  const lines = ['amp_veltrack=100']
  for (let at = 1; at <= 127; at = at === 127 ? 128 : farthestStraight(gain, at))
    lines.push(`amp_velcurve_${at}=${Number(gain(at).toPrecision(6))}`)
  return lines
}

/** The last velocity up to which a straight line from `from` is near enough everywhere. */
function farthestStraight(gain: (velocity: number) => number, from: number): number {
  let to = from + 1
  const isNear = (end: number) => {
    for (let v = from + 1; v < end; v++) {
      const line = gain(from) + ((gain(end) - gain(from)) * (v - from)) / (end - from)
      if (Math.abs(line - gain(v)) > MOST_OFF * gain(v)) return false
    }
    return true
  }
  while (to < 127 && isNear(to + 1)) to++
  return to
}

function groupLines({ head, regions }: Group): string[] {
  if (regions.length === 0) return []
  return [
    '<group>',
    ...head,
    ...regions.flatMap(({ sample, note, volumeDb, lines }) => [
      '<region>',
      `sample=${sample.path}`,
      `key=${note}`,
      `volume=${plainNumber(Math.max(VOLUME_DB.least, volumeDb))}`,
      ...lines,
    ]),
  ]
}

const SILENCE_PATH = 'silence.wav'

/** What silences others strikes a moment of silence in their groups along. */
function silenceLines(kit: Kit, chokes: Chokes, sample: RegionsNeed['sample']): string[] {
  const notesOf = notesOfPads(kit)
  const regions = kit.pads.flatMap((pad) =>
    (chokes.silences.get(pad.id) ?? []).flatMap((group) =>
      (notesOf.get(pad.id) ?? []).map((note) => [
        '<region>',
        `sample=${SILENCE_PATH}`,
        `key=${note}`,
        `group=${group}`,
        'loop_mode=one_shot',
      ]),
    ),
  )
  if (regions.length === 0) return []
  sample(SILENCE_PATH, () => ({ audio: { sampleRateHz: 48000, channels: [new Float32Array(48)] } }))
  return ['', '// What silences what', '<group>', ...regions.flat()]
}
