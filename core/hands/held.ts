import type { PadId } from '../kit/ids'

/** What strikes and lets go, by the number of a finger or key. */
export interface HeldTarget {
  strike(padId: PadId, velocity: number, key: number, note: number | undefined, atMs: number | undefined): void
  release(padId: PadId, key: number): void
}

/** One strike of a hand: which input, which of its keys or fingers, and the pads it strikes. */
export interface HandStrike {
  readonly input: string
  readonly key: string
  readonly padIds: readonly PadId[]
  /** Velocity 1..127. */
  readonly velocity: number
  readonly note?: number
  /** When the hand struck, in ms of the page's clock; now without it. */
  readonly atMs?: number
}

export interface Held {
  strike(strike: HandStrike): void
  /** Lets a key go; while its input's pedal is down its strikes are held until the pedal comes up. */
  release(input: string, key: string): void
  /** The pads that a key strikes, while it is down. */
  padsOf(input: string, key: string): readonly PadId[]
  pedal(input: string, isDown: boolean): void
  /** Lets go of all that an input holds, by keys and by its pedal; of every input without one. */
  letGo(input?: string): void
  /** How many keys are down or held by a pedal. */
  count(): number
}

interface Down {
  readonly input: string
  readonly number: number
  readonly padIds: readonly PadId[]
  /** The key is up; the pedal holds its strikes. */
  byPedal: boolean
}

/**
 * Remembers what each key and finger has struck, so that letting go reaches the same pads whatever has changed since, and
 * nothing is held by an input that is gone. Keys get numbers from `firstNumber` up, each its own as long as the page lives.
 */
export function createHeld(target: HeldTarget, firstNumber = 1): Held {
  const down = new Map<string, Down>()
  const numbers = new Map<string, number>()
  const pedals = new Set<string>()
  const idOf = (input: string, key: string) => `${input}\n${key}`
  const numberOf = (id: string) => {
    const known = numbers.get(id) ?? firstNumber + numbers.size
    numbers.set(id, known)
    return known
  }
  const end = (id: string) => {
    const { padIds, number } = down.get(id)!
    down.delete(id)
    for (const padId of padIds) target.release(padId, number)
  }
  return {
    strike({ input, key, padIds, velocity, note, atMs }) {
      const id = idOf(input, key)
      if (down.has(id)) end(id) // a key that comes down again has been up, whether that was told or not
      if (padIds.length === 0) return
      const number = numberOf(id)
      down.set(id, { input, number, padIds, byPedal: false })
      for (const padId of padIds) target.strike(padId, velocity, number, note, atMs)
    },
    release(input, key) {
      const held = down.get(idOf(input, key))
      if (!held) return
      if (pedals.has(input)) held.byPedal = true
      else end(idOf(input, key))
    },
    padsOf: (input, key) => down.get(idOf(input, key))?.padIds ?? [],
    pedal(input, isDown) {
      if (isDown) return void pedals.add(input)
      pedals.delete(input)
      for (const [id, held] of [...down]) if (held.input === input && held.byPedal) end(id)
    },
    letGo(input) {
      if (input === undefined) pedals.clear()
      else pedals.delete(input)
      for (const [id, held] of [...down]) if (input === undefined || held.input === input) end(id)
    },
    count: () => down.size,
  }
}
