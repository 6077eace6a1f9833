import { peakOf, toMono } from '../audio/audio'
import type { Audio } from '../audio/audio'
import { measure } from '../audio/measure'
import { strikeCentreHz } from '../cut/strike-centre'
import { decaySeconds } from '../cut/lengths'
import { pitchOf } from '../cut/pitch'
import type { Measured } from '../kit/source'
import type { Sounding } from './kin'
import { portraitFrom, portraitOf, portraitText } from './portrait'

/** Longer than this is a recording of many things, which is like nothing. */
const ONE_THING_SECONDS = 6
const STRIKE_SHARE = 0.02
const LEAD_SECONDS = 0.0005
const SURE_OF_PITCH = 0.7

/** All that is measured of a file as it comes in. */
export function measureSound(audio: Audio): Measured {
  const frames = audio.channels[0]?.length ?? 0
  const measured = { ...measure(audio), centreHz: strikeCentreHz(audio) }
  if (frames === 0 || frames > ONE_THING_SECONDS * audio.sampleRateHz) return measured
  const mono = toMono(audio)
  const peak = peakOf(mono)
  if (peak === 0) return measured
  const { portrait, decaySeconds } = soundingOf(mono, audio.sampleRateHz, beginOf(mono, peak, audio.sampleRateHz), mono.length)
  const pitch = pitchOf(mono, audio.sampleRateHz)
  const isSure = pitch !== undefined && pitch.confidence >= SURE_OF_PITCH
  return { ...measured, ...(isSure ? { pitchHz: pitch.hz } : {}), portrait: portraitText(portrait), decaySeconds }
}

function beginOf(mono: Float32Array, peak: number, sampleRateHz: number): number {
  const at = mono.findIndex((sample) => Math.abs(sample) >= STRIKE_SHARE * peak)
  return Math.max(0, at - Math.round(LEAD_SECONDS * sampleRateHz))
}

/** What a stretch of sound is found by, from the frame of its strike on. */
export function soundingOf(mono: Float32Array, sampleRateHz: number, fromFrame: number, endFrame: number): Sounding {
  const sound = mono.subarray(fromFrame, endFrame)
  return { portrait: portraitOf(mono, sampleRateHz, fromFrame, endFrame), decaySeconds: decaySeconds(sound, sampleRateHz, peakOf(sound)) }
}

/** What a measured file is found by; undefined where that was not measured. */
export function soundingOfMeasured(measured: Measured | undefined): Sounding | undefined {
  const portrait = measured?.portrait === undefined ? undefined : portraitFrom(measured.portrait)
  return portrait && { portrait, decaySeconds: measured?.decaySeconds ?? 0 }
}
