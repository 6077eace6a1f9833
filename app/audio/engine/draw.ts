import { audioInUse, narrowedTo } from '@heliaster/core/kit'
import type { Kit, Pad } from '@heliaster/core/kit'
import { EventType } from '@heliaster/core/engine'

import type { DrawAnswer, DrawRequest } from '../../../core/engine/hosts/messages'
import { decodedAudio } from '../files/audio-files'
import { engineUrl } from './engine-url'

let worker: Promise<Worker> | undefined
let nextId = 1
const waiting = new Map<number, (answer: DrawAnswer) => void>()

/** The engine in a worker of its own, from the same built file that plays. */
function drawingWorker(): Promise<Worker> {
  worker ??= engineUrl().then((url) => {
    const started = new Worker(url, { type: 'module' })
    started.onmessage = ({ data }: MessageEvent<DrawAnswer>) => {
      waiting.get(data.id)?.(data)
      waiting.delete(data.id)
    }
    return started
  })
  return worker
}

/** What one strike of a pad sounds like, as samples. */
export async function drawStrike(kit: Kit, whole: Pad, velocity: number, seconds: number, sampleRateHz = 48000): Promise<DrawAnswer> {
  const pad = narrowedTo(whole, velocity)
  const alone: Kit = {
    ...kit,
    pads: [pad, ...kit.pads.filter((other) => other.id === pad.leansOn)],
    ties: [],
    grooves: [],
    song: [],
    values: {},
  }
  const audio = await Promise.all(
    audioInUse({ ...alone, pads: [pad] }).map(async (hash) => [hash, (await decodedAudio(hash)).audio] as const),
  )
  const request: DrawRequest = {
    id: nextId++,
    kit: alone,
    audio,
    events: [{ padId: pad.id, frame: 0, type: EventType.strike, velocity }],
    frames: Math.round(seconds * sampleRateHz),
    sampleRateHz,
  }
  const target = await drawingWorker()
  return new Promise((resolve) => {
    waiting.set(request.id, resolve)
    target.postMessage(request)
  })
}
