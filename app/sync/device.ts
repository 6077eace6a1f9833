import { kitKind, performanceKind, sourceKind, startKind } from '@heliaster/core/kit'
import type { Kind, Kit, KitEdit, MakeId, Performance, PerformanceEdit, Source, SourceEdit, Start, StartEdit } from '@heliaster/core/kit'

import { clashesOf, sameName } from '../documents/clashes'
import { createDocuments } from '../documents/documents'
import type { History } from '../documents/history'
import { createServerApi } from './api'
import { CatchUp } from './catch-up'
import { Lead } from './lead'
import type { Channel } from './lead'
import { Listener } from './listener'
import type { LocalDb } from './local-db'
import { createSaveState } from './save-state'
import { Sender } from './sender'
import type { SenderNeeds } from './sender'
import { Shelf } from './shelf'
import type { Timers } from './timers'

/** What a page stands on. The page has one of each, a test many. */
export interface Ground {
  db(): Promise<LocalDb>
  readonly fetch: typeof fetch
  /** How pages of this browser tell each other; nothing where there is only one. */
  readonly channel?: Channel
  readonly timers: Timers
  readonly makeId: MakeId
  isVisible(): boolean
  /** Is told in a sentence what a person should know at once. */
  notify(words: string): void
  /** Is told of sounds that came in here. */
  onSoundsMade?(ids: readonly string[]): void
  /** What could be taken back of a document, by its key, before its page was loaded anew. */
  stepsOf?(key: string): History<unknown> | undefined
}

type Told =
  { readonly type: 'changed'; readonly keys: readonly string[] } | { readonly type: 'state'; readonly away: boolean; readonly why?: string }

/** Nobody is kept waiting longer for the server's list. */
const LISTED_MS = 4000

/** One page of one device: its documents, what it keeps of them, and how they and the server come together. */
export function createDevice(ground: Ground) {
  const { timers, makeId, channel } = ground
  const saveState = createSaveState()
  let away = false
  let why: string | undefined
  let holds = 0
  let stopped = false
  let caughtUp = false

  const shelf = new Shelf(ground.db, timers, ({ unkept, failure }) => {
    // At once: nothing is called saved that is not.
    const state = unkept === 0 ? saveState.getState().state : away ? ('away' as const) : ('saving' as const)
    saveState.setState({ unkept: failure === undefined ? 0 : unkept, failure, state })
    if (failure !== undefined) sender.wake()
    recount()
  }, (keys) => {
    channel?.postMessage({ type: 'changed', keys } satisfies Told)
    sender.wake()
  }) // prettier-ignore

  const need = { shelf, makeId, now: () => timers.now(), onRefused: ground.notify, stepsOf: ground.stepsOf }
  const kits = createDocuments<Kit, KitEdit>(kitKind, {
    ...need,
    onArrived: (before, after) => {
      const here = Object.values(kits.store.getState().entries).map((entry) => entry.doc)
      const words = before ? clashesOf(before as Kit, after as Kit) : caughtUp ? sameName(here, after as Kit) : undefined
      if (words) ground.notify(words)
    },
  })
  const sources = createDocuments<Source, SourceEdit>(sourceKind, { ...need, onMade: ground.onSoundsMade })
  const starts = createDocuments<Start, StartEdit>(startKind, need)
  const performances = createDocuments<Performance, PerformanceEdit>(performanceKind, need)
  const byKind = { kit: kits, source: sources, start: starts, performance: performances }
  const documentsOf = (kind: Kind) => byKind[kind] as unknown as ReturnType<SenderNeeds['documentsOf']>

  const api = createServerApi(ground.fetch)
  const sender: Sender = new Sender({
    api,
    shelf,
    timers,
    db: ground.db,
    documentsOf,
    isLeading: () => lead.isLeading,
    isHeld: () => holds > 0,
    isVisible: ground.isVisible,
    onState: (state, reason) => {
      stand(state === 'away', reason)
      if (lead.isLeading) tellState()
    },
    onTaken: (kind, newId) => {
      const name = documentsOf(kind).store.getState().entries[newId]?.doc.name ?? ''
      ground.notify(`The server keeps something else under the same id. Yours, “${name}”, is kept beside it as its own.`)
    },
  })
  const catchUp = new CatchUp({ api, shelf, documentsOf, timers, onListed: (kind) => kind === 'kit' && saveState.setState({ listed: true }) }, sender) // prettier-ignore
  const listener = new Listener(api, timers, {
    open: () => {
      sender.wake(0) // the server is back
      catchUp.all()
    },
    change: (event) => {
      caughtUp = true // what comes from here on is new, and not only new here
      catchUp.heard(event)
    },
  })
  const lead: Lead = new Lead(
    makeId('page'),
    channel,
    timers,
    (leading) => {
      if (!leading) return listener.stop()
      listener.start()
      sender.wake(0)
    },
    () => void readAll(),
    tellState,
  )
  function tellState(): void {
    channel?.postMessage({ type: 'state', away, why } satisfies Told)
  }
  async function readAll(): Promise<void> {
    recount()
    for (const documents of Object.values(byKind)) await documents.load()
  }

  channel?.addEventListener('message', ({ data }) => {
    if (stopped) return
    const told = data as Told
    // The page that leads knows how it stands with the server.
    if (told.type === 'state' && !lead.isLeading && (told.away !== away || told.why !== why)) stand(told.away, told.why)
    if (told.type !== 'changed') return
    for (const key of told.keys) {
      const [kind, id] = [key.slice(0, key.indexOf(':')) as Kind, key.slice(key.indexOf(':') + 1)]
      void documentsOf(kind).sync([id])
    }
    recount()
    if (lead.isLeading) sender.wake()
  })

  /** That the server is away is said at once, that it is back once it has been counted what waits. */
  function stand(isAway: boolean, reason: string | undefined): void {
    away = isAway
    why = reason
    if (away) saveState.setState({ state: 'away', why })
    recount()
  }

  let counting = false
  let countAgain = false
  /** How saving stands is counted anew after each change, once at a time. */
  function recount(): void {
    countAgain = true
    if (counting || stopped) return
    counting = true
    void (async () => {
      while (countAgain) {
        countAgain = false
        const { waiting, refused, files } = await shelf.counts()
        if (countAgain) continue // something has changed while it was counted
        const all = waiting + files
        saveState.setState({
          waiting: all,
          refused,
          why: away ? why : undefined,
          state: all === 0 && !away ? 'saved' : away ? 'away' : 'saving',
        })
      }
    })().finally(() => (counting = false))
  }

  return {
    kits,
    sources,
    starts,
    performances,
    documentsOf,
    saveState,
    shelf,
    /** Files were kept on this device for the server to have. */
    filesKept(): void {
      recount()
      sender.wake()
    },
    /** Sends at once, for instance when the browser says that it is online. */
    wake: () => sender.wake(0),
    /** Lets sending wait until the returned function is called. */
    holdSending(): () => void {
      holds++
      let held = true
      return () => {
        if (!held) return
        held = false
        holds--
        if (holds === 0) sender.wake(0)
      }
    },
    /** Fetches a document that the server has and this device has not. */
    fetchDocument: (kind: Kind, id: string) => catchUp.look(kind, id),
    async start(): Promise<void> {
      lead.start()
      timers.set(() => saveState.setState({ listed: true }), LISTED_MS) // a page that another one leads asks nobody
      await readAll()
    },
    stop(): void {
      stopped = true
      lead.stop()
      listener.stop()
      catchUp.stop()
      sender.stop()
      channel?.close()
    },
  }
}
export type Device = ReturnType<typeof createDevice>
