import { applyEdit } from '@heliaster/core/kit'
import type { Kit, KitEdit, Tie, TieId } from '@heliaster/core/kit'
import { asBands } from '@heliaster/core/place'
import { lineKinds } from '@heliaster/core/ties'
import type { LineKind } from '@heliaster/core/ties'
import { fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'

import { aKitOf, aPad } from '../../../testing/a-kit'
import { TieBar } from './TieBar'
import { TiesPanel } from './TiesPanel'
import { TyingPads } from './TyingPads'

let mockEdit: (edits: KitEdit[]) => void
const mockNotify = jest.fn()
const mockStrike = jest.fn()
jest.mock('../../../kit-view', () => ({ editKit: (_id: unknown, edits: KitEdit[]) => mockEdit(edits) }))
jest.mock('../../../kit-view/use-kit', () => ({
  kitGesture: () => ({ set: (edits: KitEdit[]) => mockEdit(edits), end: () => undefined }),
  padName: (_kit: unknown, pad: { own: { name?: string } }) => pad.own.name,
}))
jest.mock('../../../ui/layout/notices', () => ({ notify: (words: string) => mockNotify(words) }))
jest.mock('../../../audio/engine/sound', () => ({ strikePad: (strike: unknown) => mockStrike(strike) as unknown }))

let kit: Kit
const three = () => {
  const pads = ['Hull', 'Hatch', 'Bilge'].map((name) => ({ ...aPad(2, asBands), own: { name } }))
  return aKitOf(...pads)
}
function Shown({ of, show }: { readonly of: Kit; readonly show: (kit: Kit) => React.ReactNode }) {
  const [doc, setDoc] = useState(of)
  kit = doc
  mockEdit = (edits) => setDoc((now) => edits.reduce(applyEdit, now))
  return show(doc)
}
function Panel({ kit: doc }: { readonly kit: Kit }) {
  const [chosen, setChosen] = useState<TieId>()
  return <TiesPanel kit={doc} chosen={chosen} onChoose={setChosen} />
}
const showPads = (kind: LineKind) =>
  render(<Shown of={three()} show={(doc) => <TyingPads kit={doc} kind={kind} centreOf={(i) => ({ x: 100 * i, y: 50 })} radius={40} />} />)
const showPanel = (...ties: ((pads: Kit['pads']) => Tie)[]) => {
  const doc = three()
  render(<Shown of={{ ...doc, ties: ties.map((tie) => tie(doc.pads)) }} show={(now) => <Panel kit={now} />} />)
}
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))
const tick = (name: string) => fireEvent.click(screen.getByRole('checkbox', { name }))
const key = (name: string | RegExp, pressed: string) => fireEvent.keyDown(screen.getByRole('slider', { name }), { key: pressed })
const id = 'tie-1' as TieId
const along = (pads: Kit['pads']): Tie => ({ id, kind: 'alsoStrike', from: pads[0]!.id, to: [{ pad: pads[1]!.id, chance: 1, gainDb: 0, delaySeconds: 0 }], passOn: false }) // prettier-ignore
beforeEach(() => jest.clearAllMocks())

test('two taps tie one pad to another, which is heard as it is taken; the same once more is said to be there', () => {
  showPads('choke')
  fireEvent.click(screen.getByRole('button', { name: 'Tie from Hull: silences' }))
  expect(screen.getByRole('button', { name: 'Tie Hull to Hull: silences' }).getAttribute('aria-pressed')).toBe('true')
  press('Tie Hull to Bilge: silences')
  const [hull, , bilge] = kit.pads
  expect(kit.ties).toMatchObject([{ kind: 'choke', from: hull!.id, to: [bilge!.id] }])
  press('Tie from Hull: silences')
  press('Tie Hull to Bilge: silences')
  expect(mockNotify).toHaveBeenLastCalledWith('Hull and Bilge are tied so already.')
  press('Tie from Hull: silences')
  press('Tie Hull to Hull: silences')
  expect(kit.ties).toMatchObject([{ to: [bilge!.id, hull!.id] }])
})

test('a pad is only put down again where it cannot be tied to itself', () => {
  showPads('takeTurns')
  press('Tie from Hull: take turns')
  press('Tie Hull to Hull: take turns')
  expect([kit.ties, mockNotify.mock.calls]).toEqual([[], []])
  press('Tie from Hatch: take turns')
  press('Tie Hatch to Bilge: take turns')
  expect(kit.ties).toMatchObject([{ kind: 'takeTurns', pads: [kit.pads[1]!.id, kit.pads[2]!.id] }])
})

test('the bar names every kind, says how each is drawn, and is left by Done or Escape', () => {
  const choose = jest.fn()
  const done = jest.fn()
  render(<TieBar kind="openings" onKind={choose} onDone={done} />)
  expect(screen.getAllByRole('radio')).toHaveLength(lineKinds.length)
  expect(screen.getByText(/^Drag from the more closed pad/)).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'Share a limit' }))
  expect(choose).toHaveBeenLastCalledWith('limit')
  press('Done')
  fireEvent.keyDown(window, { key: 'Escape' })
  expect(done).toHaveBeenCalledTimes(2)
})

