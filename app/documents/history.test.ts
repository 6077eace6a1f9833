import { seeded } from '@heliaster/core/kit/testing'

import { emptyHistory, nextOf, remember, stepBack, stepForward } from './history'
import type { History } from './history'

test('undo and redo walk the same steps, and a new step forgets what was undone', () => {
  const step = (n: number) => ({ edits: [n], inverses: [-n] })
  let history = remember(remember<number>(emptyHistory, step(1)), step(2))
  const back = stepBack(history)!
  expect(back.edits).toEqual([-2])
  const forth = stepForward(back.history)!
  expect([forth.edits, forth.history.past.map(({ edits }) => edits), forth.history.future]).toEqual([[2], [[1], [2]], []])
  history = remember(back.history, step(3))
  expect(stepForward(history)).toBeUndefined()
})

test('several histories are walked as if they were one, whatever is done, taken back and done again in between', () => {
  const random = seeded(12)
  for (let round = 0; round < 40; round++) {
    const histories = new Map<string, History<number>>(['kit', 'recording', 'list'].map((name) => [name, emptyHistory]))
    /** The plain model: one list of steps, and how far it has been walked. */
    let done: { of: string; step: number }[] = []
    let undone: { of: string; step: number }[] = []
    for (let step = 1; step < 40; step++) {
      const next = nextOf([...histories])
      expect([next.undo, next.redo]).toEqual([done[done.length - 1]?.of, undone[undone.length - 1]?.of])
      const what = random()
      if (what < 0.45) {
        const of = ['kit', 'recording', 'list'][Math.floor(random() * 3)]!
        histories.set(of, remember(histories.get(of)!, { edits: [step], inverses: [-step] }))
        done.push({ of, step })
        undone = []
      } else if (what < 0.75 && next.undo) {
        const { edits, history } = stepBack(histories.get(next.undo)!)!
        histories.set(next.undo, history)
        const last = done.pop()!
        expect(edits).toEqual([-last.step])
        undone.push(last)
      } else if (next.redo) {
        const { edits, history } = stepForward(histories.get(next.redo)!)!
        histories.set(next.redo, history)
        const again = undone.pop()!
        expect(edits).toEqual([again.step])
        done.push(again)
      }
    }
    done = []
  }
})
