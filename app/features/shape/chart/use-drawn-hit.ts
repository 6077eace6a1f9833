import { strikeLoudness } from '@heliaster/core/audio'
import type { Clip, Kit, Pad, PadId } from '@heliaster/core/kit'
import { padSettings, stretchOf } from '@heliaster/core/kit'
import { hitSpectrumDb, pitchOf } from '@heliaster/core/cut'
import { recipeOf } from '@heliaster/core/matter'
import { snapPlacesOf } from '@heliaster/core/shaping'
import type { SnapPlaces } from '@heliaster/core/shaping'
import { useEffect, useState } from 'react'

import { decodedAudio } from '../../../audio/files/audio-files'
import { WorkStopped } from '../../../audio/files/worked-sound'
import { drawStrike } from '../../../audio/engine/draw'
import { workedMatter } from '../../../audio/engine/worked'

/** A hit as the engine makes it, ready to be drawn. */
export interface DrawnHit {
  /** Highest level of each of `columns` parts of `seconds`. */
  readonly levels: Float32Array
  readonly seconds: number
  /** When it has fallen below -60 dB of its peak. */
  readonly soundSeconds: number
  /** All of it, the mean of both sides, at RATE_HZ. */
  readonly mono: Float32Array
  /** The wave of its first 20 ms. */
  readonly firstSamples: Float32Array
  /** Where points of envelopes are drawn to. */
  readonly snaps: SnapPlaces
  readonly clipSeconds: number
  /** Of the pad's first clip, as it was recorded. */
  readonly clipRateHz: number
  /** Highest level of each of `columns` parts of the pad's first clip, 0..1. */
  readonly clipLevels: Float32Array
  /** What it is made of, and what the clip is before it is shaped: dB in bands from 20 Hz to 20 kHz. */
  readonly spectrumDb: Float32Array
  readonly clipSpectrumDb: Float32Array
  /** How loud it is, dB, as strikes are compared. */
  readonly loudnessDb: number
  /** The first channel of the pad's first clip, at most LONGEST_SAMPLES of it. */
  readonly samples?: Float32Array
  /** Pitch of the pad's first clip as recorded, before tuning and envelope; undefined where it has none. */
  readonly pitchHz?: number
}

export const COLUMNS = 360
export const BANDS = 120
/** The beginning of a hit, where kicks are made. */
export const FIRST_SECONDS = 0.02
export const RATE_HZ = 48000
const LONGEST_SECONDS = 8
const SETTLE_MS = 40
/** What could not be drawn, since a sound of it had not come or was worked anew, is drawn again after so long, and then after twice as long. */
const AGAIN_MS = 1000
const MOST_AGAIN_MS = 30_000
const VELOCITY = 112
const LONGEST_SAMPLES = 24000

/** Draws the pad's hit anew after each change, in the engine's own worker. Its last drawing stays until the next is there, that of another pad does not. */
export function useDrawnHit(kit: Kit, pad: Pad): DrawnHit | undefined {
  const [drawn, setDrawn] = useState<{ readonly padId: PadId; readonly hit: DrawnHit }>()
  useEffect(() => {
    let gone = false
    let timer: ReturnType<typeof setTimeout>
    const draw = (waitMs: number, againMs: number) => {
      timer = setTimeout(() => {
        drawHit(kit, pad).then(
          (hit) => !gone && setDrawn({ padId: pad.id, hit }),
          // Missing audio is named on the Board and in Ship; work that was stopped stays so.
          (error) => !gone && againMs <= MOST_AGAIN_MS && !(error instanceof WorkStopped) && draw(againMs, 2 * againMs),
        )
      }, waitMs)
    }
    draw(SETTLE_MS, AGAIN_MS)
    return () => {
      gone = true
      clearTimeout(timer)
    }
  }, [kit, pad])
  return drawn?.padId === pad.id ? drawn.hit : undefined
}

