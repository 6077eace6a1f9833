import { clipsOfPad, padSettings, responseTo } from '@heliaster/core/kit'
import type { Kit, KitEdit, OwnSettings, Pad, Response } from '@heliaster/core/kit'

import { makeId } from '../../../../documents/make-id'

/** Each of its strikes is as long as this, and comes and goes softly, s. */
const STRIKE_SECONDS = 0.14
const SOFT_SECONDS = 0.02
const EVERY_SECONDS = 0.04

/** By how much pressing harder and moving do what. */
const LOUDER_DB = 15
const CLOSER_SECONDS = -0.025
const STRAY_SECONDS = 0.02

/** What moves what of a pad that goes on, each by itself. */
type Moved = readonly [from: Response['from']['kind'], to: Parameters<typeof responseTo>[1], amount: number]

/**
 * Cloth, scraping, rolling: a pad that goes on while it is held, by short soft strikes of its clips. The wheel, or a finger from left
 * to right, is where in the clip; pressing harder is louder and closer. What answered on it before stays, but for what these move.
 */
export function goingOnEdits(kit: Kit, pad: Pad): KitEdit[] {
  const settings = padSettings(kit, pad)
  const longest = Math.max(0, ...clipsOfPad(pad).map((clip) => (clip.endFrame - clip.startFrame) / (kit.audio[clip.audio]?.sampleRateHz ?? 48000))) // prettier-ignore
  const reach = Math.round(1000 * Math.max(0, longest - STRIKE_SECONDS)) / 1000
  const moves: readonly Moved[] = [
    ['wheel', 'startSeconds', reach],
    ['chance', 'startSeconds', Math.min(STRAY_SECONDS, reach / 2)],
    ['keyPressure', 'gainDb', LOUDER_DB],
    ['keyPressure', 'rollSeconds', CLOSER_SECONDS],
  ]
  const made = moves.map(([from, to, amount]): Response => {
    const base = responseTo('velocity', to, amount)
    return { ...base, id: makeId<string>('response'), from: { kind: from } }
  })
  const isOneOf = ({ from, to }: Response) =>
    moves.some(([kind, param]) => from.kind === kind && to.some((target) => target.param === param))
  const own: OwnSettings = {
    mode: 'hold',
    maxStrikes: 16,
    values: { rollSeconds: EVERY_SECONDS },
    envelopes: {
      level: {
        points: [
          { seconds: 0, value: 0, bend: 0 },
          { seconds: SOFT_SECONDS, value: 1, bend: 0 },
          { seconds: STRIKE_SECONDS / 2, value: 1, bend: 0 },
          { seconds: STRIKE_SECONDS, value: 0, bend: 0 },
        ],
      },
    },
    responses: [...settings.responses.filter((one) => !isOneOf(one)), ...made],
  }
  return [{ type: 'setPad', padId: pad.id, own }]
}
