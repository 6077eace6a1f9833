import type { Audio } from '@heliaster/core/audio'
import type { AudioHash } from '@heliaster/core/kit'

const samplesOf = ({ channels }: Audio): number => channels.length * (channels[0]?.length ?? 0)

export interface AtHand {
  get(hash: AudioHash): Audio | undefined
  /** Keeps audio as the one used last, and lets go of those that were not used for longest. Returns those. */
  keep(hash: AudioHash, audio: Audio): AudioHash[]
  hashes(): AudioHash[]
  forget(hash: AudioHash): void
}

/** Audio that was used last, so many samples of it; the latest stays however long it is. */
export function createAtHand(mostSamples: number): AtHand {
  /** In the order of their last use. */
  const held = new Map<AudioHash, Audio>()
  let samples = 0
  const forget = (hash: AudioHash): void => {
    const audio = held.get(hash)
    if (!audio) return
    held.delete(hash)
    samples -= samplesOf(audio)
  }
  return {
    get: (hash) => held.get(hash),
    keep(hash, audio) {
      forget(hash)
      held.set(hash, audio)
      samples += samplesOf(audio)
      const forgotten: AudioHash[] = []
      for (const oldest of held.keys()) {
        if (samples <= mostSamples || oldest === hash) break
        forget(oldest)
        forgotten.push(oldest)
      }
      return forgotten
    },
    hashes: () => [...held.keys()],
    forget,
  }
}
