import type { Kit, Pad } from '@heliaster/core/kit'
import { useState } from 'react'

import { Chips } from '../../../ui/controls/Chips'
import { useSession } from '../../../kit-view/session'
import { padName } from '../../../kit-view/use-kit'
import { SeveralPads } from './SeveralPads'
import type { Whom } from './target'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly whom: Whom
  readonly onWhom: (whom: Whom) => void
}

const SEVERAL = 'several'
const valueOfWhom = (whom: Whom) =>
  whom.kind === 'pad' ? 'pad' : whom.kind === 'ray' ? whom.rayId : whom.kind === 'turn' ? whom.turnId : SEVERAL

/**
 * Whom edits touch, beside what they change: this pad, one of its rays, the turn that sounded last (the first before any did), or
 * several pads.
 */
export function WhomChips({ kit, pad, whom, onWhom }: Props) {
  const [isChoosing, setChoosing] = useState(false)
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
  const several = whom.kind === 'pads' ? whom.padIds : []
  const words = several.length > 0 ? `${padName(kit, pad)} and ${several.length - 1} more` : 'Several pads'
  if (options.length < 2 && kit.pads.length < 2) return null
  return (
    <>
      <Chips
        label="Whom it touches"
        hideLabel
        isOneLine
        options={kit.pads.length > 1 ? [...options, { value: SEVERAL, text: words }] : options}
        value={valueOfWhom(whom)}
        onChoose={(value) => {
          const chosen = options.find((one) => one.value === value)
          if (chosen) onWhom(chosen.whom)
          else setChoosing(true)
        }}
      />
      {isChoosing && (
        <SeveralPads
          kit={kit}
          pad={pad}
          chosen={several}
          onChoose={(padIds) => onWhom({ kind: 'pads', padIds })}
          onClose={() => setChoosing(false)}
        />
      )}
    </>
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
