import type { Bead } from './kit'
import type { Response } from './shape'

const ON_STEP = /^[^.]+[.](\d+)(?:[.]\d+)?$/

/**
 * What was named by what it is, a bead by its pad and step, a response by its source and target, two devices make as the
 * same one: it is put in bare, and what each set on it beside that.
 */
export function bareItem(at: readonly string[], item: unknown): unknown {
  const list = at[at.length - 1]
  if (list === 'beads') {
    const bead = item as Bead
    const step = ON_STEP.exec(bead.id)
    return step ? ({ id: bead.id, step: Number(step[1]), velocity: 127 } satisfies Bead) : item
  }
  if (list !== 'responses' || at[0] !== 'pads') return item
  const { id, draw, from, to } = item as Response
  return { id, draw, from, to, amount: 0, bypass: false } satisfies Response
}
