import { aKit, aTone } from '../../kit/builders'
import type { Audio } from '../../audio/audio'
import { EventType } from '../program/codes'
import type { DrawAnswer, DrawRequest } from './messages'
import { serveDrawing } from './worker'

test('what was sent once is kept for what is asked later, until it is to be forgotten', () => {
  const answers: DrawAnswer[] = []
  const host = globalThis as unknown as { onmessage?(event: { data: DrawRequest }): void; postMessage?(answer: DrawAnswer): void }
  host.postMessage = (answer) => answers.push(answer)
  serveDrawing()
  const { kit, audio } = aKit([{ bands: [[aTone(2000)]] }])
  const strike = { padId: kit.pads[0].id, frame: 0, type: EventType.strike, velocity: 100 }
  const ask = (said: { audio: [string, Audio][]; forget?: string[] }) =>
    host.onmessage!({ data: { id: answers.length, kit, events: [strike], frames: 2000, sampleRateHz: 48000, ...said } })
  ask({ audio: [...audio] })
  ask({ audio: [] })
  ask({ audio: [], forget: [...audio.keys()] })
  delete host.onmessage
  delete host.postMessage
  const peaks = answers.map(({ left }) => left.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0))
  expect(answers.map(({ id }) => id)).toEqual([0, 1, 2])
  expect(peaks[0]).toBeGreaterThan(0.05)
  expect(answers[1].left).toEqual(answers[0].left)
  expect(peaks[2]).toBe(0)
})
