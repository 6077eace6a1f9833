import { Link, usePathname } from 'expo-router'
import { Pressable, View } from 'react-native'

import { Text } from '../ui/layout/Text'
import { usePalette } from '../ui/theme/theme'
import { places } from './places'
import { useKitId } from '../kit-view/use-kit'

/** The places as stones along a tide line; the water stands at the one you are in. */
export function TideNav({ compact }: { readonly compact?: boolean }) {
  const palette = usePalette()
  const kitId = useKitId()
  const here = usePathname().split('/').pop()
  const at = places.findIndex((place) => place.path === (here === 'performances' ? 'groove' : here)) // they are reached from there
  const share = at < 0 ? 0 : (at + 0.5) / places.length
  return (
    <View role="navigation" aria-label="Places" style={{ height: compact ? 44 : 58, flexDirection: 'row', width: compact ? 540 : '100%' }}>
      <View style={{ position: 'absolute', left: 0, right: 0, top: compact ? 13 : 15, height: 1, backgroundColor: palette.line }} />
      <View
        style={{
          position: 'absolute',
          left: 0,
          width: `${share * 100}%`,
          top: compact ? 12 : 14,
          height: 3,
          backgroundColor: palette.kelp,
        }}
      />
      {places.map((place, index) => {
        const isHere = index === at
        const size = isHere ? 15 : 9
        return (
          <Link key={place.path} href={`/kit/${kitId}/${place.path}`} asChild>
            <Pressable
              aria-label={place.name}
              aria-current={isHere ? 'page' : undefined}
              style={{ flex: 1, alignItems: 'center', minHeight: 44 }}
            >
              <View style={{ height: compact ? 27 : 31, justifyContent: 'center' }}>
                <View
                  style={{
                    width: size,
                    height: size,
                    borderRadius: size / 2,
                    borderWidth: isHere ? 4 : 2,
                    borderColor: index <= at ? palette.kelp : palette.muted,
                    backgroundColor: palette.paper,
                  }}
                />
              </View>
              <Text look="label" tone={isHere ? 'ink' : 'muted'} style={{ fontSize: 12, lineHeight: 15 }}>
                {place.name}
              </Text>
            </Pressable>
          </Link>
        )
      })}
    </View>
  )
}
