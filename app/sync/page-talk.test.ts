/** @jest-environment node */
import { createHolds } from './holds'
import type { Channel } from './lead'
import { pageTalk } from './page-talk'

/** Two ends of a channel. */
function aChannel() {
  const ends: { hear?: (message: { data: unknown }) => void; closed: boolean }[] = []
  return () => {
    const end: (typeof ends)[number] = { closed: false }
    ends.push(end)
    return {
      postMessage: (data: unknown) => ends.forEach((other) => other !== end && !other.closed && other.hear?.({ data })),
      addEventListener: (_: string, hear: (message: { data: unknown }) => void) => (end.hear = hear),
      close: () => (end.closed = true),
    } as unknown as Channel
  }
}

function aPage(channel: Channel | undefined) {
  const heard: unknown[] = []
  return { heard, talk: pageTalk(channel, { changed: (keys) => heard.push(keys), stands: ({ away, why }) => heard.push([away, why]) }) } // prettier-ignore
}

test('what one page tells the others hear, and nobody after it has stopped', () => {
  const open = aChannel()
  const [one, other] = [aPage(open()), aPage(open())]
  one.talk.tellChanged(['kit:a', 'source:b'])
  one.talk.tellState({ away: true, why: 'no line' })
  expect(other.heard).toEqual([['kit:a', 'source:b'], [true, 'no line']]) // prettier-ignore
  expect(one.heard).toEqual([])
  other.talk.stop()
  one.talk.tellChanged(['kit:c'])
  expect(other.heard).toHaveLength(2)
})

test('a page alone has nobody to tell', () => {
  const { talk, heard } = aPage(undefined)
  talk.tellChanged(['kit:a'])
  talk.stop()
  expect(heard).toEqual([])
})

test('what is held goes on when the last one lets go, however often each lets go', () => {
  let freed = 0
  const holds = createHolds(() => void freed++)
  const [first, second] = [holds.hold(), holds.hold()]
  first()
  first()
  expect([holds.isHeld(), freed]).toEqual([true, 0])
  second()
  expect([holds.isHeld(), freed]).toEqual([false, 1])
  second()
  expect(freed).toBe(1)
})
