import type { Hit, LiveMarker, Warning } from '@heliaster/core/cut'
import { EDGE_FADE_IN_SECONDS, EDGE_FADE_OUT_SECONDS } from '@heliaster/core/cut'
import type { Clip, Source } from '@heliaster/core/kit'

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

export const WARNING_WORDS: Record<Warning, string> = {
  clipped: 'clipped',
  cutShort: 'cut short',
  secondHit: 'second hit inside',
  nearNoise: 'near the noise',
  dc: 'off centre (DC)',
  alike: 'same as another',
  odd: 'unlike the others',
}

export function describeWarnings(hit: Hit): string {
  return hit.warnings.map((warning) => WARNING_WORDS[warning]).join(', ')
}

export function hitTitle(marker: LiveMarker, hit: Hit | undefined, index: number): string {
  return marker.name || `${hit ? hit.family[0].toUpperCase() + hit.family.slice(1) : 'Hit'} ${index + 1}`
}

/** Whether anything is set on the clip of this hit. */
export function hasRepairs(marker: LiveMarker): boolean {
  return Object.keys(marker.clip ?? {}).length > 0
}
