import fc from 'fast-check'

import { inTimeFrame } from '.'

const how = fc.record({
  tempoBpm: fc.double({ min: 20, max: 400, noNaN: true }),
  everyBeats: fc.constantFrom(0.25, 0.5, 1, 2, 4, 8),
  sampleRateHz: fc.constantFrom(44100, 48000, 96000),
})
const now = fc.integer({ min: 0, max: 100_000_000 })

test('where nothing sounds it begins at once', () => {
  fc.assert(fc.property(how, now, (given, frame) => inTimeFrame(frame, { beat: -1, sinceFrame: undefined }, given) === frame))
})

test('it waits for the next step, less than one, and not at all where it is hardly late; whatever it is counted from', () => {
  fc.assert(
    fc.property(how, now, fc.integer({ min: 0, max: 20_000_000 }), fc.boolean(), (given, frame, passed, isGroove) => {
      const { tempoBpm, everyBeats, sampleRateHz } = given
      const step = (60 * sampleRateHz * everyBeats) / tempoBpm
      const running = isGroove ? { beat: (passed * tempoBpm) / (60 * sampleRateHz), sinceFrame: undefined } : { beat: -1, sinceFrame: frame - passed } // prettier-ignore
      const begins = inTimeFrame(frame, running, given)
      const late = passed % step
      if (begins === frame) expect(late <= Math.min(0.05 * sampleRateHz, step / 4) + 1e-3 || step - late < 1).toBe(true)
      else {
        expect(begins - frame).toBeLessThanOrEqual(Math.ceil(step))
        const places = (passed + begins - frame) / step
        expect(Math.abs(places - Math.round(places)) * step).toBeLessThanOrEqual(0.51)
      }
    }),
  )
})
