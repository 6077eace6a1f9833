// Our own: the elements' icons come as fonts of a whole set.
import Svg, { Path } from 'react-native-svg'

import paths from './icon-paths.json'

/** Signs of the Material Design set, each a path of its own; `node tools/build-icons.mjs NAME` adds one. */
export type IconName = keyof typeof paths

interface Props {
  readonly name: IconName
  readonly size: number
  readonly color: string
}

/** A sign of `size` px. It says nothing to a screen reader: what it stands on has words. */
export function Icon({ name, size, color }: Props) {
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden>
      <Path d={paths[name]} fill={color} />
    </Svg>
  )
}
