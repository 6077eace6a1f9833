import { audioInUse, clipsOfPad, narrowedTo, padSettings } from '@heliaster/core/kit'
import type { Kit, Pad } from '@heliaster/core/kit'
import { EventType } from '@heliaster/core/engine'
import type { GrooveChoice } from '@heliaster/core/engine'

import type { DrawAnswer, DrawGrooveAnswer, DrawGrooveRequest, DrawRequest } from '../../../core/engine/hosts/messages'
import { decodedAudio } from '../files/audio-files'
import { audioTold } from './audio-told'
import { engineUrl } from './engine-url'
import { workedMatter } from './worked'

/** So much of what it was told the worker keeps, for a hit is drawn anew at each change, and at many velocities. */
const KEPT_BYTES = 24e6
let toTell = audioTold(KEPT_BYTES)

let worker: Promise<Worker> | undefined
let nextId = 1
type Answer = DrawAnswer | DrawGrooveAnswer
const waiting = new Map<number, (answer: Answer) => void>()

/** The engine in a worker of its own, from the same built file that plays. */
function drawingWorker(): Promise<Worker> {
  worker ??= engineUrl().then((url) => {
    const started = new Worker(url, { type: 'module' })
    started.onmessage = ({ data }: MessageEvent<Answer>) => {
      waiting.get(data.id)?.(data)
      waiting.delete(data.id)
    }
    return started
  })
  return worker
}

async function ask<Given extends Answer>(request: DrawRequest | DrawGrooveRequest): Promise<Given> {
  const target = await drawingWorker()
  return new Promise((resolve) => {
    waiting.set(request.id, resolve as (answer: Answer) => void)
    try {
      target.postMessage({ ...request, ...toTell(request.audio) })
    } catch (error) {
      waiting.delete(request.id)
      toTell = audioTold(KEPT_BYTES) // there was no memory to send it: it did not come there, and is sent again next time
      throw error
    }
  })
}

/** What a kit plays, worked sounds as they are worked: nothing is worked twice. */
async function audioOf(kit: Kit) {
  const { audioForNote, workedKit } = await workedMatter()
  const played = workedKit(kit)
  const forms = played.pads.flatMap((pad) => clipsOfPad(pad).flatMap((clip) => audioForNote(clip, undefined, padSettings(played, pad).rootNote))) // prettier-ignore
  return Promise.all([...new Set([...audioInUse(played), ...forms])].map(async (hash) => [hash, (await decodedAudio(hash)).audio] as const))
}

/** What a groove makes of several kits with the same audio, from its first beat on: left and right of each, before the limiter. */
export async function drawGroove(kits: readonly Kit[], choice: GrooveChoice, seconds: number, sampleRateHz = 48000): Promise<DrawGrooveAnswer['parts']> {
  const audio = await audioOf(kits[0]!)
  const { parts } = await ask<DrawGrooveAnswer>({ id: nextId++, kits, choice, audio, frames: Math.round(seconds * sampleRateHz), sampleRateHz })
  return parts
} // prettier-ignore

/** What one strike of a pad sounds like by itself, as samples: without effects of buses, and without what it sends. */
export async function drawStrike(kit: Kit, whole: Pad, velocity: number, seconds: number, sampleRateHz = 48000): Promise<DrawAnswer> {
  const pad = withoutSends(narrowedTo(whole, velocity))
  const alone: Kit = {
    ...kit,
    pads: [pad, ...kit.pads.filter((other) => other.id === pad.leansOn)],
    ties: [],
    grooves: [],
    song: [],
    values: {},
    inserts: [],
    buses: kit.buses.map((bus) => ({ ...bus, inserts: [], sends: [] })),
  }
  const request: DrawRequest = {
    id: nextId++,
    kit: alone,
    audio: await audioOf({ ...alone, pads: [pad] }),
    events: [{ padId: pad.id, frame: 0, type: EventType.strike, velocity }],
    frames: Math.round(seconds * sampleRateHz),
    sampleRateHz,
  }
  return ask<DrawAnswer>(request)
}

function withoutSends(pad: Pad): Pad {
  return pad.rays.every(({ sends }) => sends.length === 0) ? pad : { ...pad, rays: pad.rays.map((ray) => ({ ...ray, sends: [] })) }
}
