import { clipOfCell } from '@heliaster/core/kit'
import type { Clip, Kit, KitEdit, Pad, RayId, TurnId } from '@heliaster/core/kit'
import { useState } from 'react'
import { View } from 'react-native'

import { decodedAudio } from '../../../audio/files/audio-files'
import { hearSeam } from '../../../kit-view/loop/hear-seam'
import { LoopControls } from '../../../kit-view/loop/LoopControls'
import { useSession } from '../../../kit-view/session'
import { Button } from '../../../ui/controls/Button'
import { Part } from '../../../ui/layout/Part'
import { Text } from '../../../ui/layout/Text'
import { TOUCH } from '../../../ui/theme/theme'
import type { ShapeTarget } from '../whom/target'

interface Props {
  readonly kit: Kit
  readonly pad: Pad
  readonly target: ShapeTarget
  readonly onEdits: (edits: KitEdit[]) => void
  readonly onDone: () => void
}

interface Place {
  readonly clip: Clip
  readonly turnId: TurnId
  readonly rayId: RayId
  readonly words: string
}

interface Heard {
  readonly band: number
  readonly turn: number
}

/** The clip that is meant: of the turn that is shaped, that is held, or that sounded last; and of the ray that is shaped. */
function placeOf(pad: Pad, { whom }: ShapeTarget, held: TurnId | undefined, heard: Heard | undefined): Place | undefined {
  const cells = pad.bands.flatMap(({ turns }, band) => turns.map(({ id }, turn) => ({ id, band, turn })))
  const meant = whom.kind === 'turn' ? whom.turnId : held
  const isMeant = ({ id, band, turn }: (typeof cells)[number]) =>
    cells.some((one) => one.id === meant) ? id === meant : band === heard?.band && turn === heard.turn
  const cell = cells.find(isMeant) ?? cells[0]
  if (!cell) return undefined
  for (const ray of pad.rays) {
    if ((whom.kind === 'ray' && ray.id !== whom.rayId) || (ray.source.kind === 'clips' && ray.source.bands)) continue
    const clip = clipOfCell(pad.bands, cell.band, cell.turn, ray)
    if (clip) return { clip, turnId: cell.id, rayId: ray.id, words: `band ${cell.band + 1}, turn ${cell.turn + 1}` }
  }
  return undefined
}

/**
 * The stretch of a clip that goes round, drawn on its wave: of the one heard last, until one is changed. That one stays, since each
 * change is heard, and the next strike may take another turn.
 */
export function LoopPart({ kit, pad, target, onEdits, onDone }: Props) {
  const heard = useSession((state) => state.lit[pad.id])
  const [held, hold] = useState<TurnId>()
  const place = placeOf(pad, target, held, heard)
  if (!place) return null
  const { clip, turnId, rayId, words } = place
  const sampleRateHz = kit.audio[clip.audio]?.sampleRateHz ?? 48000
  const { level } = target.settings.envelopes
  return (
    <Part name="Goes round">
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: TOUCH }}>
        <Text look="small" tone="muted" style={{ flex: 1 }}>
          {`The clip of ${words}`}
        </Text>
        {held && target.whom.kind !== 'turn' && <Button label="The one heard last" onPress={() => hold(undefined)} />}
      </View>
      <LoopControls
        clip={clip}
        isAlone={false}
        sampleRateHz={sampleRateHz}
        mode={target.settings.mode}
        fallsSilent={(level.points[level.points.length - 1]?.value ?? 1) <= 0}
        audioOf={async () => (await decodedAudio(clip.audio)).audio}
        onHearSeam={() => hearSeam(pad, clip, sampleRateHz)}
        onSlide={(loop) => {
          hold(turnId)
          onEdits([{ type: 'setClip', padId: pad.id, turnId, rayId, clip: withLoop(clip, loop) }])
        }}
        onDone={onDone}
      />
    </Part>
  )
}

function withLoop({ loop: _before, ...clip }: Clip, loop: Clip['loop']): Clip {
  return loop ? { ...clip, loop } : clip
}
