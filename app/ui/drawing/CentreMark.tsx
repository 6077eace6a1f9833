// Our own: small plain forms in the middle of a star.
import { Circle, G, Path } from 'react-native-svg'

/** Each is told from the others by its form alone. */
export const MARKS = {
  dot: undefined,
  disc: 'disc',
  ring: 'ring',
  square: 'M -.8 -.8 H .8 V .8 H -.8 Z',
  bars: 'M -1 -.75 H 1 V -.2 H -1 Z M -1 .2 H 1 V .75 H -1 Z',
  openBars: 'M -1 -1.1 H 1 V -.6 H -1 Z M -1 .6 H 1 V 1.1 H -1 Z',
  peak: 'M 0 -1 L 1 .8 H -1 Z',
  lowPeak: 'M 0 -.35 L 1.3 .65 H -1.3 Z',
  smallPeak: 'M 0 -.7 L .6 .45 H -.6 Z',
  pair: 'M -.8 -1 H -.22 V 1 H -.8 Z M .22 -1 H .8 V 1 H .22 Z',
  diamond: 'M 0 -1.1 L .85 0 L 0 1.1 L -.85 0 Z',
  drop: 'M 0 -1.1 Q .9 .1 .75 .45 A .78 .78 0 1 1 -.75 .45 Q -.9 .1 0 -1.1 Z',
  post: 'M -.38 -1.1 H .38 V 1.1 H -.38 Z',
  zigzag: 'M -1.1 .35 L -.55 -.75 L 0 .1 L .55 -.75 L 1.1 .35 L .55 .05 L 0 .9 L -.55 .05 Z',
} as const
export type MarkName = keyof typeof MARKS

interface Props {
  readonly name: MarkName
  readonly radius: number
  readonly colour: string
}

export function CentreMark({ name, radius, colour }: Props) {
  const path = MARKS[name]
  if (path === undefined) return <Circle r={Math.max(2, radius * 0.45)} fill={colour} />
  if (path === 'disc') return <Circle r={radius} fill={colour} />
  if (path === 'ring') return <Circle r={radius * 0.78} fill="none" stroke={colour} strokeWidth={radius * 0.44} />
  return (
    <G scale={radius}>
      <Path d={path} fill={colour} />
    </G>
  )
}
