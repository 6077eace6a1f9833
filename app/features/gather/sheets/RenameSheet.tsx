import type { Source } from '@heliaster/core/kit'
import { renamed, renameWords } from '@heliaster/core/place'
import { useMemo, useState } from 'react'
import { Pressable, View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { NumberField } from '../../../ui/controls/Slider'
import { NamePreview } from '../../../kit-view/NamePreview'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../ui/theme/theme'
import { WordField } from '../../../ui/controls/WordField'
import { setSounds } from '../list/sound-actions'

/** Many names by one pattern, seen before anything is changed. */
export function RenameSheet({ sounds, onClose }: { readonly sounds: readonly Source[]; readonly onClose: () => void }) {
  const palette = usePalette()
  const [pattern, setPattern] = useState(sounds.length > 1 ? '{name} {nn}' : '{name}')
  const [find, setFind] = useState('')
  const [replace, setReplace] = useState('')
  const [firstNumber, setFirstNumber] = useState(1)
  const names = useMemo(
    () =>
      renamed(
        sounds.map(({ name, family, tags }) => ({ name, family, tag: tags.find((tag) => tag !== 'boatyard') ?? tags[0] ?? '' })),
        { pattern, find, replace, firstNumber },
      ),
    [sounds, pattern, find, replace, firstNumber],
  )
  const changed = names.filter((name, i) => name !== sounds[i].name).length
  const twice = useMemo(() => names.filter((name) => names.indexOf(name) !== names.lastIndexOf(name)).length, [names])
  return (
    <Sheet
      title={`Rename ${sounds.length} ${sounds.length === 1 ? 'sound' : 'sounds'}`}
      isOpen
      onClose={onClose}
      actions={
        <Button
          label={changed === 1 ? 'Rename 1 sound' : `Rename ${changed} sounds`}
          kind="main"
          disabled={changed === 0}
          onPress={() => {
            setSounds(sounds, (_, i) => ({ name: names[i] }))
            onClose()
          }}
        />
      }
    >
      <View style={{ gap: 8 }}>
        <WordField label="Pattern" value={pattern} onChange={setPattern} />
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
          {renameWords.map((word) => (
            <Pressable
              key={word}
              role="button"
              aria-label={`Add ${word} to the pattern`}
              onPress={() => setPattern(`${pattern}${word}`)}
              style={{
                minHeight: TOUCH,
                justifyContent: 'center',
                paddingHorizontal: 10,
                borderRadius: 6,
                borderWidth: 1,
                borderColor: palette.line,
              }}
            >
              <Text look="figures">{word}</Text>
            </Pressable>
          ))}
        </View>
      </View>
      <View style={{ flexDirection: 'row', gap: 14 }}>
        <View style={{ flex: 1 }}>
          <WordField label="In the old name, replace" value={find} onChange={setFind} />
        </View>
        <View style={{ flex: 1 }}>
          <WordField label="with" value={replace} onChange={setReplace} />
        </View>
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
        <Text look="label" tone="muted">
          First number
        </Text>
        <NumberField
          label="First number"
          text={String(firstNumber)}
          unit=""
          onNumber={(n) => setFirstNumber(Math.max(0, Math.min(99999, Math.round(n))))}
        />
      </View>
      {twice > 0 && <Text look="small" tone="coral">{`${twice} of the new names occur more than once.`}</Text>}
      <NamePreview names={sounds.map(({ id, name }, i) => ({ id, before: name, after: names[i] }))} />
    </Sheet>
  )
}
