import type { Clip, Kit, PadId } from '@heliaster/core/kit'
import { createBand, createKit, createPad, createTurn } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { makeId } from '../stores/make-id'
import { decodedAudio } from './audio-files'
import { createPlayer } from './player'
import type { Player, Sounded, Strike } from './player'

/** The moment: what the engine does now. Polled, and never kept at audio rate in React. */
export interface SoundState {
  readonly player?: Player
  /** Why there is no sound, when there is none. */
  readonly problem?: string
}

export const sound = createStore<SoundState>(() => ({}))

type SoundedListener = (sounded: Sounded) => void
const listeners = new Set<SoundedListener>()
let openKit: Kit | undefined
let auditionKit: Kit | undefined

/** Starts the engine once; every first touch lets it sound. */
export async function startSound(): Promise<void> {
  try {
    const player = await createPlayer()
    sound.setState({ player })
    if (openKit) player.load(withAudition(openKit))
    const wake = () => void player.resume()
    for (const type of ['pointerdown', 'keydown', 'touchend']) window.addEventListener(type, wake, { capture: true })
    const poll = () => {
      for (const one of player.takeSounded()) for (const listener of listeners) listener(one)
      requestAnimationFrame(poll)
    }
    requestAnimationFrame(poll)
  } catch (error) {
    sound.setState({ problem: error instanceof Error ? error.message : String(error) })
  }
}

/** Keeps the engine in step with the kit that is open. */
export function playKit(kit: Kit | undefined): void {
  openKit = kit
  const { player } = sound.getState()
  if (player && kit) player.load(withAudition(kit))
}

/** The kit that is open. */
export const kitNow = (): Kit | undefined => openKit

export function strikePad(strike: Strike): void {
  sound.getState().player?.strike(strike)
}

export function releasePad(padId: PadId, key: number): void {
  sound.getState().player?.release(padId, key)
}

export function onSounded(listener: SoundedListener): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

const AUDITION = 'pad-audition' as PadId

/** Sounds a clip by itself, through the same engine as the pads. A new one takes the place of the last. */
export async function hearClip(clip: Clip, gainDb = 0): Promise<void> {
  const { player } = sound.getState()
  if (!player) return
  await decodedAudio(clip.audio)
  const pad = { ...createPad(makeId, { maxStrikes: 1, responses: [] }), id: AUDITION }
  const bands = [createBand(makeId, 1, [createTurn(makeId, { [pad.rays[0].id]: { ...clip, gainDb: clip.gainDb + gainDb } })])]
  auditionKit = { ...createKit(makeId, ''), pads: [{ ...pad, bands }] }
  player.load(withAudition(openKit ?? createKit(makeId, '')))
  player.strike({ padId: AUDITION, velocity: 127 })
}

function withAudition(kit: Kit): Kit {
  return auditionKit ? { ...kit, pads: [...kit.pads, auditionKit.pads[0]] } : kit
}
