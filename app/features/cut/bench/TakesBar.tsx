import type { LiveMarker } from '@heliaster/core/cut'
import { memo } from 'react'
import { View } from 'react-native'

import { Button } from '../../../ui/controls/Button'
import { Text } from '../../../ui/layout/Text'
import { usePalette } from '../../../ui/theme/theme'
import type { CutHit } from './use-source-cut'

interface Props {
  readonly hits: readonly CutHit[]
  readonly onRemovePassed: (markers: readonly LiveMarker[]) => void
  readonly onPassRest: (markers: readonly LiveMarker[]) => void
}

/** Once takes are judged: all that are passed leave in one step, and all that were not chosen are passed in one. */
export const TakesBar = memo(function TakesBar({ hits, onRemovePassed, onPassRest }: Props) {
  const palette = usePalette()
  const of = (verdict: LiveMarker['verdict']) => hits.flatMap(({ marker }) => (marker.verdict === verdict ? [marker] : []))
  const [kept, passed, open] = [of('keep'), of('pass'), of(undefined)]
  if (passed.length === 0 && kept.length === 0) return null
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 8,
        paddingHorizontal: 16,
        paddingVertical: 4,
        borderTopWidth: 1,
        borderTopColor: palette.faint,
      }}
    >
      <Text look="label" tone="muted" style={{ flex: 1 }} role="status">
        {[
          kept.length > 0 && `${kept.length} kept`,
          passed.length > 0 && `${passed.length} passed`,
          open.length > 0 && `${open.length} open`,
        ]
          .filter(Boolean)
          .join(', ')}
      </Text>
      {kept.length > 0 && open.length > 0 && <Button label="Pass the rest" onPress={() => onPassRest(open)} />}
      {passed.length > 0 && (
        <Button
          label={passed.length === 1 ? 'Remove the passed one' : `Remove ${passed.length} passed`}
          onPress={() => onRemovePassed(passed)}
        />
      )}
    </View>
  )
})
