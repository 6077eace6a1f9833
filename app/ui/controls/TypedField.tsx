// Our own: the elements' Input brings a label and a line of its own height; this one stands in the middle of others.
import { useEffect, useState } from 'react'
import { TextInput, View } from 'react-native'

import { fonts, TOUCH, usePalette } from '../theme/theme'

interface Props {
  readonly label: string
  readonly text: string
  readonly width?: number
  readonly inputMode?: 'decimal' | 'text'
  /** What was typed could not be taken. */
  readonly isWrong?: boolean
  /** Told when it is left or Enter is pressed after something was typed. */
  readonly onText: (typed: string) => void
}

/** A few letters or figures, typed where they stand. */
export function TypedField({ label, text, width = 64, inputMode = 'text', isWrong = false, onText }: Props) {
  const palette = usePalette()
  const [draft, setDraft] = useState<string>()
  useEffect(() => setDraft(undefined), [text])
  const take = () => {
    if (draft !== undefined) onText(draft)
    setDraft(undefined)
  }
  return (
    <View>
      <TextInput
        aria-label={label}
        aria-invalid={isWrong}
        value={draft ?? text}
        onChangeText={setDraft}
        onBlur={take}
        onSubmitEditing={take}
        selectTextOnFocus
        autoCapitalize="none"
        inputMode={inputMode}
        style={{
          fontFamily: fonts.figures,
          fontSize: 14,
          color: isWrong ? palette.coral : palette.ink,
          textAlign: 'right',
          width,
          minWidth: TOUCH,
          minHeight: TOUCH,
        }}
      />
      <View
        style={{ position: 'absolute', left: 0, right: 0, bottom: 9, height: 1, backgroundColor: palette.faint, pointerEvents: 'none' }}
      />
    </View>
  )
}
