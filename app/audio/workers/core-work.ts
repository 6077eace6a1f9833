import { hitPortraitsOf, hitUnlikeness, joinsOf, measureSound, soundingOf } from '@heliaster/core/alike'
import type { Join, Sounding } from '@heliaster/core/alike'
import { columnsOf, momentaryLoudness, peakOf, peakOfAudio, strikeLoudness, summarise, toMono, writeWav } from '@heliaster/core/audio'
import type { Audio, Summary } from '@heliaster/core/audio'
import {
  attacksOf,
  curveOverLine,
  decaySeconds,
  heardStrikes,
  hitSpectrogram,
  hitSpectrograms,
  hitsAt,
  likelyPlaces,
  listenForStrikes,
  pitchOf,
  spectrogramOf,
  strikeCentreHz,
} from '@heliaster/core/cut'
import type { EdgePlaces, Heard, HeardAs, Hit, KnownHits, Places, SpectrogramView, StrengthCurve, Strikes } from '@heliaster/core/cut'
import { readAudioFile } from '@heliaster/core/decode'
import { clipAudio } from '@heliaster/core/engine'
import { heardRhythm, paceOf } from '@heliaster/core/groove/rhythm'
import type { HeardRhythm, Pace } from '@heliaster/core/groove/rhythm'
import { balanceOf, hidesAmong } from '@heliaster/core/hearing'
import type { Heard as HeardSound, Hiding, LevelChange } from '@heliaster/core/hearing'
import type { AudioHash, Clip } from '@heliaster/core/kit'
import { lagBetween, strikeLikeness } from '@heliaster/core/place'
import type { Lag } from '@heliaster/core/place'
import { followLevel, followPitch } from '@heliaster/core/shaping'
import type { RecordedHit } from '@heliaster/core/shaping'
import { alikeStretches, strikesWithin } from '@heliaster/core/slices/find'
import type { Stretch } from '@heliaster/core/slices'
import { transfer } from 'comlink'

import type { ClipLook } from '../files/clip-look'
import { arrivedBytes, comeAlone, comeTogether } from '../files/coming-in'
import { keptFile } from '../files/kept-file'
import { pictureOf } from '../files/picture'
import { hashOf } from './hash-of'
import { AT_ONCE_BYTES, giveBack, letGo, tidy } from './let-go'
import { onTray } from './trays'

export interface Decoded {
  readonly audio: Audio
  readonly cueFrames: number[]
  readonly notes: string[]
}

/** A recording as it is looked at: the mean of its channels, and what pictures of it are drawn from. */
export interface Looked {
  readonly mono: Float32Array
  readonly summary: Summary
}

/** What was heard in a recording: its curve, the curve as the water line sees it with its summary, its strikes, and where those begin that are likely cut. */
export interface HeardInPage {
  readonly curve: StrengthCurve
  readonly shown: StrengthCurve
  readonly levels: Summary
  readonly strikes: Strikes
  readonly places: Places
}

export interface HitPlace {
  readonly onsetFrame: number
  readonly endFrame: number
}

/** Samples, or a file of which nobody but the worker needs them. */
export type Sound = Audio | Blob

export interface Failed {
  readonly ok: false
  readonly message: string
}

export interface Plain {
  readonly ok: true
  readonly decoded: Decoded
}

/** What lies on a tray. */
interface OnTray {
  readonly ok: true
  readonly sampleRateHz: number
  readonly channels: number
  readonly frames: number
}

interface Kept {
  readonly audio: Audio
  readonly mono: Float32Array
  heard?: Heard
  readonly known: KnownHits
}

/** Browser and worker hold more of a file that was read than its bytes, of 2,000 of them 42 MB in the browser alone: counted as so much, they are made to look often. */
const HANDLE_BYTES = 250e3
const KEPT = 3
const LOOK_COLUMNS = 40
const kept = new Map<string, Kept>()

