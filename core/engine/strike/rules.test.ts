import { compareRules } from '../testing/rules-kits'

test('random kits of every rule sound the pads, the clips and the silences, on the frames, that a plain model says', () => {
  let strikes = 0
  for (let seed = 1; seed <= 40; seed++) {
    const { fault, strikes: count } = compareRules(seed, 250)
    expect(fault).toBeUndefined()
    strikes += count
  }
  expect(strikes).toBeGreaterThan(10000)
})
