// Our Button, Sheet and Row, which render the elements: what matters less stands behind one button, each with its words.
import { useState } from 'react'
import { Pressable, View } from 'react-native'

import { Button } from '../controls/Button'
import { Icon } from '../drawing/Icon'
import type { IconName } from '../drawing/Icon'
import { TOUCH, usePalette } from '../theme/theme'
import { Row } from './Row'
import { Sheet } from './Sheet'
import { Text } from './Text'

export interface Act {
  readonly label: string
  readonly icon: IconName
  readonly onPress: () => void
  readonly disabled?: boolean
  /** Of something that is on or off: the sheet stays, so that one sees it change. */
  readonly on?: boolean
}

interface Props {
  /** What all of it is about: the title of the sheet. */
  readonly title: string
  readonly acts: readonly Act[]
  readonly kind?: 'plain' | 'quiet'
}

/** All that can be done besides, in words. */
export function More({ title, acts, kind }: Props) {
  const [isOpen, setOpen] = useState(false)
  const press = (act: Act) => {
    if (act.on === undefined) setOpen(false)
    act.onPress()
  }
  return (
    <>
      <Button label="More" kind={kind} onPress={() => setOpen(true)} />
      <Sheet title={title} isOpen={isOpen} onClose={() => setOpen(false)}>
        <View role="list" style={{ marginVertical: -8 }}>
          {acts.map((act, i) => (
            <Row key={act.label} hasLine={i > 0}>
              <ActLine act={act} onPress={() => press(act)} />
            </Row>
          ))}
        </View>
      </Sheet>
    </>
  )
}

function ActLine({ act: { label, icon, on, disabled }, onPress }: { readonly act: Act; readonly onPress: () => void }) {
  const palette = usePalette()
  return (
    <Pressable
      role={on === undefined ? 'button' : 'switch'}
      aria-label={label}
      aria-checked={on}
      aria-disabled={disabled}
      disabled={disabled}
      onPress={onPress}
      style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: 14, minHeight: TOUCH + 6, opacity: disabled ? 0.4 : 1 }}
    >
      <Icon name={icon} size={22} color={palette.ink} />
      <Text style={{ flex: 1 }}>{label}</Text>
      {on !== undefined && (
        <Text look="small" tone={on ? 'kelp' : 'muted'}>
          {on ? 'On' : 'Off'}
        </Text>
      )}
    </Pressable>
  )
}
