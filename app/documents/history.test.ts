import { emptyHistory, remember, stepBack, stepForward } from './history'

test('undo and redo walk the same steps, and a new step forgets what was undone', () => {
  const step = (n: number) => ({ edits: [n], inverses: [-n] })
  let history = remember(remember<number>(emptyHistory, step(1)), step(2))
  const back = stepBack(history)!
  expect(back.edits).toEqual([-2])
  expect(stepForward(back.history)).toEqual({ edits: [2], history })
  history = remember(back.history, step(3))
  expect(stepForward(history)).toBeUndefined()
})
