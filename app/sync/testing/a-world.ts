import 'fake-indexeddb/auto'

import { createIds } from '@heliaster/core/kit'
import type { ChangeEvent } from '@heliaster/core/kit'
import { seeded } from '@heliaster/core/kit/testing'
import { IDBFactory } from 'fake-indexeddb'

import { createDevice } from '../device'
import type { Device } from '../device'
import type { Channel } from '../lead'
import { openLocalDb } from '../local-db'
import type { Timers } from '../timers'
import { PlainServer } from './plain-server'

/** What may go wrong below the stores, each as a share of all calls. */
export interface Faults {
  /** Writing on the device. */
  storage: number
  /** Reading from the device. */
  reading: number
  /** Requests that never reach the server, and answers that never come back. */
  lost: number
}

/** Lets everything that has been begun come to where it waits for time to pass. */
export async function settle(rounds = 60): Promise<void> {
  for (let i = 0; i < rounds; i++) await new Promise((resolve) => setImmediate(resolve))
}

/** Time that passes when it is told to. */
export class Clock {
  private at = 1_000_000
  private due: { at: number; run: () => void; timer: object; owner: object }[] = []

  now = () => this.at

  timers(owner: object): Timers {
    return {
      now: this.now,
      set: (run, ms) => {
        const timer = {}
        this.due.push({ at: this.at + Math.max(0, ms), run, timer, owner })
        return timer
      },
      clear: (timer) => void (this.due = this.due.filter((one) => one.timer !== timer)),
    }
  }

  forget(owner: object): void {
    this.due = this.due.filter((one) => one.owner !== owner)
  }

  /** Runs what is due within `ms`, in its order, each with all it begins. */
  async pass(ms: number): Promise<void> {
    const until = this.at + ms
    for (;;) {
      const next = this.due.filter((one) => one.at <= until).sort((a, b) => a.at - b.at)[0]
      if (!next) break
      this.due = this.due.filter((one) => one !== next)
      this.at = Math.max(this.at, next.at)
      next.run()
      await settle()
    }
    this.at = until
    await settle()
  }
}

/** A browser: what it keeps, and the pages open in it. */
export interface Browser {
  readonly factory: IDBFactory
  readonly tabs: Set<Tab>
  online: boolean
}

export interface Tab {
  readonly device: Device
  readonly browser: Browser
  /** The batches it has made, in order. */
  readonly made: string[]
  readonly said: string[]
  dead: boolean
  frozen: boolean
}

const never = <T>() => new Promise<T>(() => undefined)

/** Devices, their pages and a server, with all that lies between them in the test's hand. */
export class World {
  readonly random: () => number
  readonly clock = new Clock()
  readonly server = new PlainServer(this.clock.now)
  readonly faults: Faults = { storage: 0, reading: 0, lost: 0 }
  readonly browsers: Browser[] = []
  /** Requests in the order in which they reached the server. */
  readonly requests: { method: string; path: string; at: number }[] = []

  constructor(seed: number) {
    this.random = seeded(seed)
  }

  aBrowser(): Browser {
    const browser = { factory: new IDBFactory(), tabs: new Set<Tab>(), online: true }
    this.browsers.push(browser)
    return browser
  }

  async aTab(browser: Browser, untilShown?: () => Promise<void>): Promise<Tab> {
    const ids = createIds(this.random)
    const made: string[] = []
    const said: string[] = []
    const owner = {}
    const tab: { -readonly [Key in keyof Tab]: Tab[Key] } = { browser, made, said, dead: false, frozen: false, device: undefined as never }
    const opened = openLocalDb(browser.factory)
    tab.device = createDevice({
      db: async () => (tab.dead ? never() : this.faulty(await opened)),
      fetch: ((input: string, init?: RequestInit) => this.fetch(tab, String(input), init)) as typeof fetch,
      channel: this.channel(tab),
      timers: this.frozenTimers(tab, this.clock.timers(owner)),
      makeId: ((prefix: string) => {
        const id = ids(prefix)
        if (prefix === 'batch') made.push(id)
        return id
      }) as never,
      isVisible: () => true,
      untilShown,
      notify: (words) => said.push(words),
    })
    browser.tabs.add(tab)
    const started = tab.device.start()
    if (this.faults.reading === 0) await started // else it goes on as time passes
    await settle()
    return tab
  }

  /** The page is gone at once, with all that was in its memory. */
  kill(tab: Tab): void {
    tab.dead = true
    tab.browser.tabs.delete(tab)
    tab.device.stop()
  }

  get tabs(): Tab[] {
    return this.browsers.flatMap((browser) => [...browser.tabs])
  }

