const row = (length: number, of = (i: number) => Math.sin(i)) => Float32Array.from({ length }, (_, i) => of(i))

/** Every test of a render leans on it that `toEqual` tells whole rows of samples apart; see tools/jest-alike.cjs. */
test('rows of samples are equal to the bit or not at all', () => {
  expect(row(5000)).toEqual(row(5000))
  expect([row(500), [...row(90)]]).toEqual([row(500), [...row(90)]])
  expect(row(500, () => NaN)).toEqual(row(500, () => NaN))
  for (const at of [0, 63, 4999]) expect(row(5000)).not.toEqual(row(5000, (i) => (i === at ? Math.sin(i) + 1e-6 : Math.sin(i))))
  expect(row(500, () => 0)).not.toEqual(row(500, () => -0))
  expect(row(500)).not.toEqual(row(501))
  expect(row(500)).not.toEqual(Float64Array.from(row(500)))
  expect([...row(500)]).not.toEqual([...row(499), undefined])
  expect({ left: row(500), right: row(500) }).not.toEqual({ left: row(500), right: row(500, (i) => -Math.sin(i)) })
})

test('what differs is named by its place', () => {
  const compared = () => expect(row(200)).toEqual(row(200, (i) => (i === 130 ? 2 : Math.sin(i))))
  expect(compared).toThrow(/\+ +Received[\s\S]*2,/)
})
