import type { ChangeEvent } from '@heliaster/core/kit'
import type { DataSource } from 'typeorm'
import { MoreThanOrEqual } from 'typeorm'

import { documentRows } from '../rows'
import type { DocumentRow } from '../rows'

const LOOK_EVERY_MS = 1000
/** Longer than a transaction is under way, and than clocks of several servers differ. */
const LOOK_BACK_MS = 3000
const MOST_AT_ONCE = 1000

type Listener = (event: ChangeEvent) => void

/**
 * Tells those who listen what has changed: at once what came through this server, within a second what came through
 * another one before the same database. Looks only while someone listens.
 */
export class Changes {
  private readonly listeners = new Set<Listener>()
  private timer: ReturnType<typeof setInterval> | undefined
  private looking = false
  /** What was told, by document, so that nothing is told twice. */
  private told = new Map<string, string>()

  constructor(
    private readonly database: DataSource,
    private readonly now: () => number = Date.now,
  ) {}

  listen(listener: Listener): () => void {
    this.listeners.add(listener)
    this.timer ??= setInterval(() => void this.look(), LOOK_EVERY_MS)
    return () => {
      this.listeners.delete(listener)
      if (this.listeners.size > 0) return
      clearInterval(this.timer)
      this.timer = undefined
    }
  }

  tell(event: Required<ChangeEvent>): void {
    const key = `${event.kind}:${event.id}`
    const state = `${event.revision} ${event.deleted}`
    if (event.revision > 0 && this.told.get(key) === state) return
    if (event.revision > 0) this.told.set(key, state)
    for (const listener of this.listeners) listener(event)
  }

  /** Looks at what others have touched. A database that is away is found out by those who ask it something. */
  async look(): Promise<void> {
    if (this.looking) return
    this.looking = true
    try {
      const since = new Date(this.now() - LOOK_BACK_MS)
      const rows = await this.database.getRepository(documentRows).find({
        select: { kind: true, id: true, revision: true, deletedAt: true },
        where: { touchedAt: MoreThanOrEqual(since) },
        take: MOST_AT_ONCE,
      })
      for (const row of rows) this.tellRow(row)
      if (rows.length === 0) this.told.clear()
    } catch {
      this.told.clear()
    } finally {
      this.looking = false
    }
  }

  private tellRow({ kind, id, revision, deletedAt }: Pick<DocumentRow, 'kind' | 'id' | 'revision' | 'deletedAt'>): void {
    this.tell({ kind: kind as 'kit', id, revision, deleted: deletedAt !== null })
  }
}
