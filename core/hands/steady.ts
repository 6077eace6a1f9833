/**
 * Turns moments of the page's clock into frames of the engine, so that every strike sounds equally long after the hand.
 *
 * A device asks for its sound in bursts: all frames of a burst are rendered at once, so a strike that sounds as soon as it
 * can is late by anything up to a burst, by when it fell. The engine's frames, seen at moments of the page's clock, lie
 * under a line that rises with the rate; the highest of them lie on it. A strike is put a burst after that line.
 */
export interface SteadyClock {
  /** Tells what the page sees: the engine's frame at a moment, in ms. An engine that has slept begins anew. */
  see(atMs: number, frame: number): void
  /** The frame at which a strike of a moment sounds; nothing before enough is known. */
  frameOf(atMs: number): number | undefined
  /** How many frames the device asks for at a time, as far as it was seen. */
  burstFrames(): number
}

/** For so long lines are remembered: clocks of page and device drift apart by less than a frame meanwhile. */
const MEMORY_MS = 4000
const PARTS = 8
const ENOUGH_SEEN = 16
/** No device asks for more at once; where a frame lies further under the line the engine has slept or lost time. */
const MOST_BURST_SECONDS = 0.1
const RENDER_FRAMES = 128

interface Part {
  readonly fromMs: number
  highest: number
  lowest: number
}

export function createSteadyClock(rateHz: number): SteadyClock {
  const perMs = rateHz / 1000
  let parts: Part[] = []
  let seen = 0
  let last = { frame: -1, changedMs: 0 }
  const highest = () => parts.reduce((most, part) => Math.max(most, part.highest), -Infinity)
  const lowest = () => parts.reduce((least, part) => Math.min(least, part.lowest), Infinity)
  const burst = () => Math.max(RENDER_FRAMES, seen === 0 ? 0 : Math.ceil(highest() - lowest()))
  return {
    see(atMs, frame) {
      if (frame !== last.frame) last = { frame, changedMs: atMs }
      const line = frame - atMs * perMs
      const stands = atMs - last.changedMs > MOST_BURST_SECONDS * 1000
      if (stands || (seen > 0 && Math.abs(line - highest()) > MOST_BURST_SECONDS * rateHz)) {
        parts = []
        seen = 0
      }
      if (stands) return
      seen++
      const part = parts[parts.length - 1]
      if (part && atMs - part.fromMs <= MEMORY_MS / PARTS) {
        part.highest = Math.max(part.highest, line)
        part.lowest = Math.min(part.lowest, line)
        return
      }
      parts.push({ fromMs: atMs, highest: line, lowest: line })
      parts = parts.filter(({ fromMs }) => atMs - fromMs <= MEMORY_MS)
    },
    frameOf: (atMs) => (seen < ENOUGH_SEEN ? undefined : Math.round(highest() + atMs * perMs + burst())),
    burstFrames: () => (seen < ENOUGH_SEEN ? 0 : burst()),
  }
}
