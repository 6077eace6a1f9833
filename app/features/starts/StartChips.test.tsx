import { createStart } from '@heliaster/core/kit'
import type { Start } from '@heliaster/core/kit'
import { act, fireEvent, render, screen } from '@testing-library/react'

import { makeId } from '../../documents/make-id'
import { KeepStart, StartChips } from './StartChips'

let mockKept: Start[] = []
const mockCreate = jest.fn((_start: Start) => Promise.resolve())
const mockEdit = jest.fn()
const mockBack = jest.fn()
const mockHide = jest.fn((_id: unknown) => Promise.resolve(mockBack))
const mockNotify = jest.fn()
jest.mock('./use-starts', () => ({ useStarts: (about: 'pad' | 'cut') => mockKept.filter((start) => start[about]) }))
jest.mock('../../documents', () => ({
  starts: {
    create: (start: Start) => mockCreate(start),
    edit: (...given: unknown[]) => mockEdit(...given) as unknown,
    hide: (id: unknown) => mockHide(id),
  },
}))
jest.mock('../../ui/layout/notices', () => ({ notify: (...given: unknown[]) => mockNotify(...given) as unknown }))

const cut = { waterLine: 0.4, minGapSeconds: 0.1 }
const chosen = jest.fn()
const chips = (value?: string) => render(<StartChips label="Cut as" about="cut" plain="As it is" value={value} onChoose={chosen} />)
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const type = (value: string) => fireEvent.change(screen.getByRole('textbox', { name: 'Name of the start' }), { target: { value } })

beforeEach(() => {
  jest.clearAllMocks()
  mockKept = []
})

test('where nothing was kept nothing is asked; else one is chosen, or none', () => {
  const { container, unmount } = chips()
  expect(container.textContent).toBe('')
  unmount()
  mockKept = [createStart(makeId, 'Deck', { cut }), createStart(makeId, 'Planks', { pad: {} as never })]
  chips(mockKept[0].id)
  expect(screen.getAllByRole('radio').map((one) => one.textContent)).toEqual(['As it is', 'Deck'])
  fireEvent.click(screen.getByRole('radio', { name: 'As it is' }))
  expect(chosen).toHaveBeenLastCalledWith(undefined)
  fireEvent.click(screen.getByRole('radio', { name: 'Deck' }))
  expect(chosen).toHaveBeenLastCalledWith(mockKept[0])
})

test('a start that is given away is said to be gone, and can be brought back where that is said', async () => {
  mockKept = [createStart(makeId, 'Deck', { cut })]
  const { unmount } = chips()
  expect(screen.queryByRole('button')).toBeNull() // none is chosen
  unmount()
  chips(mockKept[0].id)
  await act(async () => press('Give away the start “Deck”'))
  expect([chosen.mock.lastCall, mockHide.mock.lastCall]).toEqual([[undefined], [mockKept[0].id]])
  const [words, { run }] = mockNotify.mock.lastCall as [string, { run: () => void }]
  expect(words).toMatch(/^The start “Deck” is gone\./)
  run()
  expect(mockBack).toHaveBeenCalledTimes(1)
})

test('settings are kept under a name, by Enter or by the button; blanks are none', () => {
  render(<KeepStart label="Keep this way of cutting" settings={{ cut }} />)
  press('Keep this way of cutting')
  type('   ')
  press('Keep')
  expect(mockCreate).not.toHaveBeenCalled()
  type(`  Deck ${'x'.repeat(200)}`)
  fireEvent.keyDown(screen.getByRole('textbox', { name: 'Name of the start' }), { key: 'Enter' })
  expect(mockCreate.mock.calls[0][0]).toMatchObject({ name: `Deck ${'x'.repeat(115)}`, cut })
  expect(mockNotify).toHaveBeenCalledWith(expect.stringContaining('can be chosen as a start from now on.'))
  expect(screen.queryByRole('textbox')).toBeNull()
})

test('the same name again takes the place of what it stood for, which the button says', () => {
  mockKept = [createStart(makeId, 'Deck', { cut }), createStart(makeId, 'Planks', { pad: {} as never })]
  const { unmount } = render(<KeepStart label="Keep" settings={{ cut: { ...cut, waterLine: 0.7 } }} />)
  press('Keep')
  type('Planks') // of pads, not of cuts
  expect(screen.getByRole('button', { name: 'Keep' })).toBeTruthy()
  type(' Deck ')
  press('Replace it')
  expect(mockEdit).toHaveBeenLastCalledWith(mockKept[0].id, [{ type: 'setStart', fields: { cut: { ...cut, waterLine: 0.7 } } }])
  unmount()
  const pad = { values: {} } as never
  render(<KeepStart label="Keep" settings={{ pad }} />)
  press('Keep')
  type('Planks')
  press('Replace it')
  expect(mockEdit).toHaveBeenLastCalledWith(mockKept[1].id, [{ type: 'setStart', fields: { pad, tillers: [] } }])
  expect(mockCreate).not.toHaveBeenCalled()
})
