import type { Kit } from '@heliaster/core/kit'

import { aKitOf, aPad, audio } from '../../testing/a-kit'
import { drawStrike } from './draw'

jest.mock('./engine-url', () => ({ engineUrl: () => Promise.resolve('/engine.js') }))
jest.mock('./worked', () => ({ workedMatter: () => Promise.resolve({ workedKit: (kit: Kit) => kit, audioForNote: (clip: { audio: string }) => [clip.audio] }) })) // prettier-ignore
jest.mock('../files/audio-files', () => ({ decodedAudio: () => Promise.resolve({ audio: { sampleRateHz: 48000, channels: [new Float32Array(10)] } }) })) // prettier-ignore

interface Sent {
  readonly id: number
  readonly kit: Kit
  readonly audio: readonly (readonly [string, unknown])[]
}

test('a sound is sent to the worker once, and again where sending it failed; a hit is drawn without what its pad sends elsewhere', async () => {
  const drawn: Kit[] = []
  const sent: string[][] = []
  let isFull = true
  class MockWorker {
    onmessage?: (event: { data: object }) => void
    postMessage({ id, kit: played, audio: given }: Sent) {
      if (isFull) throw new DOMException('no memory', 'DataCloneError')
      drawn.push(played)
      sent.push(given.map(([hash]) => hash))
      this.onmessage!({ data: { id, left: new Float32Array(1), right: new Float32Array(1) } })
    }
  }
  Object.assign(globalThis, { Worker: MockWorker })
  const pad = aPad(2)
  const kit = aKitOf(pad)
  await expect(drawStrike(kit, pad, 100, 0.1)).rejects.toThrow('no memory')
  isFull = false
  for (let i = 0; i < 3; i++) await drawStrike(kit, pad, 100, 0.1)
  expect(sent).toEqual([[audio], [], []])
  const withSend = {
    ...pad,
    rays: pad.rays.map((ray) => ({ ...ray, sends: [{ busId: 'bus-room', tap: 'post', values: {} }] })),
  } as unknown as typeof pad
  await drawStrike(aKitOf(withSend), withSend, 100, 0.1)
  expect(drawn.map(({ pads }) => pads[0].rays.flatMap(({ sends }) => sends))).toEqual([[], [], [], []])
})