  /** A page that is frozen runs what was due when it thaws. */
  private frozenTimers(tab: { dead: boolean; frozen: boolean }, timers: Timers): Timers {
    const runOrWait = (run: () => void) => {
      if (tab.dead) return
      if (tab.frozen) timers.set(() => runOrWait(run), 500)
      else run()
    }
    return { ...timers, set: (run, ms) => timers.set(() => runOrWait(run), ms) }
  }

  /** A database that fails now and then: while it is read, while it is used or when it is to be written. */
  private faulty<Db extends object>(db: Db): Db {
    const fails = (isWriting: boolean) => this.random() < (isWriting ? this.faults.storage : this.faults.reading)
    const broken = () => new DOMException('The device could not be read.', 'UnknownError')
    const full = () => new DOMException('No room on this device.', 'QuotaExceededError')
    return new Proxy(db, {
      get: (target, name) => {
        const value = Reflect.get(target, name, target) as unknown
        if (typeof value !== 'function') return value
        if (name !== 'transaction') {
          const isWrite = /^(put|add|delete)/.test(String(name))
          const isCall = isWrite || /^(get|count)/.test(String(name))
          return (...words: unknown[]) => (isCall && fails(isWrite) ? Promise.reject(broken()) : (value.apply(target, words) as unknown))
        }
        return (...words: unknown[]) => {
          const isWriting = words[1] === 'readwrite'
          if (!isWriting && fails(false)) throw broken()
          const transaction = value.apply(target, words) as { abort(): void; done: Promise<void> }
          if (!isWriting || !fails(true)) return transaction
          if (this.random() < 0.5) {
            transaction.done.catch(() => undefined)
            transaction.abort()
            throw full()
          }
          return new Proxy(transaction, {
            get: (of, key) => {
              if (key === 'done') {
                of.done.catch(() => undefined)
                of.abort()
                return Promise.reject(full())
              }
              const held = Reflect.get(of, key, of) as unknown
              return typeof held === 'function' ? (held.bind(of) as unknown) : held
            },
          })
        }
      },
    })
  }

  private channel(tab: { browser: Browser; dead: boolean; frozen: boolean }): Channel {
    const heard: ((event: { data: unknown }) => void)[] = []
    const channel: Channel & { hear(data: unknown): void } = {
      postMessage: (data) => {
        if (tab.dead) return
        for (const other of tab.browser.tabs) if (other !== (tab as unknown)) this.channels.get(other)?.hear(data)
      },
      addEventListener: (_type, listener) => void heard.push(listener),
      close: () => undefined,
      // What is said to a page that is frozen waits for it.
      hear: (data) => {
        if (tab.dead) return
        if (tab.frozen) this.clock.timers(tab).set(() => channel.hear(data), 500)
        else setImmediate(() => heard.forEach((listener) => listener({ data: JSON.parse(JSON.stringify(data)) as unknown })))
      },
    }
    this.channels.set(tab as unknown as Tab, channel)
    return channel
  }
  private readonly channels = new WeakMap<Tab, { hear(data: unknown): void }>()

  private async fetch(
    tab: Tab | { dead: boolean; browser: Browser; frozen: boolean },
    url: string,
    init: RequestInit = {},
  ): Promise<Response> {
    if (tab.dead) return never()
    if (!tab.browser.online || this.random() < this.faults.lost) throw new TypeError('Failed to fetch')
    const path = url.replace(/^https?:[/][/][^/]+/, '')
    const method = init.method ?? 'GET'
    this.requests.push({ method, path, at: this.clock.now() })
    if (path === '/api/changes') return this.stream(tab, init.signal!)
    const { status, body } = this.server.answer(method, path, init.body ? JSON.parse(String(init.body)) : undefined)
    await settle(2)
    if (tab.dead) return never()
    if (!tab.browser.online || this.random() < this.faults.lost) throw new TypeError('Failed to fetch') // applied, and nobody knows
    return new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } })
  }

  private stream(tab: { dead: boolean; browser: Browser; frozen: boolean }, signal: AbortSignal): Response {
    let ended = false
    let unlisten: () => void = () => undefined
    const end = () => {
      ended = true
      unlisten()
    }
    const body = new ReadableStream<Uint8Array>({
      start: (controller) => {
        const say = (event: ChangeEvent) => {
          if (ended || tab.dead) return
          if (!tab.browser.online) {
            end()
            controller.error(new TypeError('network error'))
          } else controller.enqueue(new TextEncoder().encode(`${JSON.stringify(event)}\n`))
        }
        unlisten = this.server.listen(say)
        signal.addEventListener('abort', () => {
          end()
          controller.error(new Error('ended'))
        })
        const beat = () => {
          say({})
          if (!ended) this.clock.timers(tab).set(beat, 3000)
        }
        beat()
      },
      cancel: end,
    })
    return new Response(body, { status: 200 })
  }
}
