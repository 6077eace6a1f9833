import type { Kit, KitId } from '@heliaster/core/kit'
import { Remembered } from '@heliaster/core/performance'
import type { Act, Passage } from '@heliaster/core/performance'
import { createStore } from 'zustand/vanilla'

import { comePast } from '../engine/come-past'
import type { Player, Sounded } from '../engine/player'
import { kitNow, onSounded, sound } from '../engine/sound'

/** Everything that was played in the last ten minutes, of each kit that was open, the newest passage last. */
export const passages = createStore<Readonly<Record<KitId, readonly Passage[]>>>(() => ({}))

/** How often it is looked what was played. */
const LOOK_MS = 500
/** While much is played it is noted so often how the engine stands, so that a passage needs little that leads up to it. */
const STAND_SECONDS = 5

type ActsListener = (kit: Kit, acts: readonly Act[]) => void
const listeners = new Set<ActsListener>()

/** Is called with what was done on a kit, a moment after it was. */
export function onActs(listener: ActsListener): () => void {
  listeners.add(listener)
  return () => void listeners.delete(listener)
}

const memories = new Map<KitId, Remembered>()
let openId: KitId | undefined
const ofGroove: Act[] = []
let isAsked = false
let isStarted = false

export const memoryOf = (kitId: KitId): Remembered | undefined => memories.get(kitId)

/** Begins to remember, the first time it is asked for, and goes on while the page lives, seen or not. */
export function startRemembering(): void {
  if (isStarted) return
  isStarted = true
  onSounded(noteGroove)
  setInterval(look, LOOK_MS)
}

/** What a groove strikes is no event from outside: it is taken from what sounded. */
function noteGroove(sounded: readonly Sounded[]): void {
  for (const { cameBy, struckId, frame, velocity } of sounded)
    if (cameBy === 'bead' && struckId) ofGroove.push({ type: 'strike', frame, padId: struckId, velocity, key: GROOVE_KEY, by: 'groove' })
}
/** Nothing lets go of what a groove strikes. */
const GROOVE_KEY = -2

/** Takes up what was played until now, at once. */
export function look(): void {
  const { player } = sound.getState()
  const kit = kitNow()
  if (!player || !kit) return
  const memory = memories.get(kit.id) ?? new Remembered(player.sampleRateHz)
  memories.set(kit.id, memory)
  const isOther = openId !== kit.id
  openId = kit.id
  const done = player.takeActs()
  if (done.length > 0) for (const listener of listeners) listener(kit, done)
  const acts = [...done, ...ofGroove.splice(0)]
  if (acts.length > 0) memory.add(acts, Date.now())
  if (acts.some(({ type }) => type === 'strike')) tell(kit.id, memory)
  if (isOther || isTime(player, memory)) void askHow(player, memory, kit)
}

/** Takes up all that was struck until now, also what has yet to sound. Returns the frame that all of it lies before. */
export async function lookToEnd(player: Player): Promise<number> {
  const end = await comePast(player)
  look()
  return end
}

function isTime(player: Player, memory: Remembered): boolean {
  if (!memory.hasMoved()) return false
  return player.isSilent() || player.frameNow() - memory.lastStood() > STAND_SECONDS * player.sampleRateHz
}

async function askHow(player: Player, memory: Remembered, kit: Kit): Promise<void> {
  if (isAsked) return
  isAsked = true
  try {
    const stood = await player.stands()
    const done = player.takeActs() // what acted before it stood so
    for (const listener of listeners) listener(kit, done)
    memory.add(done, Date.now())
    memory.stand(stood, Date.now())
  } finally {
    isAsked = false
  }
}

function tell(kitId: KitId, memory: Remembered): void {
  passages.setState((all) => ({ ...all, [kitId]: memory.passages(Date.now()) }))
}

/** The passages of a kit as they are now: what is older than ten minutes is gone. */
export function lookNow(kitId: KitId): void {
  const memory = memories.get(kitId)
  memory?.add([], Date.now())
  if (memory) tell(kitId, memory)
}
