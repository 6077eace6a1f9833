import type { Source } from '@heliaster/core/kit'
import type { ReactNode } from 'react'
import { View } from 'react-native'

import { Button, IconButton } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { useIsWide } from '../../../ui/layout/use-is-wide'
import { session } from '../../../kit-view/session'

interface Props {
  readonly source: Source
  readonly right?: string
  readonly onCut?: () => void
  readonly action?: ReactNode
}

/** The name of the recording on the bench, what is found in it, and the way back to all of them. */
export function SourceTitle({ source, right, onCut, action }: Props) {
  const isWide = useIsWide()
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        paddingRight: onCut ? 6 : 16,
        paddingLeft: isWide ? 16 : 6,
        minHeight: 44,
        paddingVertical: action ? 6 : 0,
        gap: action ? 8 : 0,
      }}
    >
      {!isWide && (
        <IconButton name="format-list-bulleted" label="All recordings" onPress={() => session.setState({ sourceId: undefined })} />
      )}
      <View style={{ flex: 1, minWidth: 0 }}>
        <Text look="strong" numberOfLines={1} style={{ lineHeight: 20 }}>
          {source.name}
        </Text>
        <Text look="label" tone="muted" numberOfLines={1} style={{ lineHeight: 16 }}>
          {right}
        </Text>
      </View>
      {onCut && <Button kind="quiet" label="How to cut" onPress={onCut} />}
      {action}
    </View>
  )
}
