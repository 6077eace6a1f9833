import { measureSound } from '@heliaster/core/alike'
import { hashAudio, strikeLoudness, writeWav } from '@heliaster/core/audio'
import { EDGE_FADE_IN_SECONDS, EDGE_FADE_OUT_SECONDS, startFrameOf } from '@heliaster/core/cut'
import { createGroove, withBead } from '@heliaster/core/groove'
import {
  createBand,
  createIds,
  createKit,
  createPad,
  createRay,
  createSource,
  createTurn,
  velocityToLevel,
  wholeClip,
} from '@heliaster/core/kit'
import type { AudioHash, AudioInfo, Clip, Kit, KitId, MakeId, Pad, OwnSettings, Source, SourceId } from '@heliaster/core/kit'
import { asTurns, byLoudness, evenEdges } from '@heliaster/core/place'

import { createRandom } from './random'
import { benchTakes, tarpSlaps, walkAround } from './recordings'
import type { DemoRecording, TrueStrike } from './recordings'
import { RATE, strikeSound } from './strike-sound'
import type { Microphone } from './strike-sound'
import { things } from './things'
import type { ThingName } from './things'

/** All demo data: audio files by hash, the recordings they belong to, and the kit 'Low Tide'. */
export interface Demo {
  readonly kit: Kit
  readonly sources: Source[]
  readonly audio: Map<AudioHash, { readonly name: string; readonly bytes: Uint8Array }>
}

const HULL_MICROPHONES: Microphone[] = [
  { name: 'keel', brightness: 0.9, delaySeconds: 0, room: 0.03, gain: 0.8 },
  { name: 'deck', brightness: 1.1, delaySeconds: 0.0021, room: 0.12, gain: 0.7 },
  { name: 'pier', brightness: 0.75, delaySeconds: 0.0118, room: 0.45, gain: 0.5 },
]
const RECORDING_DAY = Date.UTC(2026, 4, 2, 6, 40) // a low tide
const HULL_DAY = Date.UTC(2026, 4, 1, 6, 5)
const DYNAMICS = 5
const TAKES = 6

interface Files {
  readonly makeId: MakeId
  readonly sources: Source[]
  readonly audio: Map<AudioHash, { name: string; bytes: Uint8Array; info: AudioInfo }>
}

/** Makes the whole boatyard from its seed; the same bytes every time. */
export function createDemo(): Demo {
  const files: Files = { makeId: createIds(createRandom(4)), sources: [], audio: new Map() }
  addFile(files, 'Walk around the yard', 'walk-around.wav', walkAround().samples, ['field'])
  const slaps = tarpSlaps()
  const slapFile = addFile(files, 'Tarp slaps, soft to loud', 'tarp-slaps.wav', slaps.samples, ['tarp'])
  const bench = benchTakes()
  const benchFile = addFile(files, 'Bench takes', 'bench-takes.wav', bench.samples, ['bench'])
  const hull = addHull(files)
  const kit = lowTide(files, hull, { file: slapFile, recording: slaps }, { file: benchFile, recording: bench })
  return { kit, sources: files.sources, audio: files.audio }
}

function addFile(files: Files, title: string, name: string, samples: Float32Array, tags: string[]): AudioHash {
  const bytes = writeWav({ sampleRateHz: RATE, channels: [samples] }, { bits: 16 })
  const hash = hashAudio(bytes)
  const info: AudioInfo = { name, sampleRateHz: RATE, frames: samples.length, channels: 1 }
  files.audio.set(hash, { name, bytes, info })
  const audio = { sampleRateHz: RATE, channels: [samples] }
  const isHit = samples.length < 2 * RATE
  files.sources.push(
    createSource(files.makeId, hash, info, title, {
      id: `demo-${name.replace(/\W+/g, '-')}` as SourceId,
      tags: ['boatyard', ...tags],
      addedAt: isHit ? HULL_DAY : RECORDING_DAY,
      origin: isHit ? 'imported' : 'recorded',
      family: isHit ? 'kick' : 'other',
      measured: measureSound(audio),
    }),
  )
  return hash
}

