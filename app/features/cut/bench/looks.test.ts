import { cutLooks, placeText, tickStep } from './looks'

test('ticks of a scale are 1, 2 or 5 of a power of ten apart, and as many as fit', () => {
  const steps = [[10, 10], [11, 10], [21, 10], [51, 10], [0.3, 6], [7, 100], [3, 0]].map(([span, most]) => tickStep(span, most)) // prettier-ignore
  ;[1, 2, 5, 10, 0.05, 0.1, 5].forEach((step, i) => expect(steps[i]).toBeCloseTo(step, 9))
  for (let span = 0.013; span < 5000; span *= 1.37) {
    const step = tickStep(span, 8)
    expect([1, 2, 5].some((one) => Math.abs(Math.log10(step / one) - Math.round(Math.log10(step / one))) < 1e-9)).toBe(true)
    expect(span / step).toBeLessThanOrEqual(8 + 1e-9)
    expect(span / step).toBeGreaterThan(8 / 2.6)
  }
})

test('places are said as exactly as ticks are apart: seconds, ms where it is near, minutes where it is far', () => {
  expect(placeText(3.14159, 1, 'seconds')).toBe('3 s')
  expect(placeText(3.14159, 0.1, 'seconds')).toBe('3.1 s')
  expect(placeText(3.14159, 0.01, 'seconds')).toBe('3.14 s')
  expect(placeText(3.14159, 0.001, 'seconds')).toBe('3142 ms')
  expect(placeText(3.14159, 0.0001, 'seconds')).toBe('3141.6 ms')
  expect(placeText(13.14159, 0.001, 'seconds')).toBe('13.142 s')
  expect([placeText(60, 1, 'seconds'), placeText(65, 1, 'seconds'), placeText(125.25, 0.1, 'seconds')]).toEqual(['1:00', '1:05', '2:05.3'])
})

test('samples are whole, beats as exact as their ticks', () => {
  expect([placeText(1234.6, 0.001, 'frames'), placeText(2.5, 1, 'beats'), placeText(2.25, 0.01, 'beats')]).toEqual(['1235', '3', '2.25'])
})

test('a bench begins with seconds, what was recorded and where strikes are, and without a spectrogram', () => {
  expect(cutLooks.getState()).toEqual({ times: 'seconds', hasSpectrogram: false, showsRecordings: true, showsOverview: true, showsStrikes: true, endsStay: false }) // prettier-ignore
})
