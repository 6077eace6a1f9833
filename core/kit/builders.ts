import { createIds } from './ids'
import type { AudioHash } from './ids'
import type { Kit, OwnSettings, Pad } from './kit'
import { createBand, createKit, createPad, createTurn, wholeClip } from './make'
import type { Audio } from '../audio/audio'

/** Builders for tests: they show only what matters. */

export function seeded(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 4294967296
  }
}

export const testIds = (seed = 7) => createIds(seeded(seed))

export function hashOf(letter: string): AudioHash {
  return letter.repeat(64).slice(0, 64) as AudioHash
}

export function anImpulse(frames = 100, sampleRateHz = 48000, level = 0.5): Audio {
  const samples = new Float32Array(frames)
  samples[0] = level
  return { sampleRateHz, channels: [samples] }
}

export function aTone(frames: number, level = 0.25, sampleRateHz = 48000, hz = 440): Audio {
  return {
    sampleRateHz,
    channels: [Float32Array.from({ length: frames }, (_, i) => level * Math.sin((2 * Math.PI * hz * i) / sampleRateHz))],
  }
}

export interface Rig {
  kit: Kit
  audio: Map<AudioHash, Audio>
}

/** A kit of pads, each with bands given as lists of turns of audio; `own` sets what matters. */
export function aKit(pads: { own?: OwnSettings; bands: Audio[][] }[]): Rig {
  const makeId = testIds()
  const audio = new Map<AudioHash, Audio>()
  let kit = createKit(makeId, 'Test')
  pads.forEach(({ own = {}, bands }, index) => {
    const pad: Pad = createPad(makeId, { responses: [], ...own }, 36 + index)
    const rayId = pad.rays[0].id
    const filled = bands.map((turns, band) =>
      createBand(
        makeId,
        1 + Math.round((band * 127) / bands.length),
        turns.map((sound) => {
          const hash = hashOf((audio.size + 16).toString(16).padStart(4, '0'))
          audio.set(hash, sound)
          const info = { frames: sound.channels[0].length, channels: sound.channels.length }
          kit = { ...kit, audio: { ...kit.audio, [hash]: { name: hash.slice(0, 4), sampleRateHz: sound.sampleRateHz, ...info } } }
          return createTurn(makeId, { [rayId]: wholeClip(hash, info) })
        }),
      ),
    )
    kit = { ...kit, pads: [...kit.pads, { ...pad, bands: filled }] }
  })
  return { kit, audio }
}
