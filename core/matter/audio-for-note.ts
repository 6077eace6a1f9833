import type { AudioHash } from '../kit/ids'
import type { FormedClip } from '../kit/matter-values'

/** The audio that a strike of a note chooses among; of no note, at the root. */
export function audioForNote(clip: FormedClip, note: number | undefined, root: number | undefined): AudioHash[] {
  const forms = clip.forms ?? []
  if (forms.length === 0) return [clip.audio]
  const wanted = note ?? root ?? -1
  const far = ({ note: own = -1 }: (typeof forms)[number]) => Math.abs(own - wanted)
  const nearest = Math.min(...forms.map(far))
  return forms.filter((form) => far(form) === nearest).map((form) => form.clip.audio)
}
