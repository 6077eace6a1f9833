import type { Groove, GrooveId, Kit, KitId } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { kits } from '../../documents'
import type { Player } from '../engine/player'
import { kitNow, playGrooveOf, sound } from '../engine/sound'

interface GrooveState {
  readonly playing: boolean
  /** The groove that is seen, and played unless it is the song; the kit's first where it has none of this id. */
  readonly grooveId?: GrooveId
  /** The kit's song plays, whichever groove is seen. */
  readonly isSong: boolean
}

export const grooveState = createStore<GrooveState>(() => ({ playing: false, isSong: false }))

/** What plays is what is seen, or the song. */
function choose({ grooveId, isSong }: Pick<GrooveState, 'grooveId' | 'isSong'>): void {
  grooveState.setState({ grooveId, isSong })
  playGrooveOf(isSong ? 'song' : grooveId)
}

/** Another groove is seen; it is what plays, unless the song does. */
export function chooseGroove(grooveId: GrooveId): void {
  choose({ grooveId, isSong: grooveState.getState().isSong })
}

/** The groove that is seen plays by itself. */
export function playAlone(grooveId: GrooveId): void {
  choose({ grooveId, isSong: false })
}

export function playSong(isSong: boolean): void {
  choose({ grooveId: grooveState.getState().grooveId, isSong })
}

/** The groove of a kit that is seen and played. */
export function chosenGroove(kit: Kit, grooveId = grooveState.getState().grooveId): Groove | undefined {
  return kit.grooves.find(({ id }) => id === grooveId) ?? kit.grooves[0]
}

export function toggleGroove(kitId: KitId): void {
  if (grooveState.getState().playing) stopGroove()
  else startGroove(kitId)
}

type StoppedListener = () => void
const stopped = new Set<StoppedListener>()

/** Told when the groove is stopped, before it is. */
export function onGrooveStops(listener: StoppedListener): () => void {
  stopped.add(listener)
  return () => stopped.delete(listener)
}

type StartListener = (player: Player, beat: number) => number
const starting = new Set<StartListener>()

/** Asked before the groove begins how many frames it should wait, so that what goes beside it is ready. */
export function onGrooveStarts(listener: StartListener): () => void {
  starting.add(listener)
  return () => starting.delete(listener)
}

export function stopGroove(): void {
  stopWaiting?.()
  if (grooveState.getState().playing) {
    for (const listener of stopped) listener()
    sound.getState().player?.stopGroove()
  }
  grooveState.setState({ playing: false })
}

/** Lets the engine play a kit's groove wherever one is in the app; it hears every edit, and goes on while the page sleeps. */
export function startGroove(kitId: KitId, beat?: number, frame?: number): void {
  const { player } = sound.getState()
  stopWaiting?.()
  if (!player) return waitForSound(kitId, beat)
  if (!kits.store.getState().entries[kitId]) return
  const { grooveId, isSong } = grooveState.getState()
  playGrooveOf(isSong ? 'song' : (chosenGroove(kits.store.getState().entries[kitId].doc, grooveId)?.id ?? grooveId))
  void player.resume()
  const wait = frame === undefined ? Math.max(0, ...[...starting].map((ask) => ask(player, beat ?? 0))) : 0
  player.beginGroove(beat, wait > 0 ? player.frameNow() + wait : frame)
  grooveState.setState({ playing: true })
}

let stopWaiting: (() => void) | undefined

/** Asked for before there is sound, the groove begins once there is. */
function waitForSound(kitId: KitId, beat: number | undefined): void {
  const stop = sound.subscribe(({ player }) => player && startGroove(kitId, beat))
  stopWaiting = () => {
    stop()
    stopWaiting = undefined
  }
}

type Told = Pick<Player, 'grooveBeat' | 'grooveSection'>

/** The beat of the groove that is seen, counted on through its laps; nothing while it does not sound. */
export function grooveBeat(kit = kitNow(), player: Told | undefined = sound.getState().player): number | undefined {
  const { playing, isSong, grooveId } = grooveState.getState()
  if (!player || !kit || !playing) return undefined
  const beat = player.grooveBeat()
  const seen = chosenGroove(kit, grooveId)?.id
  const sounding = isSong && kit.song.length > 0 ? songSection(kit, player)?.groove : seen
  return beat < 0 || sounding !== seen ? undefined : beat
}

/** The section of the song that sounds now; sections whose groove is gone are not counted. */
export function songSection(
  kit: Kit,
  player: Pick<Told, 'grooveSection'> | undefined = sound.getState().player,
): Kit['song'][number] | undefined {
  return player && kit.song.filter(({ groove }) => kit.grooves.some(({ id }) => id === groove))[player.grooveSection()]
}

/** Which lap of a groove sounds, from 0; -1 while it does not sound. */
export function lapNow(groove: Groove): number {
  const beat = grooveBeat()
  return beat === undefined ? -1 : Math.floor(beat / (groove.lengthSteps / groove.stepsPerBeat))
}
