import type { BusId, Insert, Kit, KitEdit } from '@heliaster/core/kit'
import { useState } from 'react'
import { Pressable, View } from 'react-native'

import { Button, IconButton } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import { AddEffect } from './AddEffect'
import { EffectPanel } from './EffectPanel'
import { effectWords } from '../../../kit-view/buses/effect-words'
import { MOST_INSERTS } from '../../../kit-view/buses/inserts'
import { shortWords } from './short-words'

interface Props {
  readonly kit: Kit
  /** The bus in which they stand; the master where it is not said. */
  readonly busId?: BusId
  readonly inserts: readonly Insert[]
  /** A slider moves: one step to undo until it is let go. */
  readonly onSlide: (inserts: readonly Insert[]) => void
  readonly onDone: () => void
  readonly onChange: (inserts: readonly Insert[], more?: KitEdit[]) => void
}

/** The effects of a bus in the order in which sound passes them: switched, moved, opened; up to six. */
export function InsertList({ kit, busId, inserts, onSlide, onDone, onChange }: Props) {
  const [open, setOpen] = useState<Insert['id']>()
  const [isAdding, setAdding] = useState(false)
  const palette = usePalette()
  const isReturn = kit.buses.some(({ id, isReturn: is }) => id === busId && is)
  const changed = (one: Insert, fields: Partial<Insert>) => inserts.map((insert) => (insert === one ? { ...one, ...fields } : insert))
  const moved = (place: number, by: number) => {
    const next = [...inserts]
    next.splice(place + by, 0, ...next.splice(place, 1))
    onChange(next)
  }
  return (
    <View role="group" aria-label="Effects" style={{ gap: 8 }}>
      {inserts.map((insert, place) => {
        const { name } = effectWords[insert.kind]
        const isOpen = open === insert.id
        return (
          <View key={insert.id} style={{ borderRadius: 10, backgroundColor: palette.paper, borderWidth: 1, borderColor: isOpen ? palette.kelp : palette.faint }}>
            <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
              <IconButton name="power" label={insert.bypass ? `${name} is off` : `Switch ${name} off`} tone={insert.bypass ? 'muted' : 'kelp'} on={!insert.bypass} onPress={() => onChange(changed(insert, { bypass: !insert.bypass }))} />
              <Pressable role="button" aria-label={`Settings of ${name}`} aria-expanded={isOpen} onPress={() => setOpen(isOpen ? undefined : insert.id)} style={{ flex: 1, minWidth: 0, minHeight: 44, justifyContent: 'center' }}>
                <Text look="strong" tone={insert.bypass ? 'muted' : 'ink'} numberOfLines={1}>
                  {name}
                </Text>
                <Text look="small" tone="muted" numberOfLines={1}>
                  {insert.bypass ? 'off' : shortWords(kit, insert)}
                </Text>
              </Pressable>
              {inserts.length > 1 && <IconButton name="chevron-up" label={`Move ${name} before`} disabled={place === 0} onPress={() => moved(place, -1)} />}
              {inserts.length > 1 && <IconButton name="chevron-down" label={`Move ${name} after`} disabled={place === inserts.length - 1} onPress={() => moved(place, 1)} />}
              <IconButton name="close" label={`Take ${name} out`} tone="muted" onPress={() => onChange(inserts.filter((one) => one !== insert))} />
            </View>
            {isOpen && (
              <View style={{ paddingHorizontal: 12, paddingTop: 6, paddingBottom: 12 }}>
                <EffectPanel kit={kit} busId={busId} insert={insert} onSlide={(fields) => onSlide(changed(insert, fields))} onDone={onDone} onChange={(fields, more) => onChange(changed(insert, fields), more)} />
              </View>
            )}
          </View>
        )
      })}
      <View style={{ flexDirection: 'row' }}>
        <Button label={inserts.length === 0 ? 'Put an effect in' : 'One more effect'} icon="plus" disabled={inserts.length >= MOST_INSERTS} onPress={() => setAdding(true)} />
      </View>
      {isAdding && (
        <AddEffect
          isReturn={isReturn}
          onClose={() => setAdding(false)}
          onAdd={(insert) => {
            setAdding(false)
            setOpen(insert.id)
            onChange([...inserts, insert])
          }}
        />
      )}
    </View>
  )
} // prettier-ignore
