import type { Audio } from '../../audio/audio'
import type { PadId } from '../../kit/ids'
import { createOffline, renderOffline, toScore } from '../offline'
import { EventType } from '../program/codes'
import type { DrawAnswer, DrawGrooveAnswer, DrawGrooveRequest, DrawRequest } from './messages'

interface WorkerHost {
  onmessage: ((event: { data: DrawRequest | DrawGrooveRequest }) => void) | null
  postMessage(message: DrawAnswer | DrawGrooveAnswer, transfer: ArrayBuffer[]): void
}

type Kept = ReadonlyMap<string, Audio>

export function draw(request: DrawRequest, audio: Kept = new Map(request.audio)): DrawAnswer {
  const { engine, loader } = createOffline(request.kit, request.sampleRateHz, (hash) => audio.get(hash))
  const score = toScore(request.events.map((event) => ({ ...event, padSlot: loader.slotOf(event.padId as PadId) })))
  const [left, right] = renderOffline(engine, score, request.frames, request.blockFrames)
  return { id: request.id, left, right }
}

/** What a groove makes of each kit. */
export function drawGroove(request: DrawGrooveRequest, audio: Kept = new Map(request.audio)): DrawGrooveAnswer {
  const { id, kits, choice, frames, sampleRateHz } = request
  const parts = kits.map((kit) => {
    const { engine } = createOffline(kit, sampleRateHz, (hash) => audio.get(hash), kit.seed, choice)
    const tap = { left: new Float32Array(frames), right: new Float32Array(frames) }
    renderOffline(engine, toScore([{ frame: 0, type: EventType.groove, padSlot: 0, velocity: 0 }]), frames, undefined, { tap })
    return [tap.left, tap.right] as const
  })
  return { id, parts }
}

export function serveDrawing(): void {
  const host = globalThis as unknown as WorkerHost
  const kept = new Map<string, Audio>()
  host.onmessage = ({ data }) => {
    for (const hash of data.forget ?? []) kept.delete(hash)
    for (const [hash, audio] of data.audio) kept.set(hash, audio)
    if ('kits' in data) {
      const answer = drawGroove(data, kept)
      host.postMessage(answer, answer.parts.flatMap((sides) => sides.map(({ buffer }) => buffer as ArrayBuffer))) // prettier-ignore
      return
    }
    const answer = draw(data, kept)
    host.postMessage(answer, [answer.left.buffer as ArrayBuffer, answer.right.buffer as ArrayBuffer])
  }
}