/** The heavy work on recordings, away from the page. */
export const work = {
  hash: (bytes: ArrayBuffer) => hashOf(new Uint8Array(bytes)),
  comeAlone,
  comeTogether,
  /** A file that this device keeps, or that has just come to it. */
  file: fileHere,
  decode: async (file: Blob): Promise<Failed | Plain> => asMessage(await decodeFile(file)),
  /** Decodes a file that this device keeps, or that has just come to it; undefined where it is elsewhere. */
  async decodeHere(hash: AudioHash): Promise<Failed | Plain | undefined> {
    const result = await decodedHere(hash)
    return result && asMessage(result)
  },
  /** The same onto a tray, one channel behind the other; what does not fit on it comes by itself. */
  async decodeOnto(tray: SharedArrayBuffer, hash: AudioHash): Promise<Failed | Plain | OnTray | undefined> {
    const result = await decodedHere(hash)
    if (!result?.ok) return result
    const { channels, sampleRateHz } = result.decoded.audio
    const frames = channels[0]?.length ?? 0
    if (4 * channels.length * frames > tray.byteLength)
      return transfer({ ok: true as const, decoded: result.decoded }, channels.flatMap(ownBuffer))
    const laid = onTray(tray, channels.length, frames)
    laid.forEach((to, i) => to.set(channels[i]))
    giveBackAll(channels)
    return { ok: true, sampleRateHz, channels: channels.length, frames }
  },
  /** Nothing more is decoded for now. */
  tidy: () => tidy(false, AT_ONCE_BYTES),
  encode(audio: Audio, bits: 16 | 24 | 32): ArrayBuffer {
    const bytes = writeWav(audio, { bits })
    return transfer(bytes.buffer, [bytes.buffer])
  },
  /** Keeps the recording here, so that all that is asked of it later sends nothing but numbers. */
  look(key: string, audio: Audio): Looked {
    const mono = audio.channels.length === 1 ? audio.channels[0] : handedOn(toMono(audio))
    kept.delete(key)
    kept.set(key, { audio, mono, known: new Map() })
    if (kept.size > KEPT) kept.delete([...kept.keys()][0])
    return { mono, summary: summarise(mono) }
  },
  /** Undefined where the recording is no longer kept here. */
  listen(key: string, as: HeardAs): HeardInPage | undefined {
    const held = kept.get(key)
    if (!held) return undefined
    held.heard = heardStrikes(held.mono, held.audio.sampleRateHz, as)
    held.known.clear()
    const { curve, strikes } = held.heard
    const shown = curveOverLine(curve, strikes)
    const places = likelyPlaces(held.mono, held.audio.sampleRateHz, held.heard)
    const shared = (of: StrengthCurve) => ({ ...of, strength: handedOn(of.strength) })
    return { curve: shared(curve), shown: shared(shown), levels: summarise(shown.strength), strikes, places }
  },
  describe(key: string, onsetFrames: number[], endFrames: (number | undefined)[], places: EdgePlaces): Hit[] | undefined {
    const held = kept.get(key)
    return held?.heard && hitsAt(held.audio, held.mono, onsetFrames, endFrames, held.heard, places, held.known)
  },
  /** How hits join from the most alike on; undefined where the recording is no longer kept here. */
  joins(key: string, hits: readonly HitPlace[]): Join[] | undefined {
    const held = kept.get(key)
    if (!held) return undefined
    const portraits = hitPortraitsOf(held.mono, held.audio.sampleRateHz, hits)
    return joinsOf(hits.length, (a, b) => hitUnlikeness(portraits[a], portraits[b]))
  },
  /** What was struck in a played rhythm, and how it goes; undefined where the recording is no longer kept here. */
  rhythm(key: string, hits: readonly (HitPlace & Pick<Hit, 'peakDb' | 'centreHz'>)[]): HeardRhythm | undefined {
    const held = kept.get(key)
    if (!held) return undefined
    const rate = held.audio.sampleRateHz
    const portraits = hitPortraitsOf(held.mono, rate, hits)
    return heardRhythm(
      hits.map(({ onsetFrame, peakDb, centreHz }, i) => ({ seconds: onsetFrame / rate, peakDb, centreHz, portrait: portraits[i] })),
    )
  },
  /** Who hides whom among sounds that play together, one channel each at 48 kHz. */
  hides(sounds: readonly Float32Array[]): Hiding[] {
    return hidesAmong(sounds)
  },

  /** The loudest 400 ms of a sound, LUFS. */
  loudness(channels: readonly Float32Array[], sampleRateHz: number): number {
    return momentaryLoudness(channels, sampleRateHz)
  },

  /** Levels that would suit a groove. */
  balance(heard: readonly HeardSound[], sampleRateHz: number): LevelChange[] {
    return balanceOf(heard, sampleRateHz)
  },

  /** How a piece of music goes, by all that begins in it; undefined where nothing gathers to a pulse. */
  pace(mono: Float32Array, sampleRateHz: number): Pace | undefined {
    const heard = listenForStrikes(mono, sampleRateHz)
    return paceOf(attacksOf(mono, sampleRateHz, heard).map(({ frame, strength }) => ({ seconds: frame / sampleRateHz, strength, thing: 0, centreHz: 500 }))) // prettier-ignore
  },
  /** What a hit is found by among other sounds. */
  sounding(key: string, { onsetFrame, endFrame }: HitPlace): Sounding | undefined {
    const held = kept.get(key)
    return held && soundingOf(held.mono, held.audio.sampleRateHz, onsetFrame, endFrame)
  },
  measure: (audio: Audio) => measureSound(audio),
  /** Undefined until the recording has been looked at here. */
  spectrogram(key: string, startFrame: number, endFrame: number, columns: number, rows: number): Uint8Array | undefined {
    const held = kept.get(key)
    return held && spectrogramOf(held.mono, held.audio.sampleRateHz, startFrame, endFrame, columns, rows)
  },
  picture: (sound: Sound) => withAudio(sound, pictureOf),
  /** How much later one clip arrives than another, as they are in their files; undefined where one is silent. */
  lag(audio: Audio, clip: Clip, other: Audio, otherClip: Clip): Lag | undefined {
    const mono = (of: Audio, one: Clip) => toMono(clipAudio(of, { ...one, gainDb: 0, fadeInSeconds: 0 }))
    return lagBetween(mono(audio, clip), mono(other, otherClip), audio.sampleRateHz)
  },
  /** How sure it is that two clips are one strike; undefined where one is silent. */
  strikeLikeness(audio: Audio, clip: Clip, other: Audio, otherClip: Clip): number | undefined {
    const mono = (of: Audio, one: Clip) => toMono(clipAudio(of, { ...one, gainDb: 0, fadeInSeconds: 0 }))
    return strikeLikeness(mono(audio, clip), mono(other, otherClip), audio.sampleRateHz)
  },
  /** How loud a clip is as it is set, LUFS. */
  clipLoudness(audio: Audio, clip: Clip): number {
    const { channels, sampleRateHz } = clipAudio(audio, clip)
    return strikeLoudness(channels, sampleRateHz)
  },
  /** A clip in small, and how loud it is. */
  clipLook: (sound: Sound, clip: Clip): Promise<ClipLook> => withAudio(sound, (audio) => lookOfClip(audio, clip)),
  /** Where a clip's pitch settles, Hz; undefined where it has none. */
  clipPitchHz(audio: Audio, clip: Clip): number | undefined {
    return pitchOf(toMono(clipAudio(audio, { ...clip, gainDb: 0, fadeInSeconds: 0 })), audio.sampleRateHz)?.hz
  },
  /** Where slices of a stretch begin, by what is struck in it: frames of the file. */
  slicesAtStrikes: (audio: Audio, stretch: Stretch, isCoded: boolean): number[] => strikesWithin(audio, stretch, isCoded),
  /** Which stretches of a file sound alike, by their places. */
  alikeSlices: (audio: Audio, stretches: readonly Stretch[]): number[][] => alikeStretches(audio, stretches),
  /** Which frequencies of a hit sound when. */
  hitSpectrogram: (mono: Float32Array, sampleRateHz: number, view: SpectrogramView) => hitSpectrogram(mono, sampleRateHz, view),
  /** The same of parts of one hit, by one scale. */
  hitSpectrograms: (parts: readonly Float32Array[], sampleRateHz: number, view: SpectrogramView) =>
    hitSpectrograms(parts, sampleRateHz, view),
  /** The level envelope that lets one hit die away as another does; undefined where either is silent. */
  followLevel: (other: RecordedHit, own: RecordedHit) => followLevel(other, own),
  /** How the pitch of a hit falls; undefined where no single tone carries it. */
  followPitch: (hit: RecordedHit) => followPitch(hit),
  /** The highest sample of a clip with all that is set on it, linear. */
  clipPeak: (audio: Audio, clip: Clip) => peakOfAudio(clipAudio(audio, clip)),
  /** A clip with all that is set on it, as a sound of its own. */
  clipAudio: (audio: Audio, clip: Clip) => clipAudio(audio, clip),
}
export type CoreWork = typeof work

