import type { Audio } from '../../audio/audio'
import type { AudioHash } from '../../kit/ids'
import type { GrooveContext } from '../program/compile-groove'
import type { EffectMemory, PlacedEffect } from '../program/context'
import type { createBeadSlots } from './bead-slots'
import type { createClipPlaces, Wants } from './clip-places'
import type { createEffectPlaces } from './effect-places'

/** What programs are compiled with: where pads, buses, beads, clips and effects lie. */
export interface Places extends Pick<GrooveContext, 'sampleRateHz' | 'slotOf' | 'busSlotOf'> {
  readonly clips: ReturnType<typeof createClipPlaces>
  readonly effects: ReturnType<typeof createEffectPlaces>
  readonly beads: ReturnType<typeof createBeadSlots>
  audioOf(audio: AudioHash): Audio | undefined
}

/** What a program is compiled with; what it holds and lacks is noted in `now`. */
export function contextFor({ sampleRateHz, slotOf, busSlotOf, beads, clips, effects, audioOf }: Places, now: Wants): GrooveContext {
  return {
    sampleRateHz,
    slotOf,
    busSlotOf,
    beadSlotOf: (id) => beads.of(id),
    rowsOf: beads.rows(),
    regionOf: (clip, reading) => clips.regionOf(clip, reading, now),
    effectOf: <Made extends EffectMemory>(key: string, make: () => Made | undefined) =>
      effectOf(effects, key, make, now) as PlacedEffect<Made> | undefined,
    impulseOf: (hash) => {
      const audio = audioOf(hash)
      if (!audio) now.lacks.add(hash)
      return audio
    },
  }
}

/** Holds an effect's place, and notes in `now` that its program does. */
function effectOf(
  effects: Places['effects'],
  key: string,
  make: () => EffectMemory | undefined,
  now: Wants,
): PlacedEffect<EffectMemory> | undefined {
  try {
    const place = effects.hold(key, make)
    if (place) now.keys.push(key)
    return place
  } catch (error) {
    if (error instanceof RangeError) return undefined // the device gives no more memory
    throw error
  }
}
