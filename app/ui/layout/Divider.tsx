// Renders the elements' Divider.
import ElementsDivider from '@rneui/themed/dist/Divider'

import { usePalette } from '../theme/theme'

/** A thin line between one thing and the next. */
export function Divider() {
  return <ElementsDivider width={1} color={usePalette().faint} />
}
