// Made of our Button: the elements have no button that asks first.
import { useState } from 'react'
import { View } from 'react-native'

import { Button } from './Button'
import { Text } from '../layout/Text'

interface Props {
  readonly label: string
  /** What would be lost; without it the button acts at once. */
  readonly warning?: string
  /** The button that does it all the same. */
  readonly confirm: string
  readonly onPress: () => void
}

/** A button that says before it acts what would be left out, and acts when that is meant. */
export function AskButton({ label, warning, confirm, onPress }: Props) {
  const [asks, setAsks] = useState(false)
  if (!asks || !warning) return <Button label={label} onPress={() => (warning ? setAsks(true) : onPress())} />
  return (
    <View role="alertdialog" aria-label={label} style={{ gap: 6, width: '100%' }}>
      <Text look="small" tone="coral">
        {warning}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          label={confirm}
          onPress={() => {
            setAsks(false)
            onPress()
          }}
        />
        <Button label="Leave it as it is" kind="main" onPress={() => setAsks(false)} />
      </View>
    </View>
  )
}
