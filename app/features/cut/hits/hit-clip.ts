import type { Hit, LiveMarker, Warning } from '@heliaster/core/cut'
import { EDGE_FADE_IN_SECONDS, EDGE_FADE_OUT_SECONDS, firstFrame, soundTitle } from '@heliaster/core/cut'
import { clipOfSource } from '@heliaster/core/kit'
import type { Clip, Source } from '@heliaster/core/kit'

import type { Passage } from '../wave/draw-recording'

/** A hit as a clip: its region with the short fades that every cut gets, and its own repairs. */
export function clipOfHit(source: Source, marker: LiveMarker, hit: Hit): Clip {
  return {
    audio: source.audio,
    startFrame: hit.startFrame,
    endFrame: hit.endFrame,
    fadeInSeconds: EDGE_FADE_IN_SECONDS,
    fadeOutSeconds: Math.min(EDGE_FADE_OUT_SECONDS, hit.seconds / 2),
    gainDb: 0,
    reverse: false,
    invert: false,
    channel: source.channel,
    ...marker.clip,
    fromHit: { sourceId: source.id, markerId: marker.id },
  }
}

/** A stretch of the recording as a clip, with the short fades of every cut. */
export function clipOfPassage(source: Source, { startFrame, endFrame }: Passage): Clip {
  const seconds = (endFrame - startFrame) / source.info.sampleRateHz
  return {
    ...clipOfSource(source),
    startFrame,
    endFrame,
    fadeInSeconds: Math.min(EDGE_FADE_IN_SECONDS, seconds / 2),
    fadeOutSeconds: Math.min(EDGE_FADE_OUT_SECONDS, seconds / 2),
  }
}

export const WARNING_WORDS: Record<Warning, string> = {
  clipped: 'clipped',
  cutShort: 'cut short',
  secondHit: 'second hit inside',
  nearNoise: 'near the noise',
  dc: 'off centre (DC)',
  alike: 'same as another',
  odd: 'unlike the others',
}

/** What each warning asks for. */
export const WARNING_ADVICE: Record<Warning, string> = {
  clipped: 'Samples stand at full scale: it was recorded too loud. Take another hit where there is one.',
  cutShort: 'Its tail was still sounding where it ends. Drag the end, or record it with more room after it.',
  secondHit: 'Something strikes again inside it: a flam or a bounce. Make it a hit of its own, or end this one earlier.',
  nearNoise: 'Its loudest part is little above the noise of the room. A low cut may help.',
  dc: 'The wave stands off the middle. Repair removes it.',
  alike: 'Another hit is the same sound. Pass one of them.',
  odd: 'It is unlike the other hits of this recording. Hear it before it goes along.',
}

export function describeWarnings(hit: Hit): string {
  return hit.warnings.map((warning) => WARNING_WORDS[warning]).join(', ')
}

/**
 * What a hit is called: as someone named it, else by its kind and the second where it was first. Other hits that come and go, and
 * its own edges, change nothing of that.
 */
export function hitTitle(marker: LiveMarker, hit: Hit | undefined, sampleRateHz: number): string {
  return marker.name || soundTitle(hit?.family, firstFrame(marker) / sampleRateHz)
}

/** Whether anything is set on the clip of this hit. */
export function hasRepairs(marker: LiveMarker): boolean {
  return Object.keys(marker.clip ?? {}).length > 0
}