/** Ninety files of one hull: three microphones, five dynamics, six takes. */
function addHull(files: Files): AudioHash[][][] {
  return HULL_MICROPHONES.map((microphone) =>
    Array.from({ length: DYNAMICS }, (_, dynamic) =>
      Array.from({ length: TAKES }, (_, take) => {
        const strength = 0.16 + (0.84 * (dynamic + 0.5 * (take / TAKES))) / (DYNAMICS - 0.5)
        const sound = strikeSound(things.hullThump, Math.min(1, strength), 7000 + dynamic * 100 + take, microphone)
        const name = `hull-thump_${microphone.name}_d${dynamic + 1}_t${String(take + 1).padStart(2, '0')}`
        return addFile(files, name, `${name}.wav`, sound.slice(0, Math.round(0.9 * RATE)), ['hull', microphone.name])
      }),
    ),
  )
}

interface Take {
  readonly file: AudioHash
  readonly recording: DemoRecording
}

function clipOf(take: Take, strike: TrueStrike, next: TrueStrike | undefined): Clip {
  const startFrame = startFrameOf(strike.frame, RATE)
  const limit = next ? startFrameOf(next.frame, RATE) : take.recording.samples.length
  const clip = wholeClip(take.file, { frames: Math.min(strike.endFrame, limit), channels: 1 })
  return { ...clip, startFrame, fadeInSeconds: EDGE_FADE_IN_SECONDS, fadeOutSeconds: EDGE_FADE_OUT_SECONDS }
}

function clipsOf(take: Take, thing: ThingName): { clip: Clip; loudnessDb: number }[] {
  const { strikes, samples } = take.recording
  return strikes.flatMap((strike, i) => {
    if (strike.thing !== thing) return []
    const clip = clipOf(take, strike, strikes[i + 1])
    return [{ clip, loudnessDb: strikeLoudness([samples.subarray(clip.startFrame, clip.endFrame)], RATE) }]
  })
}

function lowTide(files: Files, hull: AudioHash[][][], slaps: Take, bench: Take): Kit {
  const { makeId } = files
  let note = 36
  const pad = (own: OwnSettings, fill: (pad: Pad) => Partial<Pad>): Pad => {
    const empty = createPad(makeId, own, note++)
    const filled = { ...empty, ...fill(empty) }
    return { ...filled, own: { responses: [velocityToLevel(filled.bands.length)], ...own } }
  }
  const turns = (thing: ThingName) => (empty: Pad) => ({
    bands: asTurns(
      makeId,
      empty.rays[0].id,
      clipsOf(bench, thing).map((take) => take.clip),
    ),
  })
  const layers = (take: Take, thing: ThingName, count: number) => (empty: Pad) => ({
    bands: byLoudness(makeId, empty.rays[0].id, clipsOf(take, thing), count),
    spread: 'loudness' as const,
  })
  const pads = [
    pad({ name: 'Hull thump', family: 'kick', pick: 'shuffle', values: { gainDb: 4 } }, (empty) => hullFilling(files, empty, hull)),
    pad({ name: 'Tarp slap', family: 'snare', pick: 'shuffle', values: { gainDb: 3 } }, layers(slaps, 'tarpSlap', 5)),
    pad({ name: 'Hatch tick', family: 'hat', pick: 'shuffle', values: { gainDb: -3 }, maxStrikes: 2 }, turns('hatchTick')),
    pad({ name: 'Bilge hiss', family: 'hat', pick: 'cycle', values: { gainDb: -8 }, maxStrikes: 2 }, turns('bilgeHiss')),
    pad({ name: 'Oar, low', family: 'tom', pick: 'cycle' }, layers(bench, 'oarLow', 2)),
    pad({ name: 'Oar, high', family: 'tom', pick: 'cycle' }, layers(bench, 'oarHigh', 2)),
    pad({ name: 'Halyard clink', family: 'bell', pick: 'random', values: { gainDb: -8 } }, turns('halyardClink')),
    pad({ name: 'Winch ratchet', family: 'shaker', pick: 'shuffle', values: { gainDb: -4 } }, turns('winchRatchet')),
    pad({ name: 'Buoy bell', family: 'bell', pick: 'cycle', values: { gainDb: -6 }, maxStrikes: 3 }, turns('buoyBell')),
    pad({ name: 'Chain drop', family: 'noise', pick: 'shuffle', values: { gainDb: -5 } }, turns('chainDrop')),
    pad({ name: 'Keel drop', family: 'kick', pick: 'cycle', values: { gainDb: 2 }, envelopes: keelEnvelopes }, turns('oarLow')),
  ]
  const [thump, slap, tick, hiss] = pads
  const used = new Set(
    pads.flatMap((one) =>
      one.bands.flatMap((band) => band.turns.flatMap((turn) => Object.values(turn.clips).map((clip) => (clip as Clip).audio))),
    ),
  )
  const audio = Object.fromEntries([...used].map((hash) => [hash, files.audio.get(hash)!.info]))
  return {
    ...createKit(makeId, 'Low Tide'),
    id: 'demo-low-tide' as KitId,
    tempoBpm: 92,
    values: { gainDb: -4 },
    pads,
    ties: [{ kind: 'chokeGroup', id: makeId('tie'), name: 'Hatch', pads: [tick.id, hiss.id], fadeSeconds: 0.012 }],
    grooves: [grooveOf(makeId, thump, slap, tick, hiss)],
    audio,
  }
}