export async function drawHit(kit: Kit, given: Pad): Promise<DrawnHit> {
  const pad = (await workedMatter()).workedPad(kit, given)
  const { values, envelopes } = padSettings(kit, pad)
  const clipSeconds = longestClip(kit, pad)
  const { left, right } = await drawStrike(kit, pad, VELOCITY, Math.min(LONGEST_SECONDS, clipSeconds * 4 + 0.1), RATE_HZ)
  const soundSeconds = lastAudible(left, right) / RATE_HZ
  const envelopeEnd = Math.max(
    0,
    ...envelopes.level.points.map((point) => point.seconds * stretchOf({ values, envelopes }, 'level')),
    ...envelopes.pitch.points.map((point) => point.seconds * stretchOf({ values, envelopes }, 'pitch')),
  )
  const seconds = Math.max(0.05, Math.min(LONGEST_SECONDS, Math.max(soundSeconds, envelopeEnd) * 1.12))
  const loudnessDb = strikeLoudness([left, right], RATE_HZ)
  const mono = left.map((sample, i) => (sample + right[i]) / 2)
  const spectrumDb = hitSpectrumDb(mono, RATE_HZ, BANDS)
  const snaps = snapPlacesOf(mono, RATE_HZ, soundSeconds)
  const firstSamples = mono.slice(0, Math.round(FIRST_SECONDS * RATE_HZ))
  return {
    mono,
    spectrumDb,
    snaps,
    firstSamples,
    levels: levelsOf(left, right, seconds),
    seconds,
    soundSeconds,
    clipSeconds,
    loudnessDb,
    ...(await firstClip(pad)),
  }
}

type OfClip = Pick<DrawnHit, 'clipRateHz' | 'pitchHz' | 'samples' | 'clipLevels' | 'clipSpectrumDb'>
const ofClips = new WeakMap<Clip, OfClip>()

/** What is known of the pad's first clip, measured once. */
async function firstClip(pad: Pad): Promise<OfClip> {
  const clip = Object.values(pad.bands[pad.bands.length - 1]?.turns[0]?.clips ?? {})[0]
  if (!clip || clip === 'intendedSilence')
    return { clipRateHz: RATE_HZ, clipLevels: new Float32Array(COLUMNS), clipSpectrumDb: new Float32Array(BANDS).fill(-Infinity) }
  const known = ofClips.get(clip)
  if (known) return known
  const { audio } = await decodedAudio(clip.audio)
  const samples = audio.channels[0].subarray(clip.startFrame, clip.endFrame)
  const forward = levelsOf(samples, samples, samples.length / RATE_HZ)
  const measured: OfClip = {
    clipRateHz: audio.sampleRateHz,
    pitchHz: pitchOf(samples, audio.sampleRateHz)?.hz,
    samples: samples.subarray(0, LONGEST_SAMPLES),
    clipSpectrumDb: hitSpectrumDb(samples, audio.sampleRateHz, BANDS),
    clipLevels: clip.reverse ? forward.reverse() : forward,
  }
  ofClips.set(clip, measured)
  return measured
}

function longestClip(kit: Kit, pad: Pad): number {
  const clips = pad.bands.flatMap((band) => band.turns).flatMap((turn) => Object.values(turn.clips))
  return Math.max(
    0.05,
    ...clips.map((clip) =>
      clip === 'intendedSilence'
        ? 0
        : (clip.endFrame - clip.startFrame) / (kit.audio[recipeOf(clip.audio)?.clip.audio ?? clip.audio]?.sampleRateHz ?? RATE_HZ),
    ),
  )
}

function lastAudible(left: Float32Array, right: Float32Array): number {
  let peak = 0
  for (let i = 0; i < left.length; i++) peak = Math.max(peak, Math.abs(left[i]), Math.abs(right[i]))
  let end = left.length
  while (end > 1 && Math.abs(left[end - 1]) < peak * 0.001 && Math.abs(right[end - 1]) < peak * 0.001) end--
  return end
}

function levelsOf(left: Float32Array, right: Float32Array, seconds: number): Float32Array {
  const levels = new Float32Array(COLUMNS)
  const perColumn = (seconds * RATE_HZ) / COLUMNS
  for (let column = 0; column < COLUMNS; column++)
    for (let i = Math.floor(column * perColumn); i < Math.min(left.length, (column + 1) * perColumn); i++)
      levels[column] = Math.max(levels[column], Math.abs(left[i]), Math.abs(right[i]))
  return levels
}
