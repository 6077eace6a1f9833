import { modeCodes } from './program/codes'
import { Head } from './program/layout'
import { programOf } from './state'
import type { EngineState } from './state'

/**
 * What of its past decides what an engine does next, while nothing sounds: how often each pad and band was struck, when and by
 * which note, and where its controls stand. By slots of pads; bands are 128 rows to a pad.
 */
export interface Standing {
  /** The frame that is rendered next. */
  readonly frame: number
  /**
   * Whether what comes is told by what stands here alone. It is not while a strike sounds that the next one of its pad ends,
   * and while strikes along are on their way.
   */
  readonly isSteady: boolean
  readonly padCount: Float64Array
  readonly bandCount: Float64Array
  readonly countFrom: Float64Array
  readonly lastFrame: Float64Array
  readonly lastNote: Float64Array
  readonly takenTurns: Float64Array
  readonly controls: Float64Array
}

const parts = ['padCount', 'bandCount', 'countFrom', 'lastFrame', 'lastNote', 'takenTurns', 'controls'] as const

/** A copy of how an engine stands. Allocates: only where a moment more does no harm. */
export function standingOf(engine: EngineState): Standing {
  const copies = Object.fromEntries(parts.map((part) => [part, engine[part].slice()])) as Pick<Standing, (typeof parts)[number]>
  return { frame: engine.frame, isSteady: engine.queue.length === 0 && !isToggled(engine), ...copies }
}

function isToggled(engine: EngineState): boolean {
  const { active, padSlot } = engine.strikes
  for (let slot = 0; slot < active.length; slot++) {
    const program = active[slot] === 0 ? 0 : programOf(engine, padSlot[slot])
    if (program !== 0 && engine.memory.arena[program + Head.mode] === modeCodes.loopUntilStruckAgain) return true
  }
  return false
}

/** Lets an engine that is silent stand as another one did; its program is its own. */
export function stand(engine: EngineState, standing: Standing): void {
  engine.frame = standing.frame
  for (const part of parts) engine[part].set(standing[part])
}
