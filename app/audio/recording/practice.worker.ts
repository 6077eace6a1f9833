import { practiceScene } from '@heliaster/demo/recordings'
import { expose, transfer } from 'comlink'

const work = {
  perform(seed: number, seconds: number): Float32Array {
    const { samples } = practiceScene(seed, seconds)
    return transfer(samples, [samples.buffer as ArrayBuffer])
  },
}
export type PracticeWork = typeof work

expose(work)
