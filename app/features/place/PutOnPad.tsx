import type { Kit, Pad, Source } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'
import type { ReactNode } from 'react'
import { Pressable, ScrollView, View } from 'react-native'

import { editKit } from '../../kit-view'
import { PadGlyph } from '../../kit-view/PadGlyph'
import { session } from '../../kit-view/session'
import { padName } from '../../kit-view/use-kit'
import { Chips } from '../../ui/controls/Chips'
import { Icon } from '../../ui/drawing/Icon'
import { notify } from '../../ui/layout/notices'
import { Text } from '../../ui/layout/Text'
import { usePalette } from '../../ui/theme/theme'
import { canStay, placeEdits, placeFiles } from './place-files'
import { useLoudness } from './use-loudness'

const HOW = [
  { value: 'replace', text: 'In place of it' },
  { value: 'turns', text: 'As a further turn' },
  { value: 'rays', text: 'As a further ray' },
] as const
type How = (typeof HOW)[number]['value']

const FACE_PX = 56

interface Props {
  readonly kit: Kit
  readonly source: Source
  /** It is on a pad now. */
  readonly onPut: () => void
}

/** One sound goes to a pad by one tap on it: into an empty one, or to what is there as is chosen. */
export function PutOnPad({ kit, source, onPut }: Props) {
  const [how, setHow] = useState<How>('replace')
  const palette = usePalette()
  const loudness = useLoudness(useMemo(() => [source], [source]))
  const put = (onto: Pad | undefined) => {
    const isEmpty = !onto || onto.bands.every(({ turns }) => turns.length === 0)
    const stays = !isEmpty && how !== 'replace'
    const placing = placeFiles(kit, [source], { way: !onto ? 'pads' : stays ? how : 'turns', onto, stays, loudness })
    const [pad] = placing.pads
    if (!pad) return
    editKit(kit.id, placeEdits(kit, [source], placing), onto?.id)
    session.setState({ padId: pad.id })
    notify(`“${source.name}” is on ${onto ? padName(kit, onto) : 'a new pad'}.`)
    onPut()
  }
  const canTake = (pad: Pad) => how === 'replace' || pad.bands.length === 0 || canStay(how, pad)
  return (
    <View style={{ gap: 8 }}>
      <Text look="label" tone="muted">
        Put it on a pad
      </Text>
      <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={{ gap: 14, alignItems: 'flex-start' }}>
        <Face label="New pad" isAsleep={kit.pads.length >= 128} onPress={() => put(undefined)}>
          <Icon name="plus" size={26} color={palette.ink} />
        </Face>
        {kit.pads.map((pad) => (
          <Face key={pad.id} label={padName(kit, pad)} isAsleep={!canTake(pad)} onPress={() => put(pad)}>
            <PadGlyph kit={kit} pad={pad} size={FACE_PX} />
          </Face>
        ))}
      </ScrollView>
      {kit.pads.length > 0 && <Chips label="On a pad with a sound" isOneLine options={HOW} value={how} onChoose={setHow} />}
    </View>
  )
}

interface FaceProps {
  readonly label: string
  readonly isAsleep: boolean
  readonly onPress: () => void
  readonly children: ReactNode
}

function Face({ label, isAsleep, onPress, children }: FaceProps) {
  const palette = usePalette()
  return (
    <Pressable
      role="button"
      aria-label={`Put it on ${label}`}
      aria-disabled={isAsleep}
      disabled={isAsleep}
      onPress={onPress}
      style={{ width: FACE_PX + 12, alignItems: 'center', gap: 4, opacity: isAsleep ? 0.35 : 1 }}
    >
      <View
        style={{
          width: FACE_PX,
          height: FACE_PX,
          alignItems: 'center',
          justifyContent: 'center',
          borderRadius: FACE_PX / 2,
          borderWidth: label === 'New pad' ? 1 : 0,
          borderColor: palette.line,
        }}
      >
        {children}
      </View>
      <Text look="label" numberOfLines={1} style={{ fontSize: 11, lineHeight: 14, maxWidth: FACE_PX + 12 }}>
        {label}
      </Text>
    </Pressable>
  )
}
