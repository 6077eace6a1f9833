import {
  applyEdit,
  createKit,
  createPad,
  movedParameters,
  padSettings,
  parameterRow,
  responseTo,
  settled,
  valueOf,
} from '@heliaster/core/kit'
import { wanderOf } from '@heliaster/core/shaping'
import type { Kit, KitEdit, RayId, Response } from '@heliaster/core/kit'
import { testIds } from '@heliaster/core/kit/testing'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'

import { moverSentence, TARGETS } from './mover-words'
import { Movers } from './Movers'
import { whyNothing } from '../../../kit-view/why-nothing'

const makeId = testIds(6)
const pad = createPad(makeId, { responses: [responseTo('velocity', 'gainDb', 24)] }, 36)
let kit: Kit

function Shown() {
  const [doc, setDoc] = useState<Kit>({ ...createKit(makeId, 'Shape'), pads: [pad] })
  kit = doc
  const edit = (edits: KitEdit[]) => setDoc((now) => edits.reduce(applyEdit, now))
  return <Movers kit={doc} pad={doc.pads[0]} onSlide={edit} onDone={() => undefined} />
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))
const choose = (name: string) => fireEvent.click(screen.getByRole('radio', { name }))
const responses = () => kit.pads[0].own.responses ?? []

test('everything that the engine lets a response move is offered, within the range that the table gives it', () => {
  expect(TARGETS.map(({ value }) => value).sort()).toEqual([...movedParameters].sort())
  for (const { value, most, factor } of TARGETS) {
    const { min, max, movedBy } = parameterRow(value)
    expect(most / factor).toBeGreaterThan(0)
    if (movedBy === undefined) expect(most / factor).toBeLessThanOrEqual(max - min)
  }
})

test('what moves a pad is said in words, moved by a slider and taken away', () => {
  render(<Shown />)
  const slider = screen.getByRole('slider', { name: 'Softer strikes move the level' })
  fireEvent.keyDown(slider, { key: 'ArrowRight' })
  expect(responses()[0].amount).toBeGreaterThan(24)
  press('Softer strikes move the level: no more')
  expect(responses()).toEqual([])
  expect(screen.getByText('Nothing: every strike is alike.')).toBeTruthy()
})

test('a wheel, a controller by its number and a slow wave of the kit are added to what they move', () => {
  render(<Shown />)
  press('Let something move it')
  choose('Controller')
  fireEvent.keyDown(screen.getByRole('slider', { name: 'Number of the controller' }), { key: 'ArrowRight' })
  choose('Cutoff')
  press('Add')
  expect(responses()[1]).toMatchObject({ from: { kind: 'controller', number: 5 }, to: [{ param: 'filter1CutoffHz' }], amount: 1800 })
  press('Let something move it')
  choose('A slow wave')
  choose('Place')
  press('Add')
  expect(kit.oscillators).toHaveLength(1)
  expect(responses()[2]).toMatchObject({ from: { kind: 'oscillator', id: kit.oscillators[0].id }, amount: 0.25 })
  fireEvent.keyDown(screen.getByRole('slider', { name: 'The slow wave, times a second' }), { key: 'ArrowRight' })
  expect(kit.oscillators[0].rate.value).toBeGreaterThan(2)
  press('Let something move it')
  choose('A slow wave')
  choose('Place')
  press('Add')
  expect(new Set(responses().map(({ id }) => id)).size).toBe(4)
  expect(valueOf(kit, 'gainDb')).toBe(0)
})