/** Does something with the samples of a sound; a file that cannot be read throws with what is wrong with it. */
async function withAudio<Made>(sound: Sound, make: (audio: Audio) => Made): Promise<Made> {
  if (!(sound instanceof Blob)) return make(sound)
  const result = await decodeFile(sound)
  if (!result.ok) throw new Error(result.message)
  const { channels } = result.decoded.audio
  const made = make(result.decoded.audio)
  giveBackAll(channels)
  return made
}

/** Gives back what of samples that were made here lies in memory of its own, and not where others do that are still needed. */
function giveBackAll(samples: readonly Float32Array[], needed: readonly Float32Array[] = []): void {
  const others = new Set(needed.map(({ buffer }) => buffer))
  for (const buffer of new Set(samples.flatMap(ownBuffer))) if (!others.has(buffer)) giveBack(buffer)
}

function lookOfClip(audio: Audio, clip: Clip): ClipLook {
  const { channels, sampleRateHz } = clipAudio(audio, clip)
  const mono = toMono({ channels, sampleRateHz })
  const look = {
    ...columnsOf(summarise(mono), mono, 0, mono.length, LOOK_COLUMNS),
    loudnessDb: strikeLoudness(channels, sampleRateHz),
    clipSeconds: mono.length / sampleRateHz,
    decaySeconds: mono.length === 0 ? 0 : decaySeconds(mono, sampleRateHz, peakOf(mono)),
    centreHz: strikeCentreHz({ channels: [mono], sampleRateHz }),
  }
  giveBackAll([...channels, mono], audio.channels)
  return look
}

