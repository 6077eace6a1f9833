import type { Kind, MakeId } from '@heliaster/core/kit'

import type { History } from '../documents/history'
import { createServerApi } from './api'
import { CatchUp } from './catch-up'
import { documentsOn } from './documents-on'
import { createHolds } from './holds'
import { Lead } from './lead'
import type { Channel } from './lead'
import { Listener } from './listener'
import type { LocalDb } from './local-db'
import { pageTalk } from './page-talk'
import { createSaveState } from './save-state'
import { Sender } from './sender'
import { Shelf } from './shelf'
import { Standing } from './standing'
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
  /** Documents that nobody has opened are fetched only then. */
  untilShown?(): Promise<void>
  /** Is told in a sentence what a person should know at once. */
  notify(words: string): void
  /** Is told of sounds that came in here. */
  onSoundsMade?(ids: readonly string[]): void
  /** What could be taken back of a document, by its key, before its page was loaded anew. */
  stepsOf?(key: string): History<unknown> | undefined
}

/** Nobody is kept waiting longer for the server's list. */
const LISTED_MS = 4000

/** One page of one device: its documents, what it keeps of them, and how they and the server come together. */
export function createDevice(ground: Ground) {
  const { timers, makeId, channel } = ground
  const saveState = createSaveState()

  const shelf = new Shelf(ground.db, timers, ({ unkept, failure }) => {
    standing.noteUnkept(unkept, failure)
    if (failure !== undefined) sender.wake()
    standing.recount()
  }, (keys) => {
    talk.tellChanged(keys)
    sender.wake()
  }) // prettier-ignore
  const standing: Standing = new Standing(saveState, () => shelf.counts())

  const { kits, sources, starts, performances, all, documentsOf } = documentsOn(shelf, ground, (id) => catchUp.isNew('kit', id))

  const api = createServerApi(ground.fetch)
  const sender: Sender = new Sender({
    api,
    shelf,
    timers,
    db: ground.db,
    documentsOf,
    isLeading: () => lead.isLeading,
    isHeld: () => holds.isHeld(),
    isVisible: ground.isVisible,
    onState: (state, reason) => {
      standing.stand(state === 'away', reason)
      if (lead.isLeading) talk.tellState(standing)
    },
    onTaken: (kind, newId) => {
      const name = documentsOf(kind).store.getState().entries[newId]?.doc.name ?? ''
      ground.notify(`The server keeps something else under the same id. Yours, “${name}”, is kept beside it as its own.`)
    },
  })
  const holds = createHolds(() => sender.wake(0))
  const catchUp: CatchUp = new CatchUp({ api, shelf, documentsOf, timers, untilShown: ground.untilShown, onListed: (kind) => kind === 'kit' && saveState.setState({ listed: true }) }, sender) // prettier-ignore
  const listener = new Listener(api, timers, {
    open: () => {
      sender.wake(0) // the server is back
      catchUp.all()
    },
    change: (event) => catchUp.heard(event),
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
    () => talk.tellState(standing),
  )
  async function readAll(): Promise<void> {
    standing.recount()
    for (const documents of all) await documents.load()
  }

  const talk = pageTalk(channel, {
    stands({ away, why }) {
      // The page that leads knows how it stands with the server.
      if (!lead.isLeading && (away !== standing.away || why !== standing.why)) standing.stand(away, why)
    },
    changed(keys) {
      for (const key of keys) {
        const [kind, id] = [key.slice(0, key.indexOf(':')) as Kind, key.slice(key.indexOf(':') + 1)]
        void documentsOf(kind).sync([id])
      }
      standing.recount()
      if (lead.isLeading) sender.wake()
    },
  })

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
      standing.recount()
      sender.wake()
    },
    /** Sends at once, for instance when the browser says that it is online. */
    wake: () => sender.wake(0),
    /** Lets sending wait until the returned function is called. */
    holdSending: () => holds.hold(),
    /** Fetches a document that the server has and this device has not. */
    fetchDocument: (kind: Kind, id: string) => catchUp.look(kind, id),
    /** Fetches all documents of a kind that the server has and this device has not; fails where the server is out of reach. */
    fetchAll: (kind: Kind) => catchUp.bring(kind),
    async start(): Promise<void> {
      lead.start()
      timers.set(() => saveState.setState({ listed: true }), LISTED_MS) // a page that another one leads asks nobody
      await readAll()
    },
    stop(): void {
      standing.stop()
      lead.stop()
      listener.stop()
      catchUp.stop()
      sender.stop()
      talk.stop()
    },
  }
}
export type Device = ReturnType<typeof createDevice>
