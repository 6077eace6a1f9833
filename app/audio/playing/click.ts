import type { Player } from '../engine/player'
import { onBothSides } from './both-sides'

/** Clicks are made so far ahead, and looked for so often. */
const AHEAD_SECONDS = 0.12
const LOOK_MS = 25
const CLICK_SECONDS = 0.03
const HZ = { first: 1760, other: 1175 }
const LEVEL = 0.12
const BAR = 4

/** A click on every beat while the groove plays, beside the engine and in its time; the first of four is higher. Returns the way to stop. */
export function startClick(player: Player, tempoNow: () => number): () => void {
  const { context } = player
  let made = -1
  const look = () => {
    const beat = player.songBeat()
    if (beat < 0) return
    const secondsOf = (wanted: number) => (player.frameNow() + player.hostFrame()) / player.sampleRateHz + ((wanted - beat) * 60) / tempoNow()
    if (made > beat + 8) made = -1 // it was begun anew
    for (let next = Math.max(made + 1, Math.ceil(beat - 1e-6)); secondsOf(next) < context.currentTime + AHEAD_SECONDS; next++) {
      made = next
      click(context, Math.max(context.currentTime, secondsOf(next)), next % BAR === 0)
    }
  }
  const timer = setInterval(look, LOOK_MS)
  look()
  return () => clearInterval(timer)
} // prettier-ignore

function click(context: AudioContext, at: number, isFirst: boolean): void {
  const tone = context.createOscillator()
  const level = onBothSides(context.createGain())
  tone.frequency.value = isFirst ? HZ.first : HZ.other
  level.gain.setValueAtTime(LEVEL, at)
  level.gain.exponentialRampToValueAtTime(LEVEL / 1000, at + CLICK_SECONDS)
  tone.connect(level).connect(context.destination)
  tone.start(at)
  tone.stop(at + CLICK_SECONDS)
}
