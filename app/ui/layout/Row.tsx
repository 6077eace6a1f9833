// Renders the elements' ListItem.
import { ListItemBase } from '@rneui/base/dist/ListItem/ListItem'
import type { ReactNode } from 'react'

import { TOUCH, usePalette } from '../theme/theme'

interface Props {
  readonly children: ReactNode
  /** A line above it. */
  readonly hasLine?: boolean
}

/** One line of a short list. Long lists draw thousands of rows and have rows of their own. */
export function Row({ children, hasLine = true }: Props) {
  const palette = usePalette()
  return (
    <ListItemBase
      {...{ role: 'listitem' }}
      pad={0}
      containerStyle={{
        padding: 0,
        minHeight: TOUCH,
        backgroundColor: 'transparent',
        borderColor: palette.line,
        borderTopWidth: hasLine ? 1 : 0,
      }}
    >
      {children}
    </ListItemBase>
  )
}
