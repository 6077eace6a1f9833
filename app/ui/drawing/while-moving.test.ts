import { whileMoving } from './while-moving'

let frames: (() => void)[] = []

beforeEach(() => {
  jest.useFakeTimers()
  frames = []
  jest.spyOn(globalThis, 'requestAnimationFrame').mockImplementation((draw) => frames.push(() => draw(0)))
  jest.spyOn(globalThis, 'cancelAnimationFrame').mockImplementation((id) => void (frames[(id ?? 0) - 1] = () => undefined))
})
afterEach(() => jest.useRealTimers())

const pictures = (count: number) => {
  for (let i = 0; i < count; i++) frames.splice(0).forEach((draw) => draw())
}

test('each picture is asked for while something moves; nothing moving asks for none, and is looked at again', () => {
  let moves = true
  const draw = jest.fn(() => moves)
  const end = whileMoving(draw)
  pictures(5)
  expect(draw).toHaveBeenCalledTimes(5)
  moves = false
  pictures(1)
  expect(frames).toHaveLength(0)
  jest.advanceTimersByTime(500)
  expect(draw).toHaveBeenCalledTimes(16)
  expect(frames).toHaveLength(0)
  moves = true
  jest.advanceTimersByTime(50)
  pictures(3)
  expect(draw).toHaveBeenCalledTimes(20)
  end()
  pictures(2)
  jest.advanceTimersByTime(500)
  expect(draw).toHaveBeenCalledTimes(20)
})

test('ended while it rests it does not look again', () => {
  const draw = jest.fn(() => false)
  const end = whileMoving(draw)
  pictures(1)
  end()
  jest.advanceTimersByTime(1000)
  expect(draw).toHaveBeenCalledTimes(1)
})
