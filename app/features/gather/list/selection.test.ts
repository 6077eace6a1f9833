import type { SourceId } from '@heliaster/core/kit'

import { withRow } from './selection'
import type { Selecting } from './selection'

const order = ['a', 'b', 'c', 'd', 'e', 'f'] as SourceId[]
const walk = (steps: readonly (readonly [string, boolean])[]): string =>
  [...steps.reduce<Selecting>((now, [id, isRange]) => withRow(now, order, id as SourceId, isRange), { chosen: new Set() }).chosen]
    .sort()
    .join('')

test('rows are ticked one by one, and with Shift all from the last one on, upwards too', () => {
  expect(walk([['b', false], ['d', false]])).toBe('bd') // prettier-ignore
  expect(walk([['b', false], ['e', true]])).toBe('bcde') // prettier-ignore
  expect(walk([['e', false], ['c', true], ['a', true]])).toBe('abcde') // prettier-ignore
})

test('a range does what its first row did: what was let go is let go', () => {
  expect(walk([['a', false], ['f', true], ['b', false], ['d', true]])).toBe('aef') // prettier-ignore
})

test('without a row to begin from, or one that is no longer shown, a range is a single row', () => {
  expect(walk([['c', true]])).toBe('c')
  expect([...withRow({ chosen: new Set(), anchor: 'gone' as SourceId }, order, 'd' as SourceId, true).chosen]).toEqual(['d'])
})
