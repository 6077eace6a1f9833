import type { ChangeEvent } from '@heliaster/core/kit'
import { Hono } from 'hono'

import type { Changes } from './changes'

const STILL_HERE_MS = 3000

/** One line of JSON for each change, for as long as someone listens; an empty one now and then says that the server is there. */
export function changeRoutes(changes: Changes) {
  return new Hono().get('/', (c) => {
    let stop = (): void => undefined
    const body = new ReadableStream<Uint8Array>({
      start(controller) {
        const say = (event: ChangeEvent) => controller.enqueue(new TextEncoder().encode(`${JSON.stringify(event)}\n`))
        const unlisten = changes.listen(say)
        const timer = setInterval(() => say({}), STILL_HERE_MS)
        stop = () => {
          clearInterval(timer)
          unlisten()
        }
        c.req.raw.signal.addEventListener('abort', stop)
        say({})
      },
      cancel: () => stop(),
    })
    return c.body(body, 200, { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' })
  })
}
