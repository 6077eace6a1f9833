import { clipOfCell } from '@heliaster/core/kit'
import type { Clip, Kit, KitEdit, Pad, RayId, TurnId } from '@heliaster/core/kit'

import { decodedAudio } from '../../../audio/files/audio-files'
import { hearSeam } from '../../../kit-view/loop/hear-seam'
import { LoopControls } from '../../../kit-view/loop/LoopControls'
import { useSession } from '../../../kit-view/session'
import { Part } from '../../../ui/layout/Part'
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
}

/** The clip that is meant: of the turn that is shaped or that sounded last, and of the ray that is shaped. */
function placeOf(pad: Pad, { whom }: ShapeTarget, heard: { band: number; turn: number } | undefined): Place | undefined {
  const cells = pad.bands.flatMap(({ turns }, band) => turns.map(({ id }, turn) => ({ id, band, turn })))
  const isMeant = ({ id, band, turn }: (typeof cells)[number]) =>
    whom.kind === 'turn' ? id === whom.turnId : band === heard?.band && turn === heard.turn
  const cell = cells.find(isMeant) ?? cells[0]
  if (!cell) return undefined
  for (const ray of pad.rays) {
    if ((whom.kind === 'ray' && ray.id !== whom.rayId) || (ray.source.kind === 'clips' && ray.source.bands)) continue
    const clip = clipOfCell(pad.bands, cell.band, cell.turn, ray)
    if (clip) return { clip, turnId: cell.id, rayId: ray.id }
  }
  return undefined
}

/** The stretch of the clip that was heard last which goes round, drawn on its wave. */
export function LoopPart({ kit, pad, target, onEdits, onDone }: Props) {
  const heard = useSession((state) => state.lit[pad.id])
  const place = placeOf(pad, target, heard)
  if (!place) return null
  const { clip, turnId, rayId } = place
  const sampleRateHz = kit.audio[clip.audio]?.sampleRateHz ?? 48000
  const { level } = target.settings.envelopes
  return (
    <Part name="Goes round">
      <LoopControls
        clip={clip}
        isAlone={false}
        sampleRateHz={sampleRateHz}
        mode={target.settings.mode}
        fallsSilent={(level.points[level.points.length - 1]?.value ?? 1) <= 0}
        audioOf={async () => (await decodedAudio(clip.audio)).audio}
        onHearSeam={() => hearSeam(pad, clip, sampleRateHz)}
        onSlide={(loop) => onEdits([{ type: 'setClip', padId: pad.id, turnId, rayId, clip: withLoop(clip, loop) }])}
        onDone={onDone}
      />
    </Part>
  )
}

function withLoop({ loop: _before, ...clip }: Clip, loop: Clip['loop']): Clip {
  return loop ? { ...clip, loop } : clip
}
