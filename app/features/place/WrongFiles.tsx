import { wrongWords } from '@heliaster/core/place'
import type { WrongFile } from '@heliaster/core/place'
import { View } from 'react-native'

import { Text } from '../../ui/layout/Text'
import { Toggle } from '../../ui/controls/Toggle'

interface Props {
  readonly wrong: readonly WrongFile[]
  readonly names: readonly string[]
  readonly isRighted: boolean
  readonly onRight: (right: boolean) => void
}

const MOST_LINES = 12

/** Files that do not sound like what their names say, and one switch that puts them right. */
export function WrongFiles({ wrong, names, isRighted, onRight }: Props) {
  if (wrong.length === 0) return null
  const swaps = wrong.filter(({ kind }) => kind === 'exchanged').length
  const out = wrong.length - swaps
  // What is left out then stands among the files without a place, with the same reason.
  const told = isRighted ? wrong.filter(({ kind }) => kind === 'exchanged') : wrong
  return (
    <View style={{ gap: 6 }} role="alert">
      {told.slice(0, MOST_LINES).map((one) => (
        <Text key={one.file} look="small" tone={isRighted ? 'muted' : 'coral'}>
          {`${names[one.file]}: ${wrongWords(one, names)}`}
        </Text>
      ))}
      {told.length > MOST_LINES && <Text look="small" tone="coral">{`And ${told.length - MOST_LINES} more.`}</Text>}
      <Toggle
        label="Go by the sound"
        words={[
          swaps > 0 ? 'What was exchanged changes places.' : '',
          out > 0 ? `${out === 1 ? 'The one that belongs' : 'Those that belong'} elsewhere ${out === 1 ? 'is' : 'are'} left out.` : '',
        ]
          .filter(Boolean)
          .join(' ')}
        value={isRighted}
        onChange={onRight}
      />
    </View>
  )
}
