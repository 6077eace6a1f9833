import { router } from 'expo-router'
import { View } from 'react-native'
import { useStore } from 'zustand'

import { roundState, toggleRound } from '../audio/playing/round'
import { kitNow } from '../audio/engine/sound'
import { IconButton } from '../ui/controls/Button'
import { Text } from '../ui/layout/Text'
import { chooseTheme, usePalette } from '../ui/theme/theme'
import { useIsWide } from '../ui/layout/use-is-wide'
import { SaveMark } from './SaveMark'
import { session } from '../kit-view/session'
import { TideNav } from './TideNav'
import { editKit, useKit } from '../kit-view/use-kit'
import { useUndo } from '../kit-view/use-undo'

/** The kit's name and how it is saved, always; undo and redo; on a wide screen the places too. */
export function KitHeader() {
  const palette = usePalette()
  const isWide = useIsWide()
  const kit = useKit()
  const rename = (name: string) => {
    if (kit && name.trim()) editKit(kit.id, [{ type: 'setKit', fields: { name: name.trim().slice(0, 120) } }])
  }
  const isRound = useStore(roundState, (state) => state.running)
  const { undo, redo, undoWhere, redoWhere, canUndo, canRedo } = useUndo()
  return (
    <View
      role="banner"
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        height: 56,
        paddingHorizontal: 6,
        gap: 2,
        borderBottomWidth: isWide ? 1 : 0,
        borderBottomColor: palette.faint,
      }}
    >
      <IconButton name="chevron-left" label="All kits" onPress={() => router.navigate('/')} />
      <View style={{ flex: isWide ? undefined : 1, minWidth: isWide ? 220 : 0 }}>
        <SaveMark isUnderName kit={kit && { name: kit.name, onName: rename }} />
        <Text
          look="heading"
          {...(kit ? { role: 'heading' as const, 'aria-level': 1 } : {})}
          numberOfLines={1}
          style={{ position: 'absolute', top: 2, left: 0, right: 0, lineHeight: 22, pointerEvents: 'none' }}
        >
          {kit?.name ?? ' '}
        </Text>
      </View>
      {isWide && (
        <View style={{ flex: 1, alignItems: 'center' }}>
          <TideNav compact />
        </View>
      )}
      {kit && kit.pads.length > 0 && (
        <IconButton
          name={isRound ? 'stop' : 'repeat'}
          label={isRound ? 'Stop the round' : 'Hear the round: soft, middle, loud, fast, with its neighbours'}
          on={isRound}
          onPress={() => toggleRound(kitNow, () => session.getState().padId)}
        />
      )}
      <IconButton name="undo-variant" label={`Undo${undoWhere}`} onPress={undo} disabled={!canUndo} />
      <IconButton name="redo-variant" label={`Redo${redoWhere}`} onPress={redo} disabled={!canRedo} />
      {isWide && (
        <IconButton
          name={palette.name === 'day' ? 'weather-night' : 'white-balance-sunny'}
          label={palette.name === 'day' ? 'Night colours' : 'Day colours'}
          onPress={() => chooseTheme(palette.name === 'day' ? 'night' : 'day')}
        />
      )}
    </View>
  )
}
