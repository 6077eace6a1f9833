import type { PadId } from '../../kit/ids'
import { createOffline, renderOffline, toScore } from '../offline'
import type { DrawAnswer, DrawRequest } from './messages'

interface WorkerHost {
  onmessage: ((event: { data: DrawRequest }) => void) | null
  postMessage(message: DrawAnswer, transfer: ArrayBuffer[]): void
}

export function draw(request: DrawRequest): DrawAnswer {
  const audio = new Map(request.audio)
  const { engine, loader } = createOffline(request.kit, request.sampleRateHz, (hash) => audio.get(hash))
  const score = toScore(request.events.map((event) => ({ ...event, padSlot: loader.slotOf(event.padId as PadId) })))
  const [left, right] = renderOffline(engine, score, request.frames, request.blockFrames)
  return { id: request.id, left, right }
}

export function serveDrawing(): void {
  const host = globalThis as unknown as WorkerHost
  host.onmessage = ({ data }) => {
    const answer = draw(data)
    host.postMessage(answer, [answer.left.buffer as ArrayBuffer, answer.right.buffer as ArrayBuffer])
  }
}
