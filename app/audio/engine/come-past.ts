import type { Player } from './player'

/** An engine that does not come on is waited for no longer than this. */
const PATIENCE_MS = 2000
/** Frames that the engine may be working on as it is asked. */
const BLOCKS_UNDER_WAY = 256

export type ComingOn = Pick<Player, 'frameNow' | 'stands'> & {
  readonly clock: Pick<Player['clock'], 'burstFrames'>
  readonly sleep: Pick<Player['sleep'], 'isAsleep'>
}

/**
 * Waits until the engine has come past all that was struck until now, also what has yet to sound: a strike sounds up to two
 * bursts after the hand, and later where the engine is behind. Returns the frame that all of it lies before.
 */
export async function comePast(player: ComingOn): Promise<number> {
  const end = player.frameNow() + 2 * Math.ceil(player.clock.burstFrames()) + BLOCKS_UNDER_WAY
  let isOver = false
  let timer: ReturnType<typeof setTimeout>
  const patience = new Promise<void>((resolve) => (timer = setTimeout(resolve, PATIENCE_MS))).then(() => void (isOver = true))
  while (player.frameNow() < end && !player.sleep.isAsleep() && !isOver) await Promise.race([player.stands(), patience])
  clearTimeout(timer!)
  return end
}
