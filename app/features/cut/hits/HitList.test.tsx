import { fireEvent, render, screen } from '@testing-library/react'

import { hitsOf } from '../../../testing/hits'
import { HitList } from './HitList'
import { HIT_ROW_HEIGHT } from './HitRow'

const judge = jest.fn()
const judgeAll = jest.fn()
const hits = hitsOf(6)
const TOP = 100

beforeEach(() => {
  jest.clearAllMocks()
  Element.prototype.setPointerCapture = () => undefined
  Element.prototype.hasPointerCapture = () => false
  jest
    .spyOn(Element.prototype, 'getBoundingClientRect')
    .mockImplementation(() => ({ left: 0, top: TOP, width: 300, height: 400, bottom: TOP + 400, right: 300 }) as DOMRect)
  jest.spyOn(Element.prototype, 'clientHeight', 'get').mockReturnValue(400)
  jest.spyOn(Element.prototype, 'clientWidth', 'get').mockReturnValue(300)
  render(
    <HitList
      hits={hits}
      rate={48000}
      sort="time"
      chosenId={undefined}
      emptyWords=""
      onChoose={() => undefined}
      onJudge={judge}
      onJudgeAll={judgeAll}
    />,
  )
})
afterEach(() => jest.restoreAllMocks())

const SIGNS = { keep: /: (keep it|kept; not judged again)$/, pass: /: (pass it|passed; not judged again)$/ }
const signs = (verdict: 'keep' | 'pass') => screen.getAllByRole('button', { name: SIGNS[verdict] })
function pointer(element: Element, type: string, row: number) {
  const event = new MouseEvent(type, { bubbles: true, clientX: 250, clientY: TOP + (row + 0.5) * HIT_ROW_HEIGHT })
  fireEvent(element, Object.assign(event, { pointerId: 1, pointerType: 'touch' }))
}
const idsOf = (items: readonly { marker: { id: string } }[]) => items.map(({ marker }) => marker.id)

test('a drag down the signs judges all hits that it goes over, seen before it is let go of, in one step', () => {
  const sign = signs('keep')[1]!
  pointer(sign, 'pointerdown', 1)
  pointer(sign, 'pointermove', 3)
  expect(screen.getAllByRole('button', { name: /kept; not judged again$/ })).toHaveLength(3)
  pointer(sign, 'pointerup', 3)
  const [[items, verdict]] = judgeAll.mock.calls as [[typeof hits, string]]
  expect([idsOf(items), verdict]).toEqual([idsOf(hits.slice(1, 4)), 'keep'])
  expect(screen.queryAllByRole('button', { name: /kept; not judged again$/ })).toHaveLength(0)
})

test('upwards it passes as well; beyond the first it stops there, and what is taken away judges nothing', () => {
  const sign = signs('pass')[2]!
  pointer(sign, 'pointerdown', 2)
  pointer(sign, 'pointermove', -3)
  pointer(sign, 'pointercancel', -3)
  expect(judgeAll).not.toHaveBeenCalled()
  pointer(sign, 'pointerdown', 2)
  pointer(sign, 'pointermove', -3)
  pointer(sign, 'pointerup', -3)
  const [[items, verdict]] = judgeAll.mock.calls as [[typeof hits, string]]
  expect([idsOf(items), verdict]).toEqual([idsOf(hits.slice(0, 3)), 'pass'])
})

test('a tap is the sign’s own matter, and a drag over a title scrolls', () => {
  const sign = signs('keep')[0]!
  pointer(sign, 'pointerdown', 0)
  pointer(sign, 'pointerup', 0)
  fireEvent.click(sign)
  expect(judge).toHaveBeenCalledTimes(1)
  const title = screen.getAllByRole('button', { name: /^Hear/ })[0]!
  pointer(title, 'pointerdown', 0)
  pointer(title, 'pointermove', 3)
  pointer(title, 'pointerup', 3)
  expect(judgeAll).not.toHaveBeenCalled()
})
