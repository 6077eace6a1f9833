import type { Audio } from '../../audio/audio'
import { filterInPlace } from '../../audio/biquad'
import type { Clip, Repairs } from '../../kit/kit'
import { dbToGain } from '../math'
import { repairSections } from './repair-sections'

/** Gives so many samples of silence to write into. */
export type RoomFor = (frames: number) => Float32Array

const newRoom: RoomFor = (frames) => new Float32Array(frames)

/**
 * The samples a clip plays, at the file's own rate: its region with repairs, channel choice, reverse and fades applied. Gain and
 * polarity are left to the engine, so that changing them copies nothing. Frames outside the file are silence. They lie in room of
 * their own, or where `roomFor` says.
 */
export function clipSamples(audio: Audio, clip: Clip, roomFor = newRoom): Float32Array[] {
  const channels = chooseChannels(audio, clip, roomFor).map((channel) => (clip.reverse ? channel.reverse() : channel))
  for (const channel of channels) applyFades(channel, clip, audio.sampleRateHz)
  return channels
}

/** A clip as a sound of its own: its samples with its gain and polarity too. */
export function clipAudio(audio: Audio, clip: Clip): Audio {
  const gain = dbToGain(clip.gainDb) * (clip.invert ? -1 : 1)
  const channels = clipSamples(audio, clip)
  for (const channel of channels) for (let i = 0; i < channel.length; i++) channel[i] *= gain
  return { sampleRateHz: audio.sampleRateHz, channels }
}

/** What of a clip decides its samples: clips with the same key share one region. */
export function clipKey(clip: Clip): string {
  const { audio, startFrame, endFrame, fadeInSeconds, fadeOutSeconds, reverse, channel, repairs = {} } = clip
  const { lowCutHz, shelfDb, shelfHz, removeDc, lowShelfDb, lowShelfHz, bellDb, bellHz, bellOctaves, notchHz, notchOctaves } = repairs
  const repaired = [lowCutHz, shelfDb, shelfHz, removeDc, lowShelfDb, lowShelfHz, bellDb, bellHz, bellOctaves, notchHz, notchOctaves]
  return [audio, startFrame, endFrame, fadeInSeconds, fadeOutSeconds, reverse, channel, ...repaired].join('|')
}

function chooseChannels(audio: Audio, clip: Clip, roomFor: RoomFor): Float32Array[] {
  const cut = (channel: Float32Array) => {
    if (clip.repairs) return repaired(channel, clip, clip.repairs, audio.sampleRateHz)
    const copy = roomFor(clip.endFrame - clip.startFrame)
    copy.set(channel.subarray(clip.startFrame, Math.min(clip.endFrame, channel.length)))
    return copy
  }
  const left = audio.channels[0]
  const right = audio.channels[1] ?? left
  switch (clip.channel) {
    case 'left':
      return [cut(left)]
    case 'right':
      return [cut(right)]
    case 'both':
      return audio.channels.length > 1 ? [cut(left), cut(right)] : [cut(left)]
    case 'mid': {
      const mid = cut(left)
      const other = cut(right)
      for (let i = 0; i < mid.length; i++) mid[i] = 0.5 * (mid[i] + other[i])
      return [mid]
    }
  }
}

/** What sounds before a clip lets its filters settle. */
const LEAD_SECONDS = 0.1

/** A region as its repairs leave it. DC is the mean of the region; filters run in from what is before it in the file. */
function repaired(channel: Float32Array, clip: Clip, repairs: Repairs, sampleRateHz: number): Float32Array {
  const lead = Math.min(clip.startFrame, Math.round(LEAD_SECONDS * sampleRateHz))
  const samples = new Float32Array(lead + clip.endFrame - clip.startFrame)
  samples.set(channel.subarray(clip.startFrame - lead, Math.min(clip.endFrame, channel.length)))
  if (repairs.removeDc || repairs.lowCutHz) subtractMean(samples)
  for (const section of repairSections(repairs, sampleRateHz)) filterInPlace(samples, section)
  return samples.slice(lead)
}

function subtractMean(samples: Float32Array): void {
  let sum = 0
  for (let i = 0; i < samples.length; i++) sum += samples[i]
  const mean = sum / Math.max(1, samples.length)
  for (let i = 0; i < samples.length; i++) samples[i] -= mean
}

function applyFades(channel: Float32Array, clip: Clip, sampleRateHz: number): void {
  const fadeIn = Math.min(channel.length, Math.floor(clip.fadeInSeconds * sampleRateHz + 0.5))
  const fadeOut = Math.min(channel.length, Math.floor(clip.fadeOutSeconds * sampleRateHz + 0.5))
  for (let i = 0; i < fadeIn; i++) channel[i] *= i / fadeIn
  for (let i = 0; i < fadeOut; i++) channel[channel.length - 1 - i] *= i / fadeOut
}
