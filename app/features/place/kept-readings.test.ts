import { createSource } from '@heliaster/core/kit'
import { hashOf, testIds } from '@heliaster/core/kit/testing'
import { planByNames, readNames } from '@heliaster/core/place'

import { factsOfPlan, keepReading, keptReading } from './kept-readings'
import { fullest } from './use-reading'

const info = { name: 'x.wav', sampleRateHz: 48000, frames: 100, channels: 1 }
const sources = Array.from({ length: 24 }, (_, i) => createSource(testIds(i), hashOf(i.toString(16).padStart(2, '0')), info, `gribble ${'ab'[i % 2]} ${1 + (i >> 3)} ${1 + ((i >> 1) & 3)}`)) // prettier-ignore
const named = (names: readonly string[]) => names.map((name) => ({ name, frames: 48000 }))

test('where files were said to belong is kept by their sound, and holds under other names', () => {
  const files = named(sources.map(({ name }) => name))
  const read = readNames(files)
  const said = { [read.slots.find(({ texts }) => texts.join() === 'a,b')!.slot]: 'microphone' as const }
  const plan = planByNames(files, readNames(files, said))
  expect(plan.pads.map(({ microphones, bands }) => [microphones, bands.map(({ turns }) => turns.length)])).toEqual([
    [
      ['a', 'b'],
      [4, 4, 4],
    ],
  ])
  expect(keptReading(sources)).toBeUndefined()
  keepReading(sources, plan)
  const facts = keptReading(sources.map((source) => ({ ...source, name: 'all called alike' })))!
  const again = planByNames(named(sources.map(() => 'all called alike')), { facts })
  expect([...factsOfPlan(again)]).toEqual([...factsOfPlan(plan)])
  expect(again.pads[0].bands.map(({ fromVelocity }) => fromVelocity)).toEqual(plan.pads[0].bands.map(({ fromVelocity }) => fromVelocity))
  const stranger = createSource(testIds(99), hashOf('ff'), info, 'stranger')
  expect(keptReading([...sources, stranger])).toBeUndefined()
})

test('the name that says most is shown first, of several the first', () => {
  const { parts } = readNames(named(['bell', 'oar', 'keel hard 1', 'keel soft 1', 'plank 2']))
  expect([fullest(parts), fullest([])]).toEqual([2, 0])
})
