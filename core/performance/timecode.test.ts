import fc from 'fast-check'

import { pictureRates } from '../kit'
import type { PictureRate } from '../kit'
import { pictureAt, picturesOf, secondsOfPictures, timecodeOf } from '.'

/** Counts timecodes one by one, as the standard says it: at a new minute that is no tenth, the first numbers are left out. */
function countedUp(counted: number, dropped: number, pictures: number): string[] {
  const codes: string[] = []
  let [hours, minutes, seconds, frame] = [0, 0, 0, 0]
  const two = (value: number) => String(value).padStart(2, '0')
  for (let i = 0; i < pictures; i++) {
    codes.push(`${two(hours)}:${two(minutes)}:${two(seconds)}${dropped ? ';' : ':'}${two(frame)}`)
    if (++frame < counted) continue
    frame = 0
    if (++seconds < 60) continue
    seconds = 0
    if (++minutes === 60) [minutes, hours] = [0, hours + 1]
    if (minutes % 10 !== 0) frame = dropped
  }
  return codes
}

test.each([['29.97 drop', 30, 2], ['59.94 drop', 60, 4], ['25', 25, 0], ['23.976', 24, 0]] as const)('%s counts as the standard does, picture by picture, for twenty-two minutes', (rate, counted, dropped) => {
  const codes = countedUp(counted, dropped, 22 * 60 * counted)
  for (const [picture, code] of codes.entries()) if (timecodeOf(rate, picture) !== code || picturesOf(rate, code) !== picture) throw new Error(`${rate}, picture ${picture}: ${timecodeOf(rate, picture)} for ${code}`) // prettier-ignore
  expect(codes.length).toBeGreaterThan(30_000)
}) // prettier-ignore

test('every picture of a day has one timecode and comes back from it; a day later it begins anew', () => {
  const anyRate = fc.constantFrom(...pictureRates)
  fc.assert(
    fc.property(anyRate, fc.integer({ min: 0, max: 2_589_000 }), (rate, pictures) => {
      fc.pre(picturesOf(rate, '23:59:59:22')! >= pictures)
      expect(picturesOf(rate, timecodeOf(rate, pictures))).toBe(pictures)
      expect(pictureAt(rate, secondsOfPictures(rate, pictures))).toBe(pictures)
    }),
  )
  expect(timecodeOf('25', 25 * 86_400)).toBe('00:00:00:00')
  expect(timecodeOf('25', -1)).toBe('23:59:59:24')
})

test('drop frame keeps with the clock: an hour of it is an hour, but for a picture', () => {
  for (const rate of ['29.97 drop', '59.94 drop'] as const)
    expect(Math.abs(secondsOfPictures(rate, picturesOf(rate, '01:00:00;00')!) - 3600)).toBeLessThan(0.01)
  expect(secondsOfPictures('29.97', picturesOf('29.97', '01:00:00:00')!)).toBeCloseTo(3603.6, 6)
})

test('what is no timecode, or names a picture that is left out, is none', () => {
  const wrong: [PictureRate, string][] = [['25', '00:00:00:25'], ['25', '24:00:00:00'], ['25', '1:2:3'], ['24', 'a:b:c:d'], ['29.97 drop', '00:01:00;00'], ['59.94 drop', '00:01:00;03']] // prettier-ignore
  for (const [rate, text] of wrong) expect(picturesOf(rate, text)).toBeUndefined()
  expect(picturesOf('29.97 drop', '00:10:00;00')).toBe(17_982)
  expect(picturesOf('25', ' 1:02:3:4 ')).toBe(25 * 3723 + 4)
})
