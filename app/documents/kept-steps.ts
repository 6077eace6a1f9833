import { z } from 'zod'

import { stampsNow, stampsAfter } from './history'
import type { History } from './history'
import type { LibraryHistory } from './library'

/** The most that a browser is asked to keep of one tab, characters; older steps go first. */
const MOST_CHARACTERS = 2_000_000
const KEY = 'heliaster-steps'

const editsSchema = z.array(z.looseObject({ type: z.string() }))
const whenSchema = { at: z.number(), undoneAt: z.number().optional() }
const changesSchema = z.array(z.object({ id: z.string(), edits: editsSchema }))
const stepSchema = z.object({ ...whenSchema, edits: editsSchema, inverses: editsSchema })
const libraryStepSchema = z.union([
  z.object({ ...whenSchema, kind: z.literal('changed'), sounds: changesSchema, kits: changesSchema }),
  z.object({ ...whenSchema, kind: z.literal('deleted'), ids: z.array(z.string()) }),
])
const historySchema = <T extends z.ZodType>(step: T) => z.object({ past: z.array(step), future: z.array(step) })
const keptSchema = z.object({
  /** The forms that edits are for: steps of another one are forgotten. */
  forms: z.string(),
  stamps: z.number(),
  library: historySchema(libraryStepSchema),
  documents: z.record(z.string(), historySchema(stepSchema)),
})
type Kept = z.infer<typeof keptSchema>

interface AnyHistory {
  readonly past: readonly { readonly at: number }[]
  readonly future: readonly { readonly at: number; readonly undoneAt?: number }[]
}

/** What can be taken back and done again in this tab, of every document by its key and of the list of sounds. */
export interface Steps {
  readonly library: LibraryHistory
  readonly documents: Readonly<Record<string, History<unknown>>>
}

/** Steps outlive a reload of their page: they are kept for the tab when the page goes, and taken up when it comes again. */
export class StepKeeper {
  private readonly kept: Kept | undefined
  private readonly left: Map<string, History<unknown>>

  /** `forms` names the versions of all documents. */
  constructor(
    private readonly disk: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'> | undefined,
    private readonly forms: string,
  ) {
    // prettier-ignore
    this.kept = this.read()
    this.left = new Map(Object.entries(this.kept?.documents ?? {}) as [string, History<unknown>][])
    if (this.kept) stampsAfter(this.kept.stamps)
  }

  /** The steps of the list of sounds, as they were kept. */
  library(): LibraryHistory {
    return (this.kept?.library as LibraryHistory | undefined) ?? { past: [], future: [] }
  }

  /** The steps of one document, given out once: from then on they are its own. */
  take(key: string): History<unknown> | undefined {
    const history = this.left.get(key)
    this.left.delete(key)
    return history
  }

  /** Keeps what there is, and what no document has taken up yet; the newest of it where it is too much. */
  keep({ library, documents }: Steps): void {
    const all = { ...Object.fromEntries(this.left), ...documents }
    for (let share = 1; share > 0.01; share /= 2) {
      const text = JSON.stringify({ forms: this.forms, stamps: stampsNow(), ...newestOf({ library, documents: all }, share) })
      if (text.length <= MOST_CHARACTERS && this.write(text)) return
    }
    this.disk?.removeItem(KEY)
  }

  private write(text: string): boolean {
    try {
      this.disk?.setItem(KEY, text)
      return true
    } catch {
      return false // less may find room
    }
  }

  private read(): Kept | undefined {
    try {
      const text = this.disk?.getItem(KEY)
      const parsed = text ? keptSchema.safeParse(JSON.parse(text)) : undefined
      return parsed?.success && parsed.data.forms === this.forms ? parsed.data : undefined
    } catch {
      return undefined
    }
  }
}

/** That share of all steps that was done or taken back last. What is left of each history is without gaps. */
function newestOf({ library, documents }: Steps, share: number): Steps {
  const moments = [library, ...Object.values(documents)].flatMap(({ past, future }: AnyHistory) => [
    ...past.map(({ at }) => at),
    ...future.map(({ at, undoneAt }) => undoneAt ?? at),
  ])
  const since = moments.sort((a, b) => b - a)[Math.ceil(moments.length * share) - 1] ?? 0
  const cut = <T extends AnyHistory>({ past, future }: T): T =>
    ({ past: past.filter(({ at }) => at >= since), future: future.filter(({ at, undoneAt }) => (undoneAt ?? at) >= since) }) as unknown as T
  const kept = Object.entries(documents).map(([key, history]) => [key, cut(history)] as const)
  return { library: cut(library), documents: Object.fromEntries(kept.filter(([, { past, future }]) => past.length + future.length > 0)) }
}
