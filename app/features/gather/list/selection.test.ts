import type { SourceId } from '@heliaster/core/kit'

import { withDragged, withRow } from './selection'
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

test('rows that are dragged over become what the first of them becomes; going back lets the last ones be as they were', () => {
  const order = ['a', 'b', 'c', 'd', 'e'] as SourceId[]
  const before = new Set(['b', 'e'] as SourceId[])
  const over = (from: number, to: number) => [...withDragged(before, order, from, to).chosen].sort().join('')
  expect([over(0, 0), over(0, 2), over(0, 1), over(2, 0)]).toEqual(['abe', 'abce', 'abe', 'abce'])
  expect([over(1, 3), over(1, -4), over(4, 9)]).toEqual(['e', 'e', 'b']) // the first was ticked: they are let go
  expect(withDragged(before, order, 0, 3).anchor).toBe('d')
})
