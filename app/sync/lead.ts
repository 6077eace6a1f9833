import type { Timers } from './timers'

/** What pages of one browser tell each other by. */
export interface Channel {
  postMessage(message: unknown): void
  addEventListener(type: 'message', listener: (event: { data: unknown }) => void): void
  close(): void
}

type Message = { readonly type: 'lead'; readonly id: string } | { readonly type: 'who' } | { readonly type: 'leaving'; readonly id: string }

const BEAT_MS = 1000
/** A page that has been silent for so long has lost its part. */
const SILENT_MS = 5000
const ASK_MS = 250

/**
 * One page of a browser sends and listens to the server; this says which. Nothing hangs on it but work done once instead
 * of several times: two pages that both believe to lead do no harm.
 */
export class Lead {
  private leading = false
  private heardAt: number
  private beatAt: number
  private timer: unknown
  private stopped = false

  constructor(
    private readonly id: string,
    private readonly channel: Channel | undefined,
    private readonly timers: Timers,
    private readonly onChange: (leading: boolean) => void,
    /** Is told when this page comes back after it has slept: what others said meanwhile it may have missed. */
    private readonly onWoken: () => void,
    /** Is told now and then while this page leads, so that it can tell the others what it knows. */
    private readonly onBeat: () => void = () => undefined,
  ) {
    this.heardAt = this.beatAt = timers.now()
    channel?.addEventListener('message', ({ data }) => this.hear(data as Message))
  }

  get isLeading(): boolean {
    return this.leading && this.timers.now() - this.beatAt < SILENT_MS
  }

  start(): void {
    if (!this.channel) return this.take()
    this.say({ type: 'who' })
    this.heardAt = this.timers.now() - SILENT_MS + ASK_MS // nobody leads until someone says so
    this.timer = this.timers.set(() => this.beat(), ASK_MS)
  }

  stop(): void {
    this.stopped = true
    this.timers.clear(this.timer)
    if (this.leading) this.say({ type: 'leaving', id: this.id })
    this.leading = false
  }

  private beat(): void {
    if (this.stopped) return
    const now = this.timers.now()
    const hasSlept = now - this.beatAt >= SILENT_MS
    if (hasSlept) this.onWoken()
    // Another page has taken its part meanwhile.
    if (this.leading && this.channel && hasSlept) {
      this.giveUp()
      this.heardAt = now
      this.say({ type: 'who' })
    } else if (this.leading) {
      this.say({ type: 'lead', id: this.id })
      this.onBeat()
    }
    if (!this.leading && now - this.heardAt >= SILENT_MS) this.take()
    this.beatAt = now
    this.timer = this.timers.set(() => this.beat(), BEAT_MS)
  }

  private hear(message: Message): void {
    if (this.stopped) return
    if (message.type === 'who' && this.leading) this.say({ type: 'lead', id: this.id })
    if (message.type === 'leaving') this.heardAt = this.timers.now() - SILENT_MS
    if (message.type !== 'lead' || message.id === this.id) return
    this.heardAt = this.timers.now()
    if (this.leading && message.id < this.id) this.giveUp()
    else if (this.leading) this.say({ type: 'lead', id: this.id })
  }

  private take(): void {
    this.leading = true
    this.beatAt = this.timers.now()
    this.say({ type: 'lead', id: this.id })
    this.onChange(true)
  }

  private giveUp(): void {
    this.leading = false
    this.onChange(false)
  }

  private say(message: Message): void {
    this.channel?.postMessage(message)
  }
}
