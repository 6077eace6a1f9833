import { View } from 'react-native'

import type { Practice } from '../../../audio/playing/hands/practice'
import { useNoteName } from '../../../kit-view/note-name'
import { Text } from '../../../ui/layout/Text'
import { useTouches } from '../../../ui/pointer/use-touches'
import { usePalette } from '../../../ui/theme/theme'

interface Props {
  readonly practice: Practice
  readonly firstNote: number
  readonly channel: number
  readonly sizePx: number
}

const PADS = 12
const SOFTEST = 8
const BY_KEY = 96

/** Twelve round pads, each a note: nearer to the middle is softer. */
export function PracticePads({ practice, firstNote, channel, sizePx }: Props) {
  return (
    <View role="group" aria-label="Practice pads" style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
      {Array.from({ length: PADS }, (_, i) => firstNote + i)
        .filter((note) => note <= 127)
        .map((note) => (
          <PracticePad key={note} note={note} practice={practice} channel={channel} sizePx={sizePx} />
        ))}
    </View>
  )
}

interface PadProps extends Omit<Props, 'firstNote'> {
  readonly note: number
}

function PracticePad({ note, practice, channel, sizePx }: PadProps) {
  const palette = usePalette()
  const noteName = useNoteName()
  const on = (velocity: number) => practice.tell({ type: 'noteOn', channel, note, velocity: Math.min(127, Math.round(velocity)) })
  const off = () => practice.tell({ type: 'noteOff', channel, note, velocity: 64 })
  const pad = useTouches({
    onDown: ({ x, y, width, height }) =>
      on(SOFTEST + (127 - SOFTEST) * Math.min(1, Math.hypot(x - width / 2, y - height / 2) / (width / 2))),
    onUp: off,
  })
  return (
    <View
      ref={pad}
      role="button"
      tabIndex={0}
      aria-label={`Practice pad ${noteName(note)}, note ${note}`}
      {...{
        onKeyDown: (event: { key: string; repeat: boolean; preventDefault(): void }) => {
          if (event.repeat || (event.key !== 'Enter' && event.key !== ' ')) return
          event.preventDefault()
          on(BY_KEY)
        },
        onKeyUp: (event: { key: string }) => (event.key === 'Enter' || event.key === ' ') && off(),
      }}
      style={{
        width: sizePx,
        height: sizePx,
        borderRadius: sizePx / 2,
        borderWidth: 2,
        borderColor: palette.waterInk,
        backgroundColor: palette.waterWash,
        alignItems: 'center',
        justifyContent: 'center',
      }}
    >
      <Text look="label" style={{ pointerEvents: 'none', userSelect: 'none' }}>
        {noteName(note)}
      </Text>
      <Text look="figures" tone="muted" style={{ pointerEvents: 'none', userSelect: 'none', fontSize: 11, lineHeight: 14 }}>
        {note}
      </Text>
    </View>
  )
}
