import { padById } from '@heliaster/core/kit'
import type { Clip, Kit } from '@heliaster/core/kit'

import { padName } from '../../../kit-view/use-kit'
import { Chips } from '../../../ui/controls/Chips'
import { Text } from '../../../ui/layout/Text'
import type { FieldProps } from './BeadPanel'
import { Field } from './Field'

interface Choice {
  readonly value: string
  readonly text: string
  readonly group: string
  readonly clip: Clip
}

/** One clip for each turn of all other pads of the kit, by pads. */
function clipsOf(kit: Kit, but: string | undefined): Choice[] {
  return kit.pads
    .filter(({ id }) => id !== but)
    .flatMap((pad) => {
      const clips = pad.bands.flatMap(({ turns }) => turns.flatMap(({ clips: held }) => Object.values(held).filter((clip): clip is Clip => typeof clip === 'object').slice(0, 1))) // prettier-ignore
      return clips.map((clip, i) => ({ value: nameOfClip(clip), text: String(i + 1), group: padName(kit, pad), clip }))
    })
}

const nameOfClip = (clip: Clip) => `${clip.audio} ${clip.startFrame} ${clip.endFrame}`

/** A clip of another pad in place of what its own pad would pick, with this pad's shape. */
export function ClipField({ hands, beads }: FieldProps) {
  const { clip } = beads.find(({ bead }) => bead.clip)?.bead ?? {}
  const own = padById(hands.kit, beads[0]!.string.padId)
  const choices = clipsOf(hands.kit, own?.id)
  const choose = (value: string) => hands.fields({ clip: choices.find((one) => one.value === value)?.clip })
  return (
    <Field clears="Its pad's own clips" onClear={() => hands.fields({ clip: undefined })}>
      {choices.length === 0 ? (
        <Text look="small" tone="muted">
          No other pad has a clip yet.
        </Text>
      ) : (
        <Chips label="Another clip" options={choices} value={clip && nameOfClip(clip)} onChoose={choose} />
      )}
    </Field>
  )
}
