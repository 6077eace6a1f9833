import { KEY_ROWS, USUAL_KEYS, withKey } from '@heliaster/core/hands'
import type { KeyDoes } from '@heliaster/core/hands'
import type { Kit } from '@heliaster/core/kit'
import { useEffect, useState } from 'react'
import { Pressable, ScrollView, View } from 'react-native'
import { useStore } from 'zustand'

import { keyName, keysState, onNextKey } from '../../../audio/playing/hands/computer-keys'
import { handSettings } from '../../../audio/playing/hands/hand-settings'
import { padName } from '../../../kit-view/use-kit'
import { Button } from '../../../ui/controls/Button'
import { Chips } from '../../../ui/controls/Chips'
import { Slider } from '../../../ui/controls/Slider'
import { Text } from '../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../ui/theme/theme'

const ROWS_OF_PADS = { rowBefore: 'row back', rowAfter: 'next row' } as const

/** What a key does, in words. */
export function doesWords(kit: Kit, does: KeyDoes | undefined, first: number): string {
  if (does === undefined) return 'nothing'
  if (typeof does === 'string') return ROWS_OF_PADS[does]
  const pad = kit.pads[does + first]
  return pad ? padName(kit, pad) : `pad ${does + first + 1}`
}

/** The same of one key, as a sentence. */
function sentenceOf(kit: Kit, name: string, does: KeyDoes | undefined, first: number): string {
  if (does === undefined) return `${name} does nothing.`
  if (typeof does === 'string') return `${name} goes ${does === 'rowAfter' ? 'to the next row' : 'a row back'} of pads.`
  const isThere = does + first < kit.pads.length
  return `${name} strikes ${doesWords(kit, does, first)}${isThere ? '' : ', which this kit has not yet'}.`
}

/** The keys of the computer, drawn, and what each of them does. */
export function KeysPart({ kit }: { readonly kit: Kit }) {
  const keys = useStore(handSettings, (state) => state.keys)
  const { first, printed } = useStore(keysState)
  const [chosen, choose] = useState<string>('KeyZ')
  const [isAsking, setAsking] = useState(false)
  useEffect(() => {
    if (!isAsking) return undefined
    return onNextKey((code) => {
      setAsking(false)
      choose(code)
    })
  }, [isAsking])
  const does = keys[chosen]
  const put = (wanted: KeyDoes | undefined) => handSettings.setState({ keys: withKey(keys, chosen, wanted) })
  const kind = does === undefined ? 'nothing' : typeof does === 'number' ? 'pad' : does
  return (
    <View style={{ gap: 16 }}>
      <Text look="small" tone="muted">
        Shift strikes hard, Alt softly. {first > 0 && `The first key strikes pad ${first + 1} now.`}
      </Text>
      <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={{ paddingBottom: 8 }}>
        <View role="radiogroup" aria-label="Keys" style={{ gap: 4 }}>
          {KEY_ROWS.map((row, i) => (
            <View key={row[0]} style={{ flexDirection: 'row', gap: 4, marginLeft: i * 14 }}>
              {row.map((code) => (
                <KeyFace
                  key={code}
                  name={keyName(code, { first, printed })}
                  does={keys[code] === undefined ? undefined : doesWords(kit, keys[code], first)}
                  isUsed={typeof keys[code] === 'string' || kit.pads[(keys[code] ?? NaN) + first] !== undefined}
                  isChosen={code === chosen}
                  onPress={() => choose(code)}
                />
              ))}
            </View>
          ))}
        </View>
      </ScrollView>
      <Text role="status">{sentenceOf(kit, keyName(chosen, { first, printed }), does, first)}</Text>
      <Chips
        label="This key"
        options={[
          { value: 'pad', text: 'Strikes a pad' },
          { value: 'rowBefore', text: 'Goes a row back' },
          { value: 'rowAfter', text: 'Goes to the next row' },
          { value: 'nothing', text: 'Does nothing' },
        ]}
        value={kind}
        onChoose={(wanted) => put(wanted === 'nothing' ? undefined : wanted === 'pad' ? freePlace(Object.values(keys)) : wanted)}
      />
      {typeof does === 'number' && (
        <Slider
          label="Pad"
          value={does + 1}
          min={1}
          max={Math.max(2, kit.pads.length, does + 1)}
          step={1}
          unit=""
          onSlide={(place) => put(place - 1)}
          onDone={() => undefined}
        />
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button label={isAsking ? 'Press a key now' : 'Choose a key by pressing it'} onPress={() => setAsking(!isAsking)} />
        <Button label="Keys as usual" disabled={keys === USUAL_KEYS} onPress={() => handSettings.setState({ keys: USUAL_KEYS })} />
      </View>
    </View>
  )
}

/** The first place that no key strikes. */
function freePlace(taken: readonly KeyDoes[]): number {
  for (let place = 0; place < 127; place++) if (!taken.includes(place)) return place
  return 127
}

interface FaceProps {
  readonly name: string
  readonly does: string | undefined
  /** Whether anything is there that it does. */
  readonly isUsed: boolean
  readonly isChosen: boolean
  readonly onPress: () => void
}

function KeyFace({ name, does, isUsed, isChosen, onPress }: FaceProps) {
  const palette = usePalette()
  return (
    <Pressable
      role="radio"
      aria-checked={isChosen}
      aria-label={`${name}: ${does ?? 'nothing'}`}
      onPress={onPress}
      style={{
        width: 58,
        height: TOUCH + 4,
        borderRadius: 6,
        borderWidth: isChosen ? 2 : 1,
        borderColor: isChosen ? palette.kelp : palette.line,
        backgroundColor: isUsed ? palette.surface : 'transparent',
        paddingHorizontal: 4,
        paddingVertical: 3,
      }}
    >
      <Text look="figures" tone={isUsed ? 'ink' : 'muted'}>
        {name}
      </Text>
      <Text look="label" tone="muted" numberOfLines={1} style={{ fontSize: 11, lineHeight: 14 }}>
        {does ?? ''}
      </Text>
    </Pressable>
  )
}
