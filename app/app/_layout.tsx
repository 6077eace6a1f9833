import { BricolageGrotesque_400Regular } from '@expo-google-fonts/bricolage-grotesque/400Regular'
import { BricolageGrotesque_600SemiBold } from '@expo-google-fonts/bricolage-grotesque/600SemiBold'
import { BricolageGrotesque_700Bold } from '@expo-google-fonts/bricolage-grotesque/700Bold'
import { JetBrainsMono_500Medium } from '@expo-google-fonts/jetbrains-mono/500Medium'
import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons'
import { useFonts } from 'expo-font'
import { Stack } from 'expo-router'

import { AppFrame } from '../shell'

export default function RootLayout() {
  const [loaded] = useFonts({
    Bricolage_400: BricolageGrotesque_400Regular,
    Bricolage_600: BricolageGrotesque_600SemiBold,
    Bricolage_700: BricolageGrotesque_700Bold,
    Mono_500: JetBrainsMono_500Medium,
    ...MaterialCommunityIcons.font,
  })
  if (!loaded) return null
  return (
    <AppFrame>
      <Stack screenOptions={{ headerShown: false, animation: 'none', contentStyle: { backgroundColor: 'transparent' } }} />
    </AppFrame>
  )
}
