/** A run of edits and what undoes it: one gesture, one step. */
export interface Step<Edit> {
  readonly edits: Edit[]
  readonly inverses: Edit[]
}

export interface History<Edit> {
  readonly past: Step<Edit>[]
  readonly future: Step<Edit>[]
}

export const emptyHistory = { past: [], future: [] }
const LONGEST = 500

export function remember<Edit>(history: History<Edit>, step: Step<Edit>): History<Edit> {
  return { past: [...history.past.slice(1 - LONGEST), step], future: [] }
}

/** Takes the last step back: what to apply now, and the history after it. */
export function stepBack<Edit>({ past, future }: History<Edit>): { edits: Edit[]; history: History<Edit> } | undefined {
  const step = past[past.length - 1]
  return step && { edits: step.inverses, history: { past: past.slice(0, -1), future: [step, ...future] } }
}

export function stepForward<Edit>({ past, future }: History<Edit>): { edits: Edit[]; history: History<Edit> } | undefined {
  const step = future[0]
  return step && { edits: step.edits, history: { past: [...past, step], future: future.slice(1) } }
}
