let stamps = 0
/** When something is done, among all that is done in this page, wherever: a number that grows. */
export const nextStamp = (): number => ++stamps
export const stampsNow = (): number => stamps
/** What is done from now on comes after what was done before a reload. */
export const stampsAfter = (before: number): void => void (stamps = Math.max(stamps, before))

/** A run of edits and what undoes it: one gesture, one step. */
export interface Step<Edit> {
  readonly edits: Edit[]
  readonly inverses: Edit[]
  /** When it was done first, and when it was taken back. */
  readonly at: number
  readonly undoneAt?: number
}

export interface History<Edit> {
  readonly past: Step<Edit>[]
  readonly future: Step<Edit>[]
}

export const emptyHistory = { past: [], future: [] }
const LONGEST = 500

export function remember<Edit>(history: History<Edit>, { edits, inverses }: Omit<Step<Edit>, 'at'>): History<Edit> {
  return { past: [...history.past.slice(1 - LONGEST), { edits, inverses, at: nextStamp() }], future: [] }
}

/** Takes the last step back: what to apply now, and the history after it. */
export function stepBack<Edit>({ past, future }: History<Edit>): { edits: Edit[]; history: History<Edit> } | undefined {
  const step = past[past.length - 1]
  return step && { edits: step.inverses, history: { past: past.slice(0, -1), future: [{ ...step, undoneAt: nextStamp() }, ...future] } }
}

export function stepForward<Edit>({ past, future }: History<Edit>): { edits: Edit[]; history: History<Edit> } | undefined {
  const step = future[0]
  return step && { edits: step.edits, history: { past: [...past, step], future: future.slice(1) } }
}

/** Something with steps, as far as their order goes. */
export interface Ordered {
  readonly past: readonly { readonly at: number }[]
  readonly future: readonly { readonly undoneAt?: number }[]
}

/**
 * Whose step is taken back next, and whose is done again: of several histories as if they were one. What was taken back can be
 * done again until something new is done, in whichever.
 */
export function nextOf<Of>(histories: readonly (readonly [of: Of, history: Ordered])[]): { readonly undo?: Of; readonly redo?: Of } {
  let done: { of: Of; at: number } | undefined
  let undone: { of: Of; at: number } | undefined
  for (const [of, { past, future }] of histories) {
    const last = past[past.length - 1]
    const back = future[0]?.undoneAt
    if (last && last.at > (done?.at ?? -1)) done = { of, at: last.at }
    if (back !== undefined && back > (undone?.at ?? -1)) undone = { of, at: back }
  }
  return { undo: done?.of, redo: undone && undone.at > (done?.at ?? -1) ? undone.of : undefined }
}
