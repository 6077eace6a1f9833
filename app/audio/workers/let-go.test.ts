import { giveBack, letGo, tidy } from './let-go'

test('the browser is made to look once for every 16 MB that are let go, however they come', () => {
  const ask = jest.fn((bytes: number) => bytes)
  for (let i = 0; i < 48; i++) letGo(1e6, ask)
  expect(ask).toHaveBeenCalledTimes(3)
  letGo(40e6, ask)
  expect(ask).toHaveBeenCalledTimes(4)
  expect(Math.min(...ask.mock.calls.flat())).toBeGreaterThan(32e6)
})

test('where it is refused nothing is lost, and it is asked again', () => {
  const refused = jest.fn(() => {
    throw new RangeError('Array buffer allocation failed')
  })
  letGo(16e6, refused)
  letGo(16e6, refused)
  expect(refused).toHaveBeenCalledTimes(2)
  letGo(16e6) // and the real one has room for it
})

test('when all has come it is made to look once more, but not for a little', () => {
  tidy(false, 1, jest.fn())
  const ask = jest.fn((bytes: number) => bytes)
  letGo(17e6, ask)
  tidy(false, 1, ask)
  tidy(false, 1, ask)
  expect(ask).toHaveBeenCalledTimes(2)
  letGo(3e6, ask)
  tidy(false, 1, ask)
  expect(ask).toHaveBeenCalledTimes(2)
  tidy(true, 1, ask) // much has passed that was not counted
  expect(ask).toHaveBeenCalledTimes(3)
})

test('what is given back is cut to nothing where the browser can, and lies about where it cannot', () => {
  const transfer = jest.fn()
  giveBack(Object.assign(new ArrayBuffer(4000), { transfer }))
  expect(transfer.mock.calls).toEqual([[0]])
  tidy(false, 1, jest.fn())
  const ask = jest.fn((bytes: number) => bytes)
  giveBack(Object.assign(new ArrayBuffer(5e6), { transfer: undefined }))
  tidy(false, 1, ask)
  expect(ask).toHaveBeenCalledTimes(1)
})