function hullFilling(files: Files, empty: Pad, hull: AudioHash[][][]): Partial<Pad> {
  const rays = HULL_MICROPHONES.map((microphone, i) => ({
    ...(i === 0 ? empty.rays[0] : createRay(files.makeId, microphone.name)),
    name: microphone.name[0].toUpperCase() + microphone.name.slice(1),
    microphone: true,
    values: { gainDb: [0, -4, -8][i] },
  }))
  const edges = evenEdges(DYNAMICS)
  const bands = edges.map((edge, dynamic) => ({
    ...createBand(
      files.makeId,
      edge,
      Array.from({ length: TAKES }, (_, take) =>
        createTurn(
          files.makeId,
          Object.fromEntries(
            rays.map((ray, i) => [ray.id, wholeClip(hull[i][dynamic][take], files.audio.get(hull[i][dynamic][take])!.info)]),
          ),
        ),
      ),
    ),
    blendVelocities: dynamic === 0 ? 0 : 6,
  }))
  return { rays, bands, spread: 'even' }
}

/** A wooden knock made into a deep one: the pitch falls by two octaves, the level follows it down. */
const keelEnvelopes = {
  pitch: { points: [{ seconds: 0, value: 500, bend: 0 }, { seconds: 0.06, value: -1900, bend: -0.6 }, { seconds: 0.4, value: -2500, bend: 0 }] },
  level: { points: [{ seconds: 0, value: 1, bend: 0 }, { seconds: 0.12, value: 0.8, bend: 0 }, { seconds: 0.5, value: 0, bend: -0.3 }] },
} // prettier-ignore

function grooveOf(makeId: MakeId, thump: Pad, slap: Pad, tick: Pad, hiss: Pad) {
  const rows: [Pad, [step: number, velocity: number][]][] = [
    [thump, [[0, 112], [3, 58], [6, 96], [10, 104]]],
    [slap, [[4, 108], [12, 114], [15, 38]]],
    [tick, [[0, 88], [2, 54], [4, 84], [6, 50], [8, 90], [10, 56], [12, 84]]],
    [hiss, [[14, 84]]],
  ] // prettier-ignore
  let groove = { ...createGroove(makeId, 'Slack water'), swing: 0.5 + 0.25 / 6 }
  for (const [pad, beads] of rows) for (const [step, velocity] of beads) groove = withBead(groove, pad.id, step, velocity)
  return groove
}
