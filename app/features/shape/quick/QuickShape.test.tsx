import { applyEdit } from '@heliaster/core/kit'
import { decayOf, pitchFallOf } from '@heliaster/core/shaping'
import type { Kit, KitEdit } from '@heliaster/core/kit'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { aDrawnHit as drawn } from '../../../testing/a-drawn-hit'
import { aKitOf, aPad } from '../../../testing/a-kit'
import { targetOf } from '../whom/target'
import { QuickShape } from './QuickShape'

let kit: Kit
let steps: number

function Shown() {
  const [doc, set] = useState(kit)
  kit = doc
  const pad = doc.pads[0]!
  const edit = (edits: KitEdit[]) => set((now) => edits.reduce(applyEdit, now))
  return (
    <QuickShape
      kit={doc}
      pad={pad}
      target={targetOf(doc, pad, { kind: 'pad' })}
      drawn={drawn}
      onEdits={edit}
      onResponses={edit}
      onDone={() => steps++}
    />
  )
}

beforeEach(() => {
  kit = aKitOf(aPad(2))
  steps = 0
  render(<Shown />)
})

const settings = () => targetOf(kit, kit.pads[0]!, { kind: 'pad' }).settings
const slider = (name: string) => screen.getByRole('slider', { name })
const nudge = (name: string, key: string, more = {}) => fireEvent.keyDown(slider(name), { key, ...more })
const type = (label: string, text: string) => {
  const field = screen.getByLabelText(label)
  fireEvent.change(field, { target: { value: text } })
  fireEvent.blur(field)
}

test('the recipe: decay, tune, fall, filter and its fall, drive that stays as loud, each one step', () => {
  nudge('Decay', 'ArrowLeft')
  expect(decayOf(settings())!.seconds).toBeCloseTo(0.7999, 6)
  nudge('Tune', 'ArrowLeft', { shiftKey: true })
  expect(settings().values.tuneCents).toBe(-100)
  nudge('Pitch fall', 'ArrowUp', { shiftKey: true })
  expect(pitchFallOf(settings())).toEqual({ seconds: 0.06, cents: 100 })
  nudge('Filter', 'ArrowLeft')
  expect([settings().choices.filter1Kind, settings().values.filter1CutoffHz]).toEqual(['lowPass', 17999])
  nudge('Filter fall', 'ArrowUp')
  expect(settings().values.filter1EnvelopeCents).toBe(10)
  nudge('Drive', 'ArrowRight', { shiftKey: true })
  expect(settings().values.driveDb).toBe(1)
  expect(settings().values.driveLevelDb).toBeLessThan(0)
  expect(steps).toBe(6)
})

test('the chosen pool is typed, and taken away again', () => {
  fireEvent.focus(slider('Pitch fall'))
  type('Pitch fall, from, st', '24')
  type('Pitch fall, time, ms', '35')
  expect(pitchFallOf(settings())).toEqual({ seconds: 0.035, cents: 2400 })
  const away = () => screen.getByRole('button', { name: 'Take away' })
  fireEvent.click(away())
  expect(pitchFallOf(settings())).toBeUndefined()
  expect(away().getAttribute('aria-disabled')).toBe('true')
})

test('ends stay apart and within the clip', () => {
  nudge('Start', 'ArrowRight', { shiftKey: true })
  nudge('End', 'ArrowLeft')
  expect(settings().values).toMatchObject({ startSeconds: 0.01, endSeconds: expect.closeTo(0.001, 6) as number })
  for (let i = 0; i < 120; i++) nudge('Start', 'ArrowRight', { shiftKey: true })
  expect(settings().values.startSeconds).toBeCloseTo(0.997, 6)
  for (let i = 0; i < 3; i++) nudge('End', 'ArrowRight', { shiftKey: true })
  expect(settings().values.endSeconds).toBe(0)
})

test('kinds of filter are chosen, and all clips go backwards and forward', () => {
  fireEvent.click(screen.getByRole('radio', { name: 'High' }))
  expect(settings().choices.filter1Kind).toBe('highPass')
  const backwards = () => screen.getByRole('checkbox', { name: 'Backwards' })
  fireEvent.click(backwards())
  expect(backwards().getAttribute('aria-checked')).toBe('true')
  fireEvent.click(backwards())
  expect(backwards().getAttribute('aria-checked')).toBe('false')
})
