import { Stack } from 'expo-router'

import { AppFrame } from '../shell'

export default function RootLayout() {
  return (
    <AppFrame>
      <Stack screenOptions={{ headerShown: false, animation: 'none', contentStyle: { backgroundColor: 'transparent' } }} />
    </AppFrame>
  )
}
