import { clearMarks, markOver, mixMeter, takeReading } from './mix-meter'

jest.mock('./sound', () => {
  const { createStore } = jest.requireActual<typeof import('zustand/vanilla')>('zustand/vanilla') // eslint-disable-line @typescript-eslint/consistent-type-imports
  return { sound: createStore(() => ({})) }
})
const reading = (truePeakDb: number) => ({ momentary: -20, short: -20, integrated: -20, peakDb: truePeakDb, truePeakDb, rmsDb: -23, correlation: 1 }) // prettier-ignore

test('a mark stays until it is cleared: of the whole from its true peak, of pads and buses as they are told', () => {
  takeReading(reading(-3))
  expect(mixMeter.getState()).toMatchObject({ highestDb: -3, hasClipped: false })
  takeReading(reading(0.4))
  takeReading(reading(-9))
  markOver('pad-a')
  markOver('pad-a')
  expect(mixMeter.getState()).toMatchObject({ highestDb: 0.4, hasClipped: true, over: ['pad-a'], reading: { truePeakDb: -9 } })
  clearMarks()
  expect(mixMeter.getState()).toMatchObject({ highestDb: -Infinity, hasClipped: false, over: [] })
})
