import { createTheme } from '@rneui/themed/dist/config/ThemeProvider'
import { useSyncExternalStore } from 'react'
import { z } from 'zod'
import { createStore } from 'zustand/vanilla'

import { deviceSettings } from '../device/device-settings'

/** Low tide, by day: wet sand, ink, kelp for what one does, coral for recording and for what sounds. */
const day = {
  name: 'day' as const,
  paper: '#efe6d6',
  surface: '#f8f2e6',
  raised: '#fffaf0',
  ink: '#1b2b30',
  muted: '#536063',
  line: '#c9bda8',
  faint: '#ddd2be',
  kelp: '#23614a',
  onKelp: '#fbf7ee',
  kelpWash: '#d5e0d0',
  coral: '#b63a22',
  onCoral: '#fff6ef',
  coralWash: '#f3d3c5',
  water: '#bfd6d8',
  waterWash: '#dbe8e5',
  waterInk: '#2c6470',
  tints: { tide: '#275a86', mussel: '#5a4885', rust: '#87481c', ochre: '#6f5500', slate: '#4a5961', plum: '#86305d' },
}
/** The colours that things can be marked with. */
export type TintName = keyof typeof day.tints
type Colours = Omit<typeof day, 'name' | 'tints'>
export type Palette = { readonly [Key in keyof Colours]: string } & {
  readonly name: 'day' | 'night'
  /** Shades of the colours that pads can be marked with. */
  readonly tints: Readonly<Record<TintName, string>>
}

/** By night: deep water and foam. */
const night: Palette = {
  name: 'night',
  paper: '#0c1a21',
  surface: '#12252e',
  raised: '#19313b',
  ink: '#e6f0ea',
  muted: '#9db1b3',
  line: '#33505b',
  faint: '#213c47',
  kelp: '#7fcfa5',
  onKelp: '#0b1f18',
  kelpWash: '#1d4238',
  coral: '#ff9175',
  onCoral: '#2a0d05',
  coralWash: '#54291f',
  water: '#1d4a56',
  waterWash: '#17404b',
  waterInk: '#8fd0dc',
  tints: { tide: '#86b9e6', mussel: '#b8a5ea', rust: '#dba274', ochre: '#dfc05a', slate: '#b0c1ca', plum: '#eb9fc6' },
}

export type ThemeChoice = 'system' | 'day' | 'night'
const KEY = 'heliaster-theme'
const dark = globalThis.matchMedia?.('(prefers-color-scheme: dark)')

interface ThemeState {
  readonly choice: ThemeChoice
  readonly palette: Palette
}

function stateOf(choice: ThemeChoice): ThemeState {
  const isNight = choice === 'night' || (choice === 'system' && (dark?.matches ?? false))
  return { choice, palette: isNight ? night : day }
}

const choices = ['day', 'night', 'system'] as const
const kept = deviceSettings(
  KEY,
  z.object({ choice: z.enum(choices) }),
  { choice: 'system' as ThemeChoice },
  {
    older: (choice) => ({ choice: choice as ThemeChoice }),
  },
)

export const themeStore = createStore<ThemeState>(() => stateOf(kept.getState().choice))
dark?.addEventListener?.('change', () => themeStore.setState(stateOf(themeStore.getState().choice)))

export function chooseTheme(choice: ThemeChoice): void {
  kept.setState({ choice })
  themeStore.setState(stateOf(choice))
}

export function usePalette(): Palette {
  return useSyncExternalStore(themeStore.subscribe, () => themeStore.getState().palette)
}

export const fonts = { text: 'Bricolage_400', strong: 'Bricolage_600', title: 'Bricolage_700', figures: 'Mono_500' } as const
export const TOUCH = 44

/** The same colours for React Native Elements. */
export function elementsTheme(palette: Palette) {
  const colors = {
    primary: palette.kelp,
    secondary: palette.coral,
    background: palette.paper,
    white: palette.raised,
    black: palette.ink,
    grey0: palette.ink,
    grey1: palette.ink,
    grey2: palette.muted,
    grey3: palette.muted,
    grey4: palette.line,
    grey5: palette.faint,
    error: palette.coral,
    divider: palette.line,
  }
  return createTheme({
    mode: palette.name === 'night' ? 'dark' : 'light',
    lightColors: colors,
    darkColors: colors,
    components: {
      Button: {
        buttonStyle: { minHeight: TOUCH, borderRadius: 8, paddingHorizontal: 16 },
        titleStyle: { fontFamily: fonts.strong, fontSize: 16, color: palette.onKelp },
      },
    },
  })
}
