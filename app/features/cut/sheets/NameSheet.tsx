import { familyWords } from '@heliaster/core/kit'
import { renamed, renameWords } from '@heliaster/core/place'
import type { LiveMarker } from '@heliaster/core/cut'
import { useMemo, useRef, useState } from 'react'
import { TextInput, View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { NamePreview } from '../../../kit-view/NamePreview'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { fonts, TOUCH, usePalette } from '../../../ui/theme/theme'
import { WordField } from '../../../ui/controls/WordField'
import type { CutHit } from '../bench/use-source-cut'

interface Props {
  /** The hits in the order of the list, without those that were passed. */
  readonly hits: readonly CutHit[]
  readonly sourceName: string
  readonly onNames: (names: readonly { readonly marker: LiveMarker; readonly name: string }[]) => void
  readonly onHear: (item: CutHit) => void
  readonly onClose: () => void
}

const WAYS = [
  { value: 'family', text: 'By family' },
  { value: 'pattern', text: 'By a pattern' },
  { value: 'typing', text: 'One after another' },
] as const

/** Names for all hits of the list: by what they are, by a pattern, or typed one after another while each is heard. */
export function NameSheet({ hits, sourceName, onNames, onHear, onClose }: Props) {
  const [way, setWay] = useState<(typeof WAYS)[number]['value']>('family')
  const [pattern, setPattern] = useState(`${sourceName.slice(0, 40)} {nn}`)
  const names = useMemo(() => (way === 'pattern' ? byPattern(hits, pattern) : byFamily(hits)), [hits, way, pattern])
  const give = () => {
    onNames(hits.map(({ marker }, i) => ({ marker, name: names[i] })))
    onClose()
  }
  return (
    <Sheet
      title={`Name ${hits.length} ${hits.length === 1 ? 'hit' : 'hits'}`}
      isOpen
      onClose={onClose}
      actions={
        way === 'typing' ? (
          <Button label="Done" onPress={onClose} />
        ) : (
          <Button label={`Give ${hits.length === 1 ? 'this name' : `these ${hits.length} names`}`} kind="main" onPress={give} />
        )
      }
    >
      <Chips label="How" hideLabel options={WAYS} value={way} onChoose={setWay} />
      {way === 'pattern' && (
        <>
          <WordField label="Pattern" value={pattern} onChange={setPattern} />
          <Text
            look="small"
            tone="muted"
          >{`Words in braces are filled in: ${renameWords.filter((word) => word !== '{tag}').join(' ')}`}</Text>
        </>
      )}
      {way === 'typing' ? (
        <Typing hits={hits} onName={(marker, name) => onNames([{ marker, name }])} onHear={onHear} onDone={onClose} />
      ) : (
        <NamePreview names={hits.map(({ marker }, i) => ({ id: marker.id, before: marker.name ?? `Hit ${i + 1}`, after: names[i] }))} />
      )}
    </Sheet>
  )
}

interface TypingProps {
  readonly hits: readonly CutHit[]
  readonly onName: (marker: LiveMarker, name: string) => void
  readonly onHear: (item: CutHit) => void
  readonly onDone: () => void
}

/** Each hit is heard, its name typed, and Enter goes to the next. */
function Typing({ hits, onName, onHear, onDone }: TypingProps) {
  const palette = usePalette()
  const [at, setAt] = useState(0)
  const [text, setText] = useState(hits[0]?.marker.name ?? '')
  const input = useRef<TextInput>(null)
  const item = hits[at]
  const go = (to: number) => {
    if (text.trim() && text.trim() !== item.marker.name) onName(item.marker, text.trim())
    if (to >= hits.length) return onDone()
    const next = Math.max(0, to)
    setAt(next)
    setText(hits[next].marker.name ?? '')
    onHear(hits[next])
    input.current?.focus()
  }
  if (!item) return null
  return (
    <View style={{ gap: 10 }}>
      <Text look="label" tone="muted">{`Hit ${at + 1} of ${hits.length}`}</Text>
      <TextInput
        ref={input}
        value={text}
        onChangeText={setText}
        onSubmitEditing={() => go(at + 1)}
        submitBehavior="submit"
        autoFocus
        onFocus={() => at === 0 && onHear(item)}
        aria-label={`Name of hit ${at + 1}`}
        placeholder="Type a name, then Enter"
        placeholderTextColor={palette.muted}
        style={{
          minHeight: TOUCH,
          borderBottomWidth: 1,
          borderColor: palette.kelp,
          color: palette.ink,
          fontFamily: fonts.text,
          fontSize: 18,
        }}
      />
      <View style={{ flexDirection: 'row', gap: 8, flexWrap: 'wrap' }}>
        <Button label="Before" disabled={at === 0} onPress={() => go(at - 1)} />
        <Button label="Hear it" icon="play-outline" onPress={() => onHear(item)} />
        <Button label={at + 1 === hits.length ? 'Name it and finish' : 'Name it, next'} kind="main" onPress={() => go(at + 1)} />
      </View>
    </View>
  )
}

/** Each family counts for itself: Hat 1, Hat 2, Tom 1. */
export function byFamily(hits: readonly CutHit[]): string[] {
  const counts = new Map<string, number>()
  return hits.map(({ hit }) => {
    const family = hit?.family ?? 'other'
    const count = (counts.get(family) ?? 0) + 1
    counts.set(family, count)
    const words = familyWords(family)
    return `${words[0].toUpperCase()}${words.slice(1)} ${count}`
  })
}

function byPattern(hits: readonly CutHit[], pattern: string): string[] {
  const parts = hits.map(({ marker, hit }, i) => ({
    name: marker.name ?? `Hit ${i + 1}`,
    family: familyWords(hit?.family ?? 'other'),
    tag: '',
  }))
  return renamed(parts, { pattern, find: '', replace: '', firstNumber: 1 })
}
