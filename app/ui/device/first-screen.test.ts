beforeEach(() => {
  jest.resetModules()
  jest.useFakeTimers()
})
afterEach(() => jest.useRealTimers())

const loaded = () => jest.requireActual<typeof import('./first-screen')>('./first-screen') // eslint-disable-line @typescript-eslint/consistent-type-imports

test('what waits for the first screen goes on once it stands, and at once from then on', async () => {
  const { screenStands, untilFirstScreen } = loaded()
  const went = jest.fn()
  void untilFirstScreen().then(went)
  await jest.advanceTimersByTimeAsync(2000)
  expect(went).not.toHaveBeenCalled()
  screenStands()
  await jest.advanceTimersByTimeAsync(0)
  expect(went).toHaveBeenCalledTimes(1)
  void untilFirstScreen().then(went)
  await jest.advanceTimersByTimeAsync(0)
  expect(went).toHaveBeenCalledTimes(2)
  expect(jest.getTimerCount()).toBe(0)
})

test('a screen that never says so is waited for no longer than three seconds', async () => {
  const { untilFirstScreen } = loaded()
  const went = jest.fn()
  void untilFirstScreen().then(went)
  await jest.advanceTimersByTimeAsync(3000)
  expect(went).toHaveBeenCalledTimes(1)
})
