import { createSaveState } from './save-state'
import { Standing } from './standing'

/** Counts that are answered when they are told to. */
function aStanding() {
  const saveState = createSaveState()
  const answers: ((waiting: number, files?: number) => Promise<void>)[] = []
  const counts = () =>
    new Promise<{ waiting: number; refused: number; files: number }>((resolve) =>
      answers.push(async (waiting, files = 0) => {
        resolve({ waiting, refused: 0, files })
        for (let i = 0; i < 5; i++) await Promise.resolve()
      }),
    )
  return { saveState, answers, standing: new Standing(saveState, counts as never) }
}

test('it is saved only when nothing waits, no file either, and the server is there', async () => {
  const { saveState, answers, standing } = aStanding()
  standing.recount()
  await answers[0]!(2, 1)
  expect(saveState.getState()).toMatchObject({ state: 'saving', waiting: 3 })
  standing.recount()
  await answers[1]!(0, 1)
  expect(saveState.getState().state).toBe('saving')
  standing.recount()
  await answers[2]!(0)
  expect(saveState.getState()).toMatchObject({ state: 'saved', waiting: 0 })
})

test('what changes while it is counted is counted again, and the old count is not told', async () => {
  const { saveState, answers, standing } = aStanding()
  standing.recount()
  standing.recount()
  standing.recount()
  expect(answers).toHaveLength(1)
  await answers[0]!(0)
  expect(saveState.getState().state).toBe('saving') // not saved: something came since
  expect(answers).toHaveLength(2)
  await answers[1]!(4)
  expect(saveState.getState().waiting).toBe(4)
  expect(answers).toHaveLength(2)
})

test('that the server is away is said at once with why; that it is back, once it has been counted', async () => {
  const { saveState, answers, standing } = aStanding()
  standing.stand(true, 'The server cannot be reached.')
  expect(saveState.getState()).toMatchObject({ state: 'away', why: 'The server cannot be reached.' })
  await answers[0]!(0)
  expect(saveState.getState().state).toBe('away')
  standing.stand(false, undefined)
  expect(saveState.getState().state).toBe('away')
  await answers[1]!(0)
  expect(saveState.getState()).toMatchObject({ state: 'saved', why: undefined })
})

test('what is not written on this device is never called saved, and a page that has ended counts no more', async () => {
  const { saveState, answers, standing } = aStanding()
  standing.recount()
  await answers[0]!(0)
  standing.noteUnkept(2, 'No room.')
  expect(saveState.getState()).toMatchObject({ unkept: 2, failure: 'No room.', state: 'saving' })
  standing.noteUnkept(1, undefined)
  expect(saveState.getState()).toMatchObject({ unkept: 0, failure: undefined })
  standing.stop()
  standing.recount()
  expect(answers).toHaveLength(1)
})
