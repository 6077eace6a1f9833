import { z } from 'zod'

import { deviceSettings } from './device-settings'

const schema = z.object({ size: z.number().min(1).max(9), word: z.enum(['one', 'two']) })
const usual = { size: 3, word: 'one' as 'one' | 'two' }

function aDisk(text?: string) {
  const held = new Map<string, string>(text === undefined ? [] : [['key', text]])
  return {
    held,
    getItem: (name: string) => held.get(name) ?? null,
    setItem: (name: string, value: string) => void held.set(name, value),
    removeItem: (name: string) => void held.delete(name),
  }
}

test('settings come back as they were left, and each that does not fit is as usual', () => {
  const storage = aDisk()
  deviceSettings('key', schema, usual, { storage }).setState({ size: 7 })
  expect(deviceSettings('key', schema, usual, { storage }).getState()).toEqual({ size: 7, word: 'one' })
  for (const [text, expected] of [
    ['{"size":99,"word":"two","other":1}', { size: 3, word: 'two' }],
    ['not json', usual],
    ['[]', usual],
    ['null', usual],
  ] as const)
    expect(deviceSettings('key', schema, usual, { storage: aDisk(text) }).getState()).toEqual(expected)
})

test('what an older version has written is read once more', () => {
  const older = (text: string) => ({ word: text as 'two' })
  expect(deviceSettings('key', schema, usual, { storage: aDisk('two'), older }).getState().word).toBe('two')
  expect(deviceSettings('key', schema, usual, { storage: aDisk('three'), older }).getState().word).toBe('one')
})

test('a disk without room loses no setting of this page', () => {
  const full = { ...aDisk(), setItem: () => { throw new DOMException('full', 'QuotaExceededError') } } // prettier-ignore
  const settings = deviceSettings('key', schema, usual, { storage: full })
  settings.setState({ size: 8 })
  expect(settings.getState().size).toBe(8)
})
