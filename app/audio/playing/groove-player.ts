import type { Groove, GrooveId, Kit, KitId } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { kits } from '../../documents'
import type { Player } from '../engine/player'
import { playGrooveOf, sound } from '../engine/sound'

interface GrooveState {
  readonly playing: boolean
  /** The step that sounds now, -1 before the first. */
  readonly step: number
  /** The groove that is seen and played; the kit's first where it has none of this id. */
  readonly grooveId?: GrooveId
}

export const grooveState = createStore<GrooveState>(() => ({ playing: false, step: -1 }))

export function chooseGroove(grooveId: GrooveId): void {
  grooveState.setState({ grooveId })
  playGrooveOf(grooveId)
}

/** The groove of a kit that is seen and played. */
export function chosenGroove(kit: Kit, grooveId = grooveState.getState().grooveId): Groove | undefined {
  return kit.grooves.find(({ id }) => id === grooveId) ?? kit.grooves[0]
}

let looking = 0

export function toggleGroove(kitId: KitId): void {
  if (grooveState.getState().playing) stopGroove()
  else startGroove(kitId)
}

export function stopGroove(): void {
  cancelAnimationFrame(looking)
  if (grooveState.getState().playing) sound.getState().player?.stopGroove()
  grooveState.setState({ playing: false, step: -1 })
}

/** Lets the engine play a kit's groove wherever one is in the app; it hears every edit, and goes on while the page sleeps. */
export function startGroove(kitId: KitId, beat?: number, frame?: number): void {
  const { player } = sound.getState()
  if (!player) return
  void player.resume()
  player.beginGroove(beat, frame)
  cancelAnimationFrame(looking)
  grooveState.setState({ playing: true, step: -1 })
  const look = () => {
    looking = requestAnimationFrame(look)
    const kit = kits.store.getState().entries[kitId]?.doc
    if (!kit) return stopGroove()
    const step = stepOf(kit, player)
    if (step !== grooveState.getState().step) grooveState.setState({ step })
  }
  looking = requestAnimationFrame(look)
}

/** The step of the groove on the screen that sounds now; -1 while none does, or another groove of the song. */
export function stepOf(kit: Kit, player: Pick<Player, 'grooveBeat' | 'grooveSection'>): number {
  const groove = chosenGroove(kit)
  const beat = player.grooveBeat()
  const isChosen = kit.grooves.some(({ id }) => id === grooveState.getState().grooveId)
  const sounding = isChosen || kit.song.length === 0 ? groove?.id : kit.song[player.grooveSection()]?.groove
  if (!groove || beat < 0 || groove.id !== sounding) return -1
  return Math.floor(beat * groove.stepsPerBeat) % groove.lengthSteps
}
