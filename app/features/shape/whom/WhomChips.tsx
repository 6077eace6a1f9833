import type { Kit, Pad } from '@heliaster/core/kit'

import { Chips } from '../../../ui/controls/Chips'
import { useSession } from '../../../kit-view/session'
import { padName } from '../../../kit-view/use-kit'
import type { Whom } from './target'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly whom: Whom
  readonly onWhom: (whom: Whom) => void
}

const valueOfWhom = (whom: Whom) => (whom.kind === 'pad' ? 'pad' : whom.kind === 'ray' ? whom.rayId : whom.turnId)

/** Whom edits touch, beside what they change: this pad, one of its rays, or the turn that sounded last; the first before any did. */
export function WhomChips({ kit, pad, whom, onWhom }: Props) {
  const lit = useSession((state) => state.lit[pad.id])
  const heard = (lit && pad.bands[lit.band]?.turns[lit.turn]) ?? pad.bands.find(({ turns }) => turns.length > 0)?.turns[0]
  const chosenTurn = whom.kind === 'turn' ? placeOf(pad, whom.turnId) : undefined
  const turn = chosenTurn ?? (heard && placeOf(pad, heard.id))
  const turnCount = pad.bands.reduce((sum, band) => sum + band.turns.length, 0)
  const options = [
    { value: 'pad', text: `All of ${padName(kit, pad)}`, whom: { kind: 'pad' } as Whom },
    ...(pad.rays.length > 1 ? pad.rays.map(({ id, name }) => ({ value: id as string, text: `Ray ${name}`, whom: { kind: 'ray', rayId: id } as Whom })) : []),
    ...(turn && turnCount > 1
      ? [{ value: turn.id as string, text: turn.words, whom: { kind: 'turn', turnId: turn.id } as Whom }]
      : []),
  ] // prettier-ignore
  if (options.length < 2) return null
  return (
    <Chips
      label="Whom it touches"
      hideLabel
      isOneLine
      options={options}
      value={valueOfWhom(whom)}
      onChoose={(value) => onWhom(options.find((one) => one.value === value)!.whom)}
    />
  )
}

/** Where a turn is on its pad, in words. */
function placeOf(pad: Pad, turnId: string) {
  for (const [band, { turns }] of pad.bands.entries()) {
    const place = turns.findIndex(({ id }) => id === turnId)
    if (place >= 0) return { id: turns[place]!.id, words: `Band ${band + 1}, turn ${place + 1} alone` }
  }
  return undefined
}
