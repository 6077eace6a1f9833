import { performanceKind } from '../kit'
import type { EventId, Performance, PlayedEvent } from '../kit'
import { seeded, testIds } from '../kit/testing'
import { filmSecondsOf, fromFirstPicture, laidOnFilm, linesOf, marksOf, mixedLines, punchedIn, strikesOf, withMark, withoutMark } from '.'

const RATE = 48000
const makeId = testIds(4)

function played(
  id: string,
  frames: readonly number[],
  offsetSeconds: number,
  film = 'yard.webm',
  more: Partial<Performance> = {},
): Performance {
  const events = frames.flatMap((frame, i): PlayedEvent[] => [
    { type: 'strike', id: `${id}-${i}` as EventId, frame, padId: 'pad-deck' as never, velocity: 50 + i, key: i },
    { type: 'letGo', id: `${id}-${i}-up` as EventId, frame: frame + 500, padId: 'pad-deck' as never, key: i },
  ])
  return {
    format: 'heliaster-performance', version: 1, id: `performance-${id}` as never, name: id, kitId: 'kit-a' as never, playedAt: 5, sampleRateHz: RATE,
    originFrame: 0, fromFrame: frames[0] ?? 0, toFrame: (frames[frames.length - 1] ?? 0) + 600, tempoBpm: 100, standing: { pads: [], controls: [] },
    segments: [{ frame: 0, kit: 'e'.repeat(64) as never }], events: events.sort((a, b) => a.frame - b.frame),
    picture: { rate: '25', startPictures: 0, offsetSeconds, film }, ...more,
  } // prettier-ignore
}
const inFilm = (one: Performance) =>
  strikesOf(one).map(({ strike }) => Number((one.picture!.offsetSeconds + strike.frame / RATE).toFixed(4)))

test('lines are those of one film, in the order in which they are heard; marks of all of them are the film’s', () => {
  const [feet, cloth, other] = [played('feet', [48000], 3), played('cloth', [0], 1.5), played('other', [0], 0, 'pier.webm')]
  expect(linesOf([feet, cloth, other], 'yard.webm').map(({ name }) => name)).toEqual(['cloth', 'feet'])
  const marked = { ...feet, picture: withMark(withMark(feet.picture!, { seconds: 4, name: 'Step' }), { seconds: 2, name: 'Turn' }) }
  const twice = { ...cloth, picture: withMark(cloth.picture!, { seconds: 4, name: 'Step' }) }
  expect(performanceKind.fault(marked)).toBeUndefined()
  expect(marksOf([marked, twice]).map(({ name }) => name)).toEqual(['Turn', 'Step'])
  expect(withoutMark(twice.picture, { seconds: 4, name: 'Step' })).toEqual(cloth.picture)
})

test('a pass lies in the film where it was played', () => {
  const pass = laidOnFilm(played('pass', [9600, 19200], 0), played('feet', [0], 7).picture!, { frame: 4800, filmSeconds: 12 })
  expect(inFilm(pass)).toEqual([12.1, 12.3])
  expect(pass.picture!.film).toBe('yard.webm')
  expect(filmSecondsOf(pass)).toBeCloseTo(12.1, 9)
})

test('what is struck before the film runs is struck on its first picture, as long as it was, and all else stays', () => {
  const random = seeded(8)
  for (let run = 0; run < 100; run++) {
    const frames = Array.from({ length: 1 + Math.floor(random() * 12) }, () => Math.floor(random() * 20_000)).sort((a, b) => a - b)
    const [since, film] = [4000 + Math.floor(random() * 3000), 8000 + Math.floor(random() * 3000)]
    const pass = played('pass', frames, 0)
    const made = fromFirstPicture(pass, since, film)
    const lengths = (of: Performance) => new Map(strikesOf(of).map(({ strike, letGo }) => [strike.id, letGo!.frame - strike.frame]))
    expect(lengths(made)).toEqual(lengths(pass))
    const before = new Map(strikesOf(pass).map(({ strike }) => [strike.id, strike.frame]))
    for (const { strike } of strikesOf(made)) {
      const was = before.get(strike.id)!
      expect(strike.frame).toBe(was >= since && was < film ? film : was)
    }
    expect(made.events.map(({ frame }) => frame)).toEqual(made.events.map(({ frame }) => frame).sort((a, b) => a - b))
    expect(made === pass || performanceKind.fault(made) === undefined).toBe(true)
    expect(made.edited ?? false).toBe(frames.some((frame) => frame >= since && frame < film))
  }
})

test('punched in, only the stretch is played anew, to the frame, whatever both are; all else stays', () => {
  for (let seed = 1; seed < 80; seed++) {
    const random = seeded(seed)
    const frames = (count: number) => Array.from({ length: count }, () => Math.floor(random() * 480_000)).sort((a, b) => a - b)
    const line = played('line', frames(12), 2 + Math.floor(random() * 4))
    const pass = played('pass', frames(8), 1 + Math.floor(random() * 6))
    const fromSeconds = 2 + 6 * random()
    const stretch = { fromSeconds, toSeconds: fromSeconds + 4 * random() }
    const after = { ...line, ...punchedIn(makeId, line, pass, stretch) }
    expect(performanceKind.fault(after)).toBeUndefined()
    const isWithin = (seconds: number) => seconds >= stretch.fromSeconds && seconds < stretch.toSeconds
    const inFrames = (one: Performance) => strikesOf(one).map(({ strike }) => Math.round(one.picture!.offsetSeconds * RATE) + strike.frame)
    const isIn = (frame: number) => isWithin(frame / RATE)
    const expected = [...inFrames(line).filter((frame) => !isIn(frame)), ...inFrames(pass).filter(isIn)].sort((a, b) => a - b)
    expect(inFrames(after)).toEqual(expected)
    for (const { strike, letGo } of strikesOf(after)) expect(letGo!.frame - strike.frame).toBe(500)
    expect(after.events.filter(({ type }) => type === 'letGo')).toHaveLength(expected.length)
  }
})

test('lines are mixed where they lie in the film', () => {
  const sound = (value: number, length: number) => ({ sampleRateHz: 100, channels: [new Float32Array(length).fill(value), new Float32Array(length).fill(-value)] }) // prettier-ignore
  const { audio, filmSeconds } = mixedLines([{ audio: sound(0.5, 3), filmSeconds: 2.02 }, { audio: sound(0.25, 4), filmSeconds: 2 }]) // prettier-ignore
  expect(filmSeconds).toBe(2)
  expect([...audio.channels[0]!]).toEqual([0.25, 0.25, 0.75, 0.75, 0.5])
  expect([...audio.channels[1]!]).toEqual([-0.25, -0.25, -0.75, -0.75, -0.5])
})
