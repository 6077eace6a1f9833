import type { KitEdit, Pad, PadSettings, RayId, Response } from '@heliaster/core/kit'

/** Lets velocity move the start: of the whole pad, or of the ray that is shaped. */
const movesStart = (rayId: RayId | undefined) => (response: Response) =>
  response.from.kind === 'velocity' &&
  !response.bypass &&
  response.to.some(({ param, ray }) => param === 'startSeconds' && (ray === undefined || ray === rayId))

/** Where the softest strike begins, s into the clip; nothing where it begins as the hardest does. */
export function softestStart({ responses, values }: PadSettings, rayId: RayId | undefined): number | undefined {
  const moving = responses.find(movesStart(rayId))
  return moving && Math.max(0, values.startSeconds - moving.amount)
}

/** Lets the softest strike begin elsewhere, by the response that is there. */
export function softestEdits(pad: Pad, { responses, values }: PadSettings, rayId: RayId | undefined, seconds: number): KitEdit[] {
  const moving = responses.find(movesStart(rayId))
  if (!moving) return []
  const amount = Number((values.startSeconds - seconds).toFixed(5)) || 0
  return [{ type: 'setPad', padId: pad.id, own: { responses: responses.map((one) => (one === moving ? { ...one, amount } : one)) } }]
}
