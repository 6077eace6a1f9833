import { createGroove, secondsPerStep } from '@heliaster/core/groove'
import { createIds } from '@heliaster/core/kit'
import type { Groove, GrooveId, Kit, KitId } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { kits } from '../documents'
import { sound } from './sound'

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
}

/** The groove of a kit that is seen and played. */
export function chosenGroove(kit: Kit, grooveId = grooveState.getState().grooveId): Groove | undefined {
  return kit.grooves.find(({ id }) => id === grooveId) ?? kit.grooves[0]
}

const AHEAD_SECONDS = 0.16
const TICK_MS = 30
let timer: ReturnType<typeof setInterval> | undefined
const noGroove = createGroove(
  createIds(() => 0),
  '',
)

export function toggleGroove(kitId: KitId): void {
  if (grooveState.getState().playing) stopGroove()
  else startGroove(kitId)
}

export function stopGroove(): void {
  clearInterval(timer)
  grooveState.setState({ playing: false, step: -1 })
}

/** Plays a kit's groove wherever one is in the app; each tick reads the kit anew, so every edit and undo is heard. */
function startGroove(kitId: KitId): void {
  const { player } = sound.getState()
  if (!player) return
  void player.resume()
  player.beginGroove()
  const rate = player.sampleRateHz
  let step = 0
  let stepFrame = player.frameNow() + 0.06 * rate
  const sent: { frame: number; step: number }[] = []
  grooveState.setState({ playing: true, step: -1 })
  timer = setInterval(() => {
    const kit = kits.store.getState().entries[kitId]?.doc
    if (!kit) return stopGroove()
    const groove = chosenGroove(kit) ?? noGroove
    const now = player.frameNow()
    if (stepFrame < now - rate) stepFrame = now // the page slept; go on from here
    for (; stepFrame < now + AHEAD_SECONDS * rate; step++) {
      const place = step % groove.lengthSteps
      const length = secondsPerStep(groove, kit.tempoBpm) * rate
      const frame = Math.round(stepFrame + (place % 2 === 1 ? (groove.swing / 3) * length : 0))
      for (const string of groove.strings)
        for (const bead of string.beads)
          if (bead.step === place) player.strike({ padId: string.padId, velocity: bead.velocity, frame, key: -1 })
      sent.push({ frame, step: place })
      stepFrame += length
    }
    while (sent.length > 1 && sent[1].frame <= now) sent.shift()
    const shown = sent[0] && sent[0].frame <= now ? sent[0].step : -1
    if (shown !== grooveState.getState().step) grooveState.setState({ step: shown })
  }, TICK_MS)
}
