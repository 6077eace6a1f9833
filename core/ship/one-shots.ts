import type { Audio } from '../audio/audio'
import { writeWav } from '../audio/wav-write'
import { clipAudio, dbToGain } from '../engine'
import type { AudioHash } from '../kit/ids'
import type { Clip, Kit } from '../kit/kit'
import { bandsOfRay, padSettings } from '../kit/resolve'
import { bakeClip, isShaped } from './bake'
import { fileName, uniqueNames } from './names'
import type { ShippedFile } from './sfz'

/** Every clip of a kit as a WAV file of its own, in a folder for each pad, shaped as it sounds. */
export function writeOneShots(kit: Kit, audioOf: (audio: AudioHash) => Audio | undefined): ShippedFile[] {
  const unique = uniqueNames()
  return kit.pads.flatMap((pad) => {
    const name = unique(fileName(padSettings(kit, pad).name || 'pad'))
    return pad.rays.flatMap((ray) =>
      bandsOfRay(pad, ray).flatMap((band, bandIndex) =>
        band.turns.flatMap((turn, turnIndex): ShippedFile[] => {
          const clip = turn.clips[ray.id]
          const audio = clip && clip !== 'intendedSilence' ? audioOf(clip.audio) : undefined
          if (!clip || clip === 'intendedSilence' || !audio) return []
          const shipped = isShaped(kit, pad, ray) ? leveled(bakeClip(kit, pad, ray, clip, audioOf), clip) : clipAudio(audio, clip)
          const label = `${name} b${bandIndex + 1} t${turnIndex + 1}${pad.rays.length > 1 ? ' ' + fileName(ray.name) : ''}`
          return shipped ? [{ path: `${name}/${label}.wav`, bytes: writeWav(shipped, { bits: 24 }) }] : []
        }),
      ),
    )
  })
}

/** What was drawn of a clip's shape leaves out its level. */
function leveled(audio: Audio | undefined, clip: Clip): Audio | undefined {
  if (!audio || (clip.gainDb === 0 && !clip.invert)) return audio
  const gain = dbToGain(clip.gainDb) * (clip.invert ? -1 : 1)
  return { ...audio, channels: audio.channels.map((channel) => channel.map((sample) => sample * gain)) }
}
