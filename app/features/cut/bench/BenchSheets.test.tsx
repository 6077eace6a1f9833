import { createSource } from '@heliaster/core/kit'
import { render, screen } from '@testing-library/react'

import { makeId } from '../../../documents/make-id'
import { audio, info } from '../../../testing/a-kit'
import { hitsOf } from '../../../testing/hits'
import { BenchSheets } from './BenchSheets'
import type { OpenSheet } from './BenchSheets'

const mockShown = jest.fn((_name: string, _props: object) => undefined)
function mockSheet(name: string, props: object) {
  mockShown(name, props)
  return <div role="dialog" aria-label={name} />
}
jest.mock('../sheets/CutSheet', () => ({ CutSheet: (props: object) => mockSheet('cut', props) }))
jest.mock('../sheets/HitSheet', () => ({ HitSheet: (props: object) => mockSheet('hit', props) }))
jest.mock('../sheets/NameSheet', () => ({ NameSheet: (props: object) => mockSheet('names', props) }))
jest.mock('../sheets/RepairSheet', () => ({ RepairSheet: (props: object) => mockSheet('repair', props) }))
jest.mock('../send/SendSheet', () => ({ SendSheet: (props: object) => mockSheet('send', props) }))

const source = createSource(makeId, audio, info, 'Walk')
const hits = hitsOf(3)
const actions = { setCut: jest.fn(), slideCut: jest.fn(), endGesture: jest.fn(), nameAll: jest.fn(), slideClips: jest.fn() }
const show = (open: OpenSheet | undefined, more: object = {}) =>
  render(
    <BenchSheets
      source={source}
      analysis={{} as never}
      tempoBpm={96}
      open={open}
      chosen={undefined}
      kept={hits}
      listed={hits}
      unpassed={hits.slice(1)}
      actions={actions as never}
      onHear={() => undefined}
      onClose={() => undefined}
      {...more}
    />,
  )
const open = () => screen.queryAllByRole('dialog').map((one) => one.getAttribute('aria-label'))
const given = () => mockShown.mock.lastCall![1]

beforeEach(() => jest.clearAllMocks())

test('one sheet is open, or none', () => {
  for (const name of ['cut', 'names', 'repair', 'send'] as const) {
    const { unmount } = show(name)
    expect(open()).toEqual([name])
    unmount()
  }
  show(undefined)
  expect(open()).toEqual([])
})

test('hits are sent once each of them has been described, as pads or as a rhythm', () => {
  const { unmount } = show('send', { kept: [...hits, { marker: hits[0].marker }] })
  expect(open()).toEqual([])
  unmount()
  show('send')
  expect(given()).toMatchObject({ hits, first: 'pads' })
  show('rhythm')
  expect(given()).toMatchObject({ hits, first: 'rhythm' })
})

test('without hits there is nothing to be sent, and without a chosen one nothing to be looked into', () => {
  show('send', { kept: [] })
  show('hit')
  expect(open()).toEqual([])
  show('hit', { chosen: hits[1] })
  expect([open(), given()]).toEqual([['hit'], expect.objectContaining({ item: hits[1], source })])
})

test('names and repairs are for hits that are not passed', () => {
  show('names')
  expect(given()).toMatchObject({ hits: hits.slice(1), sourceName: 'Walk', onNames: actions.nameAll })
  show('repair')
  expect(given()).toMatchObject({ listed: hits.slice(1), onSlide: actions.slideClips, onDone: actions.endGesture })
})
