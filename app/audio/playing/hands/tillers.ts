import { controlNumbers } from '@heliaster/core/engine'
import { withTiller } from '@heliaster/core/kit'
import type { Kit } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { kits } from '../../../documents'
import { sound } from '../../engine/sound'

/** Where tillers stand while they are moved, 0..1, by their ids; where they rest is in the kit. */
export const movedTillers = createStore<Readonly<Record<string, number>>>(() => ({}))

/** Lets a tiller be heard where it is moved to, at once. */
export function moveTiller(kit: Kit, id: string, value: number): void {
  const place = kit.tillers.findIndex((one) => one.id === id)
  if (place < 0) return
  sound.getState().player?.moveControl(controlNumbers.tiller + place, value)
  movedTillers.setState({ [id]: value })
}

/** It stays where it is: the kit keeps that, as one step. */
export function restTiller(kit: Kit, id: string): void {
  const value = movedTillers.getState()[id]
  const { [id]: _rests, ...others } = movedTillers.getState()
  movedTillers.setState(others, true)
  const now = kits.store.getState().entries[kit.id]?.doc ?? kit
  if (value === undefined || now.tillers.every((one) => one.id !== id || one.value === value)) return
  kits.edit(kit.id, [{ type: 'setKit', fields: { tillers: withTiller(now, id, { value }) } }])
}

/** A controller that has not moved for so long rests. */
const REST_MS = 600
const resting = new Map<string, ReturnType<typeof setTimeout>>()

/** A controller moves the tiller of a place: heard at once, kept once it rests. */
export function leadTiller(kit: Kit | undefined, place: number, value: number): void {
  const id = kit?.tillers[place]?.id
  if (!kit || id === undefined) return
  moveTiller(kit, id, value)
  clearTimeout(resting.get(id))
  resting.set(
    id,
    setTimeout(() => restTiller(kit, id), REST_MS),
  )
}
