import type { Kit } from '@heliaster/core/kit'

import { onArrived } from '../../audio/engine/arriving'
import { playKit, releasePad, sound, strikePad } from '../../audio/engine/sound'

export { startSound } from '../../audio/engine/sound'

const STEP_MS = 260
const MOST_PADS = 12
const VELOCITY = 104
const KEY = 905
/** A sound that does not come in this time is passed over. */
const PATIENCE_MS = 6000

/** Strikes the pads of a kit one after another, each once its sound is here; gives the way to stop. */
export function hearKit(kit: Kit, onEnd: () => void): () => void {
  const pads = kit.pads.filter(({ bands }) => bands.some(({ turns }) => turns.length > 0)).slice(0, MOST_PADS)
  let timer: ReturnType<typeof setTimeout> | undefined
  let wake: (() => void) | undefined
  const step = (at: number) => {
    const pad = pads[at]
    if (!pad) {
      stop()
      return onEnd()
    }
    const on = () => {
      wake = undefined
      clearTimeout(timer)
      timer = setTimeout(() => {
        releasePad(pad.id, KEY)
        step(at + 1)
      }, STEP_MS)
    }
    // One that is still on its way sounds when it comes.
    if (!strikePad({ padId: pad.id, velocity: VELOCITY, key: KEY })) return on()
    wake = on
    timer = setTimeout(on, PATIENCE_MS)
    return undefined
  }
  const begin = () => {
    const { player, problem } = sound.getState()
    if (!player && !problem) return
    started()
    step(0)
  }
  const stops = [onArrived(() => wake?.())]
  const started = sound.subscribe(begin)
  const stop = () => {
    clearTimeout(timer)
    started()
    stops.forEach((end) => end())
    wake = undefined
    playKit(undefined)
  }
  playKit(kit)
  begin()
  return stop
}
