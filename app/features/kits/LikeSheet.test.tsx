import type { Kit } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'

import { aKitOf, aPad } from '../../testing/a-kit'
import { LikeSheet } from './LikeSheet'
import { countWords } from './like-words'

const kit: Kit = { ...aKitOf(aPad(2), aPad(1)), name: 'Low Tide', tempoBpm: 92 }
let mockKit: Kit | undefined
jest.mock('../../kit-view/use-other-kits', () => ({
  useOtherKits: () => [{ value: 'kit-far', text: 'Far', changedAt: 1 }],
  useKitById: (id: unknown) => (id ? mockKit : undefined),
}))
jest.mock('../../kit-view/use-kit', () => ({ padName: () => 'Pad' }))

test('a kit is chosen, what of it comes is said and seen, and one like it is begun; one on its way says so', () => {
  const begun = jest.fn()
  const { rerender } = render(<LikeSheet onClose={() => undefined} onBegin={begun} />)
  expect(screen.getByRole('button', { name: 'Choose a kit' }).getAttribute('aria-disabled')).toBe('true')
  fireEvent.click(screen.getByRole('radio', { name: 'Far' }))
  expect(screen.getByText('It is on its way from the server.')).toBeTruthy()
  mockKit = kit
  rerender(<LikeSheet onClose={() => undefined} onBegin={begun} />)
  fireEvent.click(screen.getByRole('radio', { name: 'Far' }))
  expect(screen.getByText('2 pads, at 92 beats a minute.')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Begin like Low Tide' }))
  expect(begun).toHaveBeenCalledWith(kit)
})

test('what comes is counted in words, parts of a loop do not', () => {
  const ties = [{ id: 't', kind: 'takeTurns', pads: [], pick: 'cycle' }, { id: 'p', kind: 'parts' }] as never // prettier-ignore
  expect(countWords({ ...kit, ties })).toBe('2 pads, 1 tie, at 92 beats a minute.')
})
