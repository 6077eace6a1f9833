// Our own: the elements have nothing that makes what a finger meets larger than what is seen.
import { View } from 'react-native'

import { TOUCH } from '../theme/theme'

interface Props {
  /** How large the mark that is pressed is drawn, in px. */
  readonly width: number
  readonly height: number
}

/** Inside a small mark that is pressed: the room around it that presses it too, up to 44 px each way. */
export function Reach({ width, height }: Props) {
  const beyond = (size: number) => -Math.max(0, (TOUCH - size) / 2)
  const [x, y] = [beyond(width), beyond(height)]
  return <View {...{ dataSet: { reach: '' } }} style={{ position: 'absolute', left: x, right: x, top: y, bottom: y }} />
}
