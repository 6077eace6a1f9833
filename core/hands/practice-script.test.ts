import fc from 'fast-check'

import { readScript } from '.'
import type { ScriptStep } from '.'

const stepsOf = (text: string): readonly ScriptStep[] => {
  const read = readScript(text)
  if (typeof read === 'string') throw new Error(read)
  return read
}

test('notes begin and end at their times, and waits move what follows', () => {
  expect(stepsOf('note 36 100 400\nwait 250\n\nNote 38\nwheel 64\nbend -1').map(({ atMs, message }) => [atMs, message.type])).toEqual([
    [0, 'noteOn'],
    [250, 'noteOn'],
    [250, 'controller'],
    [250, 'bend'],
    [350, 'noteOff'],
    [400, 'noteOff'],
  ])
  expect(stepsOf('channel 10\npressure 3')[0]!.message).toEqual({ type: 'pressure', channel: 10, pressure: 3 })
  expect(stepsOf('')).toEqual([])
})

test('a line that is nothing is named with its number', () => {
  for (const line of ['note', 'note 128', 'note 36 0', 'wait -1', 'wait later', 'pedal 200', 'bend 2', 'channel 0', 'sing', 'constructor', 'note 36 100 -5'])
    expect(readScript(`note 36\n${line}`)).toMatch(/^Line 2/) // prettier-ignore
})

test('any script of good lines plays in the order of time, and ends each note that it begins', () => {
  const line = fc.oneof(
    fc.tuple(fc.nat(127), fc.integer({ min: 1, max: 127 }), fc.nat(900)).map((numbers) => `note ${numbers.join(' ')}`),
    fc.nat(400).map((ms) => `wait ${ms}`),
    fc.nat(127).map((value) => `pedal ${value}`),
  )
  fc.assert(
    fc.property(fc.array(line), (lines) => {
      const steps = stepsOf(lines.join('\n'))
      expect(steps.every(({ atMs }, i) => i === 0 || atMs >= steps[i - 1]!.atMs)).toBe(true)
      const count = (type: string) => steps.filter(({ message }) => message.type === type).length
      expect(count('noteOn')).toBe(count('noteOff'))
      expect(count('noteOn')).toBe(lines.filter((one) => one.startsWith('note')).length)
    }),
  )
})