test('what strikes along has a chance, a level, a delay and a strength of its own for each; all of it ends in one action', () => {
  showPanel(along)
  press(/^A strike on Hull strikes Hatch along/)
  tick('Bilge')
  key('Chance of Bilge', 'ArrowLeft')
  key('Level of Hatch', 'ArrowLeft')
  key('Delay of Hatch', 'ArrowRight')
  const target = within(screen.getByRole('group', { name: 'Bilge' }))
  fireEvent.click(target.getByRole('switch', { name: 'Struck by a strength of its own' }))
  key('Strength of Bilge from the hardest strike', 'Home')
  const [tie] = kit.ties
  expect(tie?.kind === 'alsoStrike' && tie.to[1]).toMatchObject({ chance: 0.99, velocity: { points: [{ x: 0, y: 1 / 127 }, { x: 1, y: 1 / 127 }] } }) // prettier-ignore
  expect(tie?.kind === 'alsoStrike' && [tie.to[0]!.gainDb, tie.to[0]!.delaySeconds > 0]).toEqual([-0.1, true])
  press('Let nothing strike along any more')
  expect(kit.ties).toEqual([])
  expect(screen.getByText('No ties yet')).toBeTruthy()
})

test('a choke has its moment, its pads, a fade of up to ten seconds, and reaches some rays or bands alone', () => {
  showPanel((pads) => ({ id, kind: 'choke', from: pads[0]!.id, to: [pads[1]!.id], fadeSeconds: 0.008 }))
  press(/^A strike on Hull silences Hatch within 8 ms/)
  fireEvent.click(screen.getByRole('radio', { name: 'when it is let go' }))
  tick('itself')
  key('Silences within', 'End')
  tick('Hatch: band 2')
  const [hull, hatch] = kit.pads
  expect(kit.ties).toEqual([{ id, kind: 'choke', from: hull!.id, to: [hatch!.id, hull!.id], fadeSeconds: 10, on: 'letGo', reach: { bands: [hatch!.bands[1]!.id] } }]) // prettier-ignore
  tick('Hatch: band 2')
  fireEvent.click(screen.getByRole('radio', { name: 'when it is struck' }))
  expect(Object.keys(kit.ties[0]!).sort()).toEqual(['fadeSeconds', 'from', 'id', 'kind', 'to'])
  tick('itself')
  tick('Hatch') // the last one stays: a tie without a pad would tie nothing
  expect(kit.ties).toMatchObject([{ to: [hatch!.id] }])
  press('Remove this tie')
  expect(kit.ties).toEqual([])
})

test('groups, limits, turns and openings keep what is set on them, within bounds', () => {
  showPanel((pads) => ({ id, kind: 'chokeGroup', name: 'Hats', pads: [pads[0]!.id, pads[1]!.id], fadeSeconds: 0 }))
  press(/^Hats:/)
  fireEvent.click(screen.getByRole('switch', { name: 'Each silences its own strikes too' }))
  expect(kit.ties).toMatchObject([{ itself: true }])
})

test('a limit is shared by more pads and of a number; turns have an order; thresholds stay in theirs', () => {
  showPanel(
    (pads) => ({ id: 'l' as TieId, kind: 'limit', name: 'Deck', pads: [pads[0]!.id, pads[1]!.id], maxStrikes: 4 }),
    (pads) => ({ id: 't' as TieId, kind: 'takeTurns', pads: [pads[0]!.id, pads[1]!.id], pick: 'cycle' }),
    (pads) => ({ id: 'o' as TieId, kind: 'openings', controller: 4, steps: [{ pad: pads[0]!.id, from: 0 }, { pad: pads[1]!.id, from: 60 }] }), // prettier-ignore
  )
  const tie = (kind: string) => kit.ties.find((one) => one.kind === kind)
  press(/^Deck:/)
  tick('Bilge')
  key('Strikes they share', 'Home')
  expect(tie('limit')).toMatchObject({ maxStrikes: 1, pads: kit.pads.map((pad) => pad.id) })
  press(/^A strike on any of/)
  fireEvent.click(screen.getByRole('radio', { name: /huffle/ }))
  expect(tie('takeTurns')).toMatchObject({ pick: 'shuffle' })
  press(/^Controller 4 opens/)
  key('Hull opens from', 'End') // it would jump over Hatch
  expect(tie('openings')).toMatchObject({ steps: [{ from: 59 }, { from: 60 }] })
  press('Even thresholds')
  fireEvent.click(screen.getByRole('switch', { name: 'Closing silences' }))
  key('At or below this it silences the others', 'ArrowRight')
  expect(tie('openings')).toMatchObject({ steps: [{ from: 0 }, { from: 64 }], chokeAt: 1 })
})

test('what works against itself is said, with what wins', () => {
  showPanel(along, (pads) => ({ id: 'c' as TieId, kind: 'choke', from: pads[1]!.id, to: [pads[0]!.id], fadeSeconds: 0 }))
  expect(screen.getByRole('note').textContent).toContain('Hatch wins, and Hull stops')
})
