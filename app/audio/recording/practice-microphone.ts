import { releaseProxy, wrap } from 'comlink'

import type { PracticeWork } from './practice.worker'

const SEED = 5
const SECONDS = 24
export const PRACTICE_RATE = 48000
let performance: Promise<Float32Array> | undefined

/** Makes the performance ahead of time, so that recording starts at once. */
export function preparePractice(): Promise<Float32Array> {
  performance ??= (async () => {
    const worker = new Worker(new URL('./practice.worker', window.location.href))
    const remote = wrap<PracticeWork>(worker)
    const samples = await remote.perform(SEED, SECONDS)
    remote[releaseProxy]() // until here it must be held, or the worker falls deaf
    worker.terminate()
    return samples
  })()
  return performance
}

/** A simulated player in the boatyard, for machines with no microphone. It strikes on, round and round. */
export async function practiceStream(context: AudioContext): Promise<{ node: AudioNode; close(): void }> {
  const samples = await preparePractice()
  const buffer = context.createBuffer(1, samples.length, PRACTICE_RATE)
  buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0)
  const node = context.createBufferSource()
  node.buffer = buffer
  node.loop = true
  node.start()
  return { node, close: () => node.stop() }
}
