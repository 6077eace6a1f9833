import { planByNames, readNames } from '@heliaster/core/place'
import { render, screen } from '@testing-library/react'

import { aPad } from '../../testing/a-kit'
import { Gaps, Stars } from './PlacePicture'

/** Two drums of two microphones, three levels and two takes each; some are left out, some are strange. */
function planOf(isThere: (drum: string, mic: string, level: number, take: number) => boolean, ...more: string[]) {
  const names = ['hull', 'deck'].flatMap((drum) =>
    ['close', 'room'].flatMap((mic) =>
      [1, 2, 3].flatMap((level) => [1, 2].filter((take) => isThere(drum, mic, level, take)).map((take) => `${drum}_${mic}_v${level}_rr${take}.wav`)),
    ),
  ) // prettier-ignore
  const files = [...names, ...more].map((name) => ({ name }))
  return { plan: planByNames(files, readNames(files)), names: files.map(({ name }) => name) }
}
const hollow = () => [...document.querySelectorAll('rect')].filter((rect) => rect.getAttribute('fill') === 'none').length
const pad = (name: string) => ({ ...aPad(2), own: { name } })
const nameOf = (one: { own: { name?: string } }) => one.own.name ?? ''

test('each pad is a star with its name and how it is filled, and no more than can be looked at', () => {
  const { plan } = planOf(() => true)
  const { unmount } = render(<Stars plan={plan} pads={[pad('Hull'), pad('Deck')]} nameOf={nameOf} />)
  expect(screen.getByRole('group', { name: 'What will be made' }).querySelectorAll('svg')).toHaveLength(2)
  expect(screen.getAllByText('2 microphones: close, room; 3 bands; 2 turns each')).toHaveLength(2)
  unmount()
  render(<Stars pads={Array.from({ length: 30 }, (_, i) => pad(`Pad ${i}`))} nameOf={nameOf} />)
  expect(screen.getByText('and 6 more')).toBeTruthy()
  expect(screen.getByText('Pad 23')).toBeTruthy()
  expect(screen.queryByText('Pad 24')).toBeNull()
})

test('takes that differ in number are told from least to most, one alone without a word for each', () => {
  const { plan } = planOf((drum, _mic, level, take) => drum === 'hull' && (level === 1 || take === 1))
  const { unmount } = render(<Stars plan={plan} pads={[pad('Hull')]} nameOf={nameOf} />)
  expect(screen.getByText('2 microphones: close, room; 3 bands; 1 to 2 turns each')).toBeTruthy()
  unmount()
  const one = planByNames([{ name: 'hull.wav' }], readNames([{ name: 'hull.wav' }]))
  render(<Stars plan={one} pads={[pad('Hull')]} nameOf={nameOf} />)
  expect(screen.getByText('1 turn')).toBeTruthy()
})

test('cells without a file are hollow, under the pads that have any; what is whole says nothing', () => {
  const whole = planOf(() => true)
  const { container, unmount } = render(<Gaps {...whole} />)
  expect(container.textContent).toBe('')
  unmount()
  render(<Gaps {...planOf((drum, mic, level, take) => !(drum === 'deck' && mic === 'room' && level === 2 && take === 1))} />)
  expect(screen.getByRole('alert')).toBeTruthy()
  expect([hollow(), document.querySelectorAll('svg').length]).toEqual([1, 1])
  expect(screen.getByText(/^deck$/i)).toBeTruthy()
  expect(screen.queryByText(/^hull$/i)).toBeNull()
})

test('files without a cell are named with their reason, and of very many the first forty', () => {
  const { plan, names } = planOf(() => true)
  const unplaced = (count: number) => ({ ...plan, unplaced: Array.from({ length: count }, (_, i) => ({ file: i % names.length, reason: `reason ${i}` })) }) // prettier-ignore
  const { unmount } = render(<Gaps plan={unplaced(2)} names={names} />)
  expect(screen.getByText(`${names[1]}: reason 1`)).toBeTruthy()
  expect(screen.queryByText(/^And /)).toBeNull()
  unmount()
  const unique = { ...plan, unplaced: Array.from({ length: 43 }, (_, i) => ({ file: i, reason: 'it is strange' })) }
  render(<Gaps plan={unique} names={Array.from({ length: 43 }, (_, i) => `file ${i}`)} />)
  expect(screen.getByText('file 39: it is strange')).toBeTruthy()
  expect(screen.queryByText('file 40: it is strange')).toBeNull()
  expect(screen.getByText('And 3 more.')).toBeTruthy()
})
