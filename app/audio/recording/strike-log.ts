import type { SoundedStrike } from '@heliaster/core/kit'
import { padSettings } from '@heliaster/core/kit'

import type { Sounded } from '../engine/player'
import { kitNow, onSounded, sound } from '../engine/sound'

let strikes: SoundedStrike[] = []
let stop: (() => void) | undefined

/** Writes down what the pads sound, in frames of the player's context, until it is asked for. */
export function watchStrikes(): void {
  strikes = []
  stop?.()
  stop = onSounded((sounded) => sounded.forEach(writeDown))
}

function writeDown({ padId, velocity, band, turn, frame }: Sounded): void {
  const { player } = sound.getState()
  const kit = kitNow()
  const pad = kit?.pads.find((one) => one.id === padId)
  if (!player || !kit || !pad || strikes.length >= 20000) return
  strikes.push({ padId: pad.id, padName: padSettings(kit, pad).name, velocity, band, turn, frame: frame + player.hostFrame() })
}

/** The strikes within a recording that began at a frame of the context, in frames of the recording. */
export function strikesOf(startFrame: number, frames: number): SoundedStrike[] {
  stop?.()
  stop = undefined
  return strikes.map((strike) => ({ ...strike, frame: strike.frame - startFrame })).filter(({ frame }) => frame >= 0 && frame < frames)
}