async function fileHere(hash: AudioHash): Promise<Blob | undefined> {
  const bytes = arrivedBytes(hash)
  return bytes ? new Blob([bytes]) : keptFile(hash)
}

async function decodedHere(hash: AudioHash): Promise<Failed | Plain | undefined> {
  const bytes = arrivedBytes(hash)
  if (bytes) return decodeBytes(bytes)
  const file = await keptFile(hash)
  return file && decodeFile(file)
}

/** What was decoded, for the page. */
function asMessage(result: Failed | Plain): Failed | Plain {
  if (!result.ok) return result
  const audio = { ...result.decoded.audio, channels: result.decoded.audio.channels.map(handedOn) }
  return transfer({ ok: true as const, decoded: { ...result.decoded, audio } }, audio.channels.flatMap(ownBuffer))
}

async function decodeFile(file: Blob): Promise<Failed | Plain> {
  const result = await decodeBytes(new Uint8Array(await file.arrayBuffer()))
  letGo(HANDLE_BYTES)
  return result
}

async function decodeBytes(bytes: Uint8Array<ArrayBuffer>): Promise<Failed | Plain> {
  const result = await readAudioFile(bytes)
  letGo(bytes.length)
  if (!result.ok) return result
  const { audio, cues, notes } = result.file
  return { ok: true, decoded: { audio, cueFrames: cues.map((cue) => cue.frame), notes } }
}

/** What is shorter goes from hand to hand: memory that is shared is held by all that ever saw it until each of them tidies up. */
const LEAST_SHARED_SAMPLES = 1 << 20

/** A long recording's samples, that page and workers all read where they lie; short ones, and without shared memory, as they are. */
function handedOn(samples: Float32Array): Float32Array {
  if (samples.length < LEAST_SHARED_SAMPLES || !globalThis.crossOriginIsolated || typeof SharedArrayBuffer === 'undefined') return samples
  const shared = new Float32Array(new SharedArrayBuffer(samples.byteLength) as unknown as ArrayBuffer)
  shared.set(samples)
  return shared
}

function ownBuffer(samples: Float32Array): ArrayBuffer[] {
  return samples.buffer instanceof ArrayBuffer ? [samples.buffer] : []
}
