import type { Kit, PadId, Performance } from '@heliaster/core/kit'
import { padById } from '@heliaster/core/kit'
import { isHeard } from '@heliaster/core/performance'
import type { Passage } from '@heliaster/core/performance'

import { padName } from '../../kit-view/use-kit'

/** "12.3 s" or "2 min 5 s". */
export function lengthWords(seconds: number): string {
  if (seconds < 59.95) return `${seconds.toFixed(1)} s`
  const whole = Math.round(seconds)
  return `${Math.floor(whole / 60)} min ${whole % 60} s`
}

export const strikesWords = (count: number): string => (count === 1 ? '1 strike' : `${count} strikes`)

/** How long ago something was. */
export function agoWords(fromMs: number, nowMs: number): string {
  const seconds = Math.max(0, Math.round((nowMs - fromMs) / 1000))
  if (seconds < 10) return 'just now'
  if (seconds < 60) return `${seconds} s ago`
  return `${Math.round(seconds / 60)} min ago`
}

/** The names of the first pads, and how many more there are. */
export function padsWords(kit: Kit, padIds: readonly PadId[]): string {
  const names = padIds.flatMap((padId) => {
    const pad = padById(kit, padId)
    return pad ? [padName(kit, pad)] : []
  })
  return names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ')
}

export function secondsOfPassage({ fromFrame, toFrame }: Passage, sampleRateHz: number): number {
  return (toFrame - fromFrame) / sampleRateHz
}

export function secondsOf({ fromFrame, toFrame, sampleRateHz }: Performance): number {
  return (toFrame - fromFrame) / sampleRateHz
}

export function heardStrikes(performance: Performance): number {
  return performance.events.filter((event) => event.type === 'strike' && isHeard(performance, event)).length
}

/** What can be said of how it sounds again. */
export function truthWords(performance: Performance): string {
  if (performance.edited) return 'Changed since: its strikes are no longer all as they were played.'
  if (performance.isUnsteady)
    return 'A loop that the next strike ends, or strikes along, were under way before it: those may come out the other way round.'
  if (performance.events.some((event) => event.type === 'strike' && event.by === 'groove'))
    return 'A groove played along: its strikes are here as strikes, without what its beads set.'
  return 'Sounds again to the last sample as it was heard.'
}
