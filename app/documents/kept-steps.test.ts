import { seeded } from '@heliaster/core/kit/testing'

import { emptyHistory, nextOf, nextStamp, remember, stepBack, stepForward } from './history'
import type { History } from './history'
import { StepKeeper } from './kept-steps'

type Edit = { type: string; to: number; words?: string }
const edit = (to: number, words = '') => ({ edits: [{ type: 'set', to, words }], inverses: [{ type: 'set', to: -to }] })
const noLibrary = { past: [], future: [] }

/** What a browser keeps for a tab, up to a size. */
function aDisk(most = Infinity) {
  const held = new Map<string, string>()
  return {
    held,
    getItem: (key: string) => held.get(key) ?? null,
    setItem: (key: string, text: string) => {
      if (text.length > most) throw new Error('QuotaExceededError')
      held.set(key, text)
    },
    removeItem: (key: string) => void held.delete(key),
  }
}

/** Anything done, taken back and done again over three documents. */
function anyHistories(seed: number, steps: number, words = ''): Record<string, History<Edit>> {
  const chance = seeded(seed)
  const of: Record<string, History<Edit>> = { 'kit:a': emptyHistory, 'kit:b': emptyHistory, 'source:c': emptyHistory }
  for (let step = 1; step <= steps; step++) {
    const what = chance()
    const next = nextOf(Object.entries(of))
    if (what < 0.6) {
      const key = Object.keys(of)[Math.floor(chance() * 3)]!
      of[key] = remember(of[key]!, edit(step, words))
    } else if (what < 0.85 && next.undo) of[next.undo] = stepBack(of[next.undo]!)!.history
    else if (next.redo) of[next.redo] = stepForward(of[next.redo]!)!.history
  }
  return of
}

/** All that can be taken back and done again from here, in its order. */
function walked(of: Record<string, History<Edit>>): { back: number[]; forth: number[] } {
  const walk = (way: 'undo' | 'redo', step: typeof stepBack) => {
    const now = { ...of }
    const seen: number[] = []
    for (let key = nextOf(Object.entries(now))[way]; key; key = nextOf(Object.entries(now))[way]) {
      const { edits, history } = step(now[key]!)!
      now[key] = history
      seen.push(edits[0]!.to)
    }
    return seen
  }
  return { back: walk('undo', stepBack as never), forth: walk('redo', stepForward as never) }
}

const takenUp = (keeper: StepKeeper, keys: string[]) =>
  Object.fromEntries(keys.map((key) => [key, (keeper.take(key) as History<Edit> | undefined) ?? emptyHistory]))

test('whatever was done and taken back: a new page walks the same steps in the same order', () => {
  for (let seed = 1; seed <= 30; seed++) {
    const disk = aDisk()
    const of = anyHistories(seed, 60)
    new StepKeeper(disk, 'kit 2').keep({ library: noLibrary, documents: of })
    const again = takenUp(new StepKeeper(disk, 'kit 2'), Object.keys(of))
    expect(walked(again)).toEqual(walked(of))
    const more = { ...again, 'kit:a': remember(again['kit:a']!, edit(1000)) }
    expect(walked(more).back[0]).toBe(-1000)
    expect(walked(more).forth).toEqual([])
  }
})

test('where there is less room, the newest steps are kept and still lead back in order', () => {
  const of = anyHistories(3, 200, 'w'.repeat(200))
  const whole = walked(of)
  const disk = aDisk(8_000)
  new StepKeeper(disk, 'kit 2').keep({ library: noLibrary, documents: of })
  const { back, forth } = walked(takenUp(new StepKeeper(disk, 'kit 2'), Object.keys(of)))
  expect(back.length).toBeGreaterThan(5)
  expect(back.length).toBeLessThan(whole.back.length)
  expect(back).toEqual(whole.back.slice(0, back.length))
  expect(forth).toEqual(whole.forth.slice(0, forth.length))
})

test('steps of a document that has not come yet are kept on; one takes its own once', () => {
  const disk = aDisk()
  const of = anyHistories(5, 30)
  new StepKeeper(disk, 'kit 2').keep({ library: noLibrary, documents: of })
  const second = new StepKeeper(disk, 'kit 2')
  expect(second.take('kit:a')).toEqual(JSON.parse(JSON.stringify(of['kit:a'])))
  expect(second.take('kit:a')).toBeUndefined()
  second.keep({ library: noLibrary, documents: {} })
  const third = new StepKeeper(disk, 'kit 2')
  expect([third.take('kit:a'), third.take('kit:b') !== undefined]).toEqual([undefined, true])
})

test('steps of the list come back; what is stale, broken, refused or forbidden is forgotten without a word', () => {
  const disk = aDisk()
  const library = { past: [{ kind: 'deleted' as const, ids: ['x'], at: nextStamp() }], future: [] }
  new StepKeeper(disk, 'kit 2').keep({ library, documents: {} })
  expect(new StepKeeper(disk, 'kit 2').library()).toEqual(library)
  disk.held.set('heliaster-steps', disk.held.get('heliaster-steps')!.replace(/"stamps":\d+/, '"stamps":5000000'))
  expect(new StepKeeper(disk, 'kit 2').library()).toEqual(library)
  expect(nextStamp()).toBe(5000001)
  expect(new StepKeeper(disk, 'kit 3').library()).toEqual(noLibrary)
  for (const broken of ['{', '[]', '{"forms":"kit 2","library":{"past":[{"kind":"deleted"}]}}']) {
    disk.held.set('heliaster-steps', broken)
    expect(new StepKeeper(disk, 'kit 2').library()).toEqual(noLibrary)
  }
  new StepKeeper(aDisk(10), 'kit 2').keep({ library, documents: {} })
  new StepKeeper(undefined, 'kit 2').keep({ library, documents: {} })
})
