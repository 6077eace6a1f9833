import type { BusId } from '@heliaster/core/kit'

import { askForNames, chooseOutput, choosePair, findOutputs, outputChoice, outputState, pairsOf, pairWords, takeUpOutputs } from './outputs'

const mockSetPairs = jest.fn()
const mockDelay = jest.fn(() => 0)
let mockPlayer: unknown
let mockLoaded: () => void
jest.mock('./sound', () => ({
  sound: { getState: () => ({ player: mockPlayer }) },
  onLoaded: (listener: () => void) => (mockLoaded = listener),
}))
jest.mock('./mix-delay', () => ({ mixDelaySeconds: () => mockDelay() }))

/** What is connected to what, in the order in which it was. */
let ways: string[]
class Node {
  channelCount = 2
  channelCountMode = 'max'
  channelInterpretation = 'speakers'
  delayTime = { value: 0 }
  constructor(
    readonly name: string,
    readonly maxChannelCount = 2,
  ) {}
  connect(to: Node, output = 0, input = 0) {
    ways.push(`${this.name}.${output} to ${to.name}.${input}`)
  }
  disconnect(from?: Node) {
    ways = ways.filter((way) => !(way.startsWith(`${this.name}.`) && (!from || way.includes(` to ${from.name}.`))))
  }
}

function begin(channels: number, more: object = {}) {
  ways = []
  const destination = new Node('device', channels)
  const delay = new Node('delay')
  const context = { destination, createChannelMerger: () => new Node('merger'), createChannelSplitter: (count: number) => new Node(`split${count}`), createDelay: () => delay, ...more } // prettier-ignore
  const node = new Node('engine')
  node.connect(destination)
  mockPlayer = { context, node, setPairs: mockSetPairs }
  return { destination, delay, context }
}

const BUS = 'drums' as BusId
beforeEach(() => {
  choosePair(BUS, 0)
  outputChoice.setState({ deviceId: '', pairs: {} })
  outputState.setState({ channels: 2, devices: [], problem: undefined })
  mockSetPairs.mockClear()
})

test('pairs are counted behind the one of the mix', () => {
  expect([2, 3, 4, 8].map((channels) => pairsOf(channels).length)).toEqual([0, 0, 1, 3])
  expect(pairWords(1)).toBe('Outputs 3 and 4')
})

test('a bus on a pair is laid on its channels, the mix stays on the first two; taken back all is as it was', () => {
  const { destination } = begin(6)
  choosePair(BUS, 2)
  expect(mockSetPairs).toHaveBeenLastCalledWith(new Map([[BUS, 2]]))
  expect(destination.channelCount).toBe(6)
  expect(ways).toEqual([
    'engine.0 to split2.0', 'engine.2 to delay.0', 'delay.0 to split30.0',
    'split2.0 to merger.0', 'split2.1 to merger.1',
    'split30.0 to merger.2', 'split30.1 to merger.3', 'split30.2 to merger.4', 'split30.3 to merger.5', 'merger.0 to device.0',
  ]) // prettier-ignore
  choosePair(BUS, 0)
  expect(mockSetPairs).toHaveBeenLastCalledWith(new Map())
  expect(ways.filter((way) => way.startsWith('engine'))).toEqual(['engine.0 to device.0'])
  expect(destination.channelCount).toBe(2)
})

test('a pair that the device does not have leaves the bus in the mix, and is kept for the device that has it', () => {
  begin(2)
  choosePair(BUS, 2)
  expect(mockSetPairs).toHaveBeenLastCalledWith(new Map())
  expect(ways).toEqual(['engine.0 to device.0'])
  expect(outputChoice.getState().pairs).toEqual({ [BUS]: 2 })
})

test('pairs wait as long as a limiter on the whole makes the mix later', async () => {
  mockDelay.mockReturnValue(0.0015)
  const { delay } = begin(4)
  await takeUpOutputs()
  choosePair(BUS, 1)
  expect(delay.delayTime.value).toBe(0.0015)
  mockDelay.mockReturnValue(0)
  mockLoaded()
  expect(delay.delayTime.value).toBe(0)
})

test('another output is chosen; one that cannot be had is said, and what was chosen before stays', async () => {
  const setSinkId = jest.fn(async (id: string) => {
    if (id === 'gone') throw new Error('no')
  })
  begin(2, { setSinkId })
  await chooseOutput('desk')
  expect(outputChoice.getState().deviceId).toBe('desk')
  await chooseOutput('gone')
  expect(outputChoice.getState().deviceId).toBe('desk')
  expect(outputState.getState().problem).toMatch(/cannot be had now/)
})

test('the microphone that is asked for is let go at once; a browser that says no is told of', async () => {
  begin(2)
  const stop = jest.fn()
  const getUserMedia = jest.fn(async () => ({ getTracks: () => [{ stop }] }))
  Object.defineProperty(navigator, 'mediaDevices', { configurable: true, value: { getUserMedia, enumerateDevices: async () => [] } })
  await askForNames()
  expect(stop).toHaveBeenCalledTimes(1)
  expect(outputState.getState().problem).toBeUndefined()
  getUserMedia.mockRejectedValueOnce(new Error('no'))
  await askForNames()
  expect(outputState.getState().problem).toMatch(/Allow the microphone/)
})

test('outputs are listed with their names; those without a name by their number', async () => {
  begin(2)
  Object.defineProperty(navigator, 'mediaDevices', {
    configurable: true,
    value: { enumerateDevices: async () => [{ kind: 'audiooutput', deviceId: 'default', label: 'Default' }, { kind: 'audioinput', deviceId: 'mic', label: 'Mic' }, { kind: 'audiooutput', deviceId: 'desk', label: 'Desk' }, { kind: 'audiooutput', deviceId: 'x', label: '' }] }, // prettier-ignore
  })
  await findOutputs()
  expect(outputState.getState().devices.map(({ name }) => name)).toEqual(['As the computer plays', 'Desk', 'Output 2'])
})
