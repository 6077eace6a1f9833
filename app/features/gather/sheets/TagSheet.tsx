import type { Source } from '@heliaster/core/kit'
import { useMemo, useState } from 'react'
import { Pressable, View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { TOUCH, usePalette } from '../../../ui/theme/theme'
import { WordField } from '../../../ui/controls/WordField'
import { tagsOf } from '../list/library-view'
import { setSounds } from '../list/sound-actions'
import { useSounds } from '../list/use-library'

/** Tags of many sounds: one that all have is full, one that some have is half; a tap gives it to all or takes it off. */
export function TagSheet({ sounds, onClose }: { readonly sounds: readonly Source[]; readonly onClose: () => void }) {
  const all = useSounds()
  const palette = usePalette()
  const [word, setWord] = useState('')
  const ids = useMemo(() => new Set(sounds.map((source) => source.id)), [sounds])
  const now = all.filter((source) => ids.has(source.id))
  const tags = useMemo(() => tagsOf(all), [all])
  const having = (tag: string) => now.filter((source) => source.tags.includes(tag)).length
  const give = (tag: string) => setSounds(now, ({ tags: own }) => ({ tags: own.includes(tag) ? own : [...own, tag].slice(0, 64) }))
  const take = (tag: string) => setSounds(now, ({ tags: own }) => ({ tags: own.filter((one) => one !== tag) }))
  const add = () => {
    const tag = word.trim().slice(0, 60)
    if (tag) give(tag)
    setWord('')
  }
  return (
    <Sheet title={sounds.length === 1 ? `Tags of “${sounds[0].name}”` : `Tags of ${sounds.length} sounds`} isOpen onClose={onClose}>
      <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 10 }}>
        <View style={{ flex: 1 }}>
          <WordField label="New tag" value={word} onChange={setWord} onEnter={add} />
        </View>
        <Button label="Add" onPress={add} disabled={word.trim() === ''} />
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {tags.map((tag) => {
          const count = having(tag)
          const isAll = count === now.length && count > 0
          return (
            <Pressable
              key={tag}
              role="checkbox"
              aria-checked={isAll ? true : count > 0 ? 'mixed' : false}
              aria-label={tag}
              onPress={() => (isAll ? take(tag) : give(tag))}
              style={{
                minHeight: TOUCH,
                minWidth: TOUCH,
                alignItems: 'center',
                justifyContent: 'center',
                paddingHorizontal: 12,
                borderRadius: 6,
                borderWidth: 1,
                borderColor: count > 0 ? palette.kelp : palette.line,
                borderStyle: count > 0 && !isAll ? 'dashed' : 'solid',
                backgroundColor: isAll ? palette.kelpWash : 'transparent',
              }}
            >
              <Text look="label" tone={count > 0 ? 'ink' : 'muted'}>
                {count > 0 && !isAll ? `${tag} (${count} of ${now.length})` : tag}
              </Text>
            </Pressable>
          )
        })}
      </View>
      {tags.length === 0 && (
        <Text look="small" tone="muted">
          No tags yet. A folder that is imported gives its name.
        </Text>
      )}
    </Sheet>
  )
}