test('each is a sentence that says which way and how far', () => {
  const said = (from: Parameters<typeof responseTo>[0], param: Parameters<typeof responseTo>[1], amount: number) =>
    moverSentence(responseTo(from, param, amount))
  expect([
    said('velocity', 'gainDb', 24),
    said('velocity', 'startSeconds', -0.012),
    said('velocity', 'filter1CutoffHz', 1800),
    said('velocity', 'crush', -0.5),
    said('wheel', 'filter1CutoffHz', -1200),
    said('strikeRate', 'tuneCents', 50),
    said('chance', 'pan', 0.25),
    said('velocity', 'gainDb', 0),
  ]).toEqual([
    'Softer strikes are quieter: up to 24.0 dB.',
    'Softer strikes start later: up to 12.0 ms.',
    'Softer strikes have a lower cutoff: up to 1800 cents.',
    'Softer strikes have more dirt: up to 50 %.',
    'The wheel lowers the cutoff: up to 1200 cents.',
    'Fast strikes raise the tuning: up to 50 cents.',
    'Chance moves the place: up to 25 % either way.',
    'Softer strikes move the level.',
  ])
})

test('one that is not heard says why, is left out and let in; wander is one amount with its bounds', () => {
  render(<Shown />)
  press('Let something move it')
  choose('Cutoff')
  press('Add')
  expect(screen.getByText('Not heard: the filter is off.')).toBeTruthy()
  press('Softer strikes move the level: leave it out')
  expect(responses()[0].bypass).toBe(true)
  expect(screen.getByText('Not heard: it is left out.')).toBeTruthy()
  press('Softer strikes move the level: let it in')
  expect(screen.queryByText('Not heard: it is left out.')).toBeNull()
  const before = responses()
  const wander = screen.getByRole('slider', { name: 'Wander' })
  fireEvent.keyDown(wander, { key: 'End' })
  expect(wanderOf(responses())).toBe(1)
  expect(screen.getByText('Either way: start 8.0 ms, pitch 60 cents, level 4.0 dB, cutoff 1200 cents.')).toBeTruthy()
  expect(screen.getAllByRole('slider')).toHaveLength(5) // its parts are not told one by one
  fireEvent.keyDown(wander, { key: 'Home' })
  expect(responses()).toEqual(before)
})

test('what is missing for each target is named, and not where a ray has its own', () => {
  const settings = padSettings(kit, pad)
  const why = (response: Response, of = pad, changed = settings) => whyNothing(kit, of, changed, response)
  for (const [param, words] of [['decayScale', /envelope/], ['levelEnvelope', /level envelope/], ['pitchEnvelope', /pitch envelope/], ['filter2GainDb', /second filter is off/], ['driveLevelDb', /no drive/], ['crushBits', /no dirt/]] as const)
    expect(why(responseTo('velocity', param, 1))).toMatch(words) // prettier-ignore
  expect(why(responseTo('velocity', 'gainDb', 0))).toMatch(/amount/)
  expect(why(responseTo('turn', 'gainDb', 3))).toMatch(/second turn/)
  expect(why({ ...responseTo('velocity', 'gainDb', 3), from: { kind: 'oscillator', id: 'gone' } })).toMatch(/wave is gone/)
  expect(why(responseTo('velocity', 'gainDb', 3, { ray: 'gone' }))).toMatch(/ray is gone/)
  expect(why(responseTo('velocity', 'gainDb', 3))).toBeUndefined()
  const on = settled(settings, { choices: { filter1Kind: 'lowPass' } })
  expect([why(responseTo('velocity', 'filter1CutoffHz', 3), pad, on), why(responseTo('velocity', 'filter1GainDb', 3), pad, on)]).toEqual([undefined, 'the filter is of a kind that lifts nothing']) // prettier-ignore
  const louder = { ...pad, rays: [{ ...pad.rays[0]!, values: { gainDb: -3 } }] } // of its own, but nothing that would be heard
  expect(why(responseTo('velocity', 'filter1CutoffHz', 3), louder)).toBe('the filter is off')
  const own = { ...pad, rays: [pad.rays[0]!, { ...pad.rays[0]!, id: 'ray-own' as RayId, choices: { filter1Kind: 'lowPass' as const } }] }
  expect(why(responseTo('velocity', 'filter1CutoffHz', 3), own)).toBeUndefined()
})
