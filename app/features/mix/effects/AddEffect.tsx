import { effectKinds } from '@heliaster/core/kit'
import type { Insert } from '@heliaster/core/kit'
import { Pressable, View } from 'react-native'

import { Row } from '../../../ui/layout/Row'
import { Sheet } from '../../../ui/layout/Sheet'
import { Text } from '../../../ui/layout/Text'
import { TOUCH } from '../../../ui/theme/theme'
import { effectWords } from '../../../kit-view/buses/effect-words'
import { madeInsert } from '../../../kit-view/buses/inserts'

interface Props {
  /** Into a return, where nothing goes past it. */
  readonly isReturn: boolean
  readonly onAdd: (insert: Insert) => void
  readonly onClose: () => void
}

/** All effects, with what each is for. */
export function AddEffect({ isReturn, onAdd, onClose }: Props) {
  return (
    <Sheet title="Put an effect in" isOpen onClose={onClose}>
      <View role="list">
        {effectKinds.map((kind) => (
          <Row key={kind}>
            <Pressable
              role="button"
              aria-label={effectWords[kind].name}
              onPress={() => onAdd(madeInsert(kind, isReturn))}
              style={{ flex: 1, minHeight: TOUCH, paddingVertical: 6, justifyContent: 'center' }}
            >
              <Text look="strong">{effectWords[kind].name}</Text>
              <Text look="small" tone="muted">
                {effectWords[kind].does}
              </Text>
            </Pressable>
          </Row>
        ))}
      </View>
    </Sheet>
  )
}
