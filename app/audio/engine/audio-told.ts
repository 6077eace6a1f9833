import type { Audio } from '@heliaster/core/audio'

type OfKit = readonly (readonly [hash: string, audio: Audio])[]

/** What of the sounds of a request has still to be sent, and what the worker need not keep any longer. */
export interface ToTell {
  readonly audio: OfKit
  readonly forget: readonly string[]
}

/** Which sounds a worker has: they are sent once, and those that were asked for longest ago are forgotten above `mostBytes`. */
export function audioTold(mostBytes: number): (wanted: OfKit) => ToTell {
  const bytes = new Map<string, number>() // the latest wanted last
  let total = 0
  return (wanted) => {
    const audio = wanted.filter(([hash]) => !bytes.has(hash))
    for (const [hash, { channels }] of wanted) {
      const size = channels.reduce((sum, channel) => sum + channel.byteLength, 0)
      if (!bytes.has(hash)) total += size
      bytes.delete(hash)
      bytes.set(hash, size)
    }
    const needed = new Set(wanted.map(([hash]) => hash))
    const forget: string[] = []
    for (const [hash, size] of bytes) {
      if (total <= mostBytes) break
      if (needed.has(hash)) continue
      forget.push(hash)
      bytes.delete(hash)
      total -= size
    }
    return { audio, forget }
  }
}
