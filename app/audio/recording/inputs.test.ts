import { sound } from '../engine/sound'
import type { Player } from '../engine/player'
import { NoInput, openInput } from './inputs'

jest.mock('../engine/engine-url', () => ({}))
jest.mock('./practice-microphone', () => ({}))
jest.mock('../engine/sound', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { sound: createStore(() => ({})) }
})

const letSleep = jest.fn()
const player = { context: {}, node: {}, sleep: { hold: () => letSleep }, resume: () => Promise.resolve() } as unknown as Player

beforeEach(() => {
  jest.useFakeTimers()
  sound.setState({}, true)
})
afterEach(() => void jest.useRealTimers())

test('the pads are an input as soon as the engine has started, and let it sleep again when they are let go of', async () => {
  const opened = openInput('pads', undefined, () => undefined)
  await jest.advanceTimersByTimeAsync(3000)
  sound.setState({ player })
  const input = await opened
  expect(input).toMatchObject({ node: player.node, output: 1, label: 'The pads' })
  await input.close()
  expect(letSleep).toHaveBeenCalledTimes(1)
})

test('an engine that cannot start says why; one that takes too long is not waited for', async () => {
  const refused = expect(openInput('pads', undefined, () => undefined)).rejects.toThrow('This browser has no AudioWorklet.')
  sound.setState({ problem: 'This browser has no AudioWorklet.' })
  await refused
  sound.setState({}, true)
  const late = expect(openInput('pads', undefined, () => undefined)).rejects.toBeInstanceOf(NoInput)
  await jest.advanceTimersByTimeAsync(20_000)
  await late
})
