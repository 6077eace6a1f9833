import { render, screen } from '@testing-library/react'

import { slowly } from './quick-labels'

test('the labels of every control are those that it says by itself', () => {
  const { container, rerender } = render(<></>)
  const compare = (labels: number[]) => {
    const controls = Array.from(container.querySelectorAll<HTMLInputElement>('input, button, select, textarea, meter, output, progress'))
    const own = controls.map((control) => slowly.get(control.localName)!.call(control))
    expect(controls.map((control) => control.labels && Array.from(control.labels))).toEqual(own.map((one) => one && Array.from(one)))
    expect(own.map((one) => one?.length ?? -1)).toEqual(labels)
  }
  compare([])
  rerender(
    <>
      <label>
        Round <input /> <button>beside it</button>
      </label>
      <label htmlFor="told">Told</label>
      <label htmlFor="told">twice</label>
      <textarea id="told" />
      <label htmlFor="unseen">Nobody sees it</label>
      <input type="hidden" id="unseen" />
      <select />
    </>,
  )
  compare([1, 0, 2, -1, 0])
  expect(screen.getByLabelText('Told')).toBe(screen.getByLabelText('twice'))
  rerender(<label>Another<meter /></label>) // prettier-ignore
  compare([1])
})
