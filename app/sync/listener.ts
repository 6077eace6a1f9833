import { changeEventSchema } from '@heliaster/core/kit'
import type { ChangeEvent } from '@heliaster/core/kit'

import type { ServerApi } from './api'
import type { Timers } from './timers'

/** The server says something at least every three seconds; a line that is silent for longer is dead. */
const SILENT_MS = 8000
const PAUSE_MS = 500
const LONGEST_PAUSE_MS = 4000

/** Listens to the server's stream of changes, and begins again whenever it breaks off. */
export class Listener {
  private stopped = true
  private ended = new AbortController()
  private timer: unknown
  private pauseMs = PAUSE_MS

  constructor(
    private readonly api: Pick<ServerApi, 'changes'>,
    private readonly timers: Timers,
    private readonly on: { open(): void; change(event: ChangeEvent): void },
  ) {}

  start(): void {
    if (!this.stopped) return
    this.stopped = false
    void this.listen()
  }

  stop(): void {
    this.stopped = true
    this.ended.abort()
    this.timers.clear(this.timer)
  }

  private async listen(): Promise<void> {
    this.ended = new AbortController()
    const { ended } = this
    try {
      this.expectMore(ended)
      const response = await this.api.changes(ended.signal)
      if (response.ok && response.body) {
        this.pauseMs = PAUSE_MS
        this.on.open()
        for await (const event of eventsOf(response.body)) {
          if (this.stopped || ended.signal.aborted) break
          this.expectMore(ended)
          if (event.kind) this.on.change(event)
        }
      }
    } catch {
      // Broken off: begun again below.
    }
    if (this.stopped) return
    this.timers.clear(this.timer)
    this.timer = this.timers.set(() => void this.listen(), this.pauseMs)
    this.pauseMs = Math.min(LONGEST_PAUSE_MS, this.pauseMs * 2)
  }

  private expectMore(ended: AbortController): void {
    this.timers.clear(this.timer)
    this.timer = this.timers.set(() => ended.abort(), SILENT_MS)
  }
}

/** Lines of JSON, as they come. */
async function* eventsOf(body: ReadableStream<Uint8Array>): AsyncGenerator<ChangeEvent> {
  const reader = body.getReader()
  const decoder = new TextDecoder()
  let text = ''
  for (;;) {
    const { value, done } = await reader.read()
    if (done) return
    text += decoder.decode(value, { stream: true })
    for (let end = text.indexOf('\n'); end >= 0; end = text.indexOf('\n')) {
      const parsed = changeEventSchema.safeParse(JSON.parse(text.slice(0, end)))
      if (parsed.success) yield parsed.data
      text = text.slice(end + 1)
    }
  }
}
