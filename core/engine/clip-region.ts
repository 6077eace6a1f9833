import type { Audio } from '../audio/audio'
import type { Clip } from '../kit/kit'

/**
 * The samples a clip plays, at the file's own rate: its region with channel choice, reverse and fades applied. Gain and
 * polarity are left to the engine, so that changing them copies nothing. Frames outside the file are silence.
 */
export function clipSamples(audio: Audio, clip: Clip): Float32Array[] {
  const channels = chooseChannels(audio, clip).map((channel) => (clip.reverse ? channel.reverse() : channel))
  for (const channel of channels) applyFades(channel, clip, audio.sampleRateHz)
  return channels
}

/** What of a clip decides its samples: clips with the same key share one region. */
export function clipKey(clip: Clip): string {
  const { audio, startFrame, endFrame, fadeInSeconds, fadeOutSeconds, reverse, channel } = clip
  return [audio, startFrame, endFrame, fadeInSeconds, fadeOutSeconds, reverse, channel].join('|')
}

function chooseChannels(audio: Audio, clip: Clip): Float32Array[] {
  const cut = (channel: Float32Array) => {
    const copy = new Float32Array(clip.endFrame - clip.startFrame)
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

function applyFades(channel: Float32Array, clip: Clip, sampleRateHz: number): void {
  const fadeIn = Math.min(channel.length, Math.floor(clip.fadeInSeconds * sampleRateHz + 0.5))
  const fadeOut = Math.min(channel.length, Math.floor(clip.fadeOutSeconds * sampleRateHz + 0.5))
  for (let i = 0; i < fadeIn; i++) channel[i] *= i / fadeIn
  for (let i = 0; i < fadeOut; i++) channel[channel.length - 1 - i] *= i / fadeOut
}
