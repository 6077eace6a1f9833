// Renders the elements' Text.
import ElementsText from '@rneui/themed/dist/Text'
import type { ReactNode } from 'react'
import type { TextProps, TextStyle } from 'react-native'

import { fonts, usePalette } from '../theme/theme'

const looks = {
  title: { fontFamily: fonts.title, fontSize: 26, lineHeight: 30, letterSpacing: -0.4 },
  heading: { fontFamily: fonts.strong, fontSize: 18, lineHeight: 24 },
  body: { fontFamily: fonts.text, fontSize: 16, lineHeight: 22 },
  strong: { fontFamily: fonts.strong, fontSize: 16, lineHeight: 22 },
  small: { fontFamily: fonts.text, fontSize: 14, lineHeight: 19 },
  label: { fontFamily: fonts.strong, fontSize: 13, lineHeight: 17 },
  figures: { fontFamily: fonts.figures, fontSize: 13, lineHeight: 17, fontVariant: ['tabular-nums'] },
} satisfies Record<string, TextStyle>

interface Props extends TextProps {
  readonly look?: keyof typeof looks
  readonly tone?: 'ink' | 'muted' | 'kelp' | 'coral' | 'waterInk' | 'onKelp' | 'onCoral'
  readonly children?: ReactNode
}

/** All words on screen: a look for their rank and a tone for their meaning. */
export function Text({ look = 'body', tone = 'ink', style, children, ...rest }: Props) {
  const palette = usePalette()
  return (
    <ElementsText
      {...rest}
      {...(look === 'title' ? { role: 'heading', 'aria-level': 1 } : {})}
      style={[looks[look], { color: palette[tone] }, style] as TextStyle[]}
    >
      {children}
    </ElementsText>
  )
}
