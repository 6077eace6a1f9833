import type { Measured } from '../kit/source'
import { peakOfAudio, toDb } from './audio'
import type { Audio } from './audio'
import { STRIKE_WINDOW_SECONDS, strikeLoudness } from './loudness'
import { readStereo } from './stereo'

const SILENCE_DB = -200

/** What the library shows of a file: peak and loudness in dB, and for two channels how they stand to each other. */
export function measure(audio: Audio): Measured {
  return {
    peakDb: Math.max(SILENCE_DB, toDb(peakOfAudio(audio))),
    loudnessDb: Math.max(SILENCE_DB, strikeLoudness(audio.channels, audio.sampleRateHz)),
    windowSeconds: STRIKE_WINDOW_SECONDS,
    ...readStereo(audio),
  }
}
