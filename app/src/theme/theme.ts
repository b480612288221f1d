import { createContext, useContext } from 'react';
import { useColorScheme } from 'react-native';
import { MD3DarkTheme, MD3LightTheme } from 'react-native-paper';
import type { MD3Theme } from 'react-native-paper';
import { usePreferences } from '../state/preferences';
import { enamel, iron } from './palette';
import type { Palette } from './palette';

/** Text must stay readable at an arm's length; `figure` is the number that matters. */
export const SANS = 'AtkinsonNext, system-ui, sans-serif';
export const BOLD = 'AtkinsonNextBold, system-ui, sans-serif';
export const DISPLAY = 'FrauncesSemi, Georgia, serif';
export const TOUCH = 56;
export const WIDE_FROM = 900;

export function paperTheme(palette: Palette, dark: boolean): MD3Theme {
  const base = dark ? MD3DarkTheme : MD3LightTheme;
  const fonts = Object.fromEntries(Object.entries(base.fonts).map(([name, font]) => [name, { ...font, fontFamily: SANS }])) as MD3Theme['fonts'];
  return {
    ...base,
    roundness: 2,
    fonts,
    colors: {
      ...base.colors,
      primary: palette.action,
      onPrimary: palette.onAction,
      background: palette.ground,
      onBackground: palette.ink,
      surface: palette.sheet,
      onSurface: palette.ink,
      onSurfaceVariant: palette.muted,
      surfaceVariant: palette.sheet,
      outline: palette.muted,
      error: palette.stop,
      secondaryContainer: palette.action,
      onSecondaryContainer: palette.onAction,
      elevation: { ...base.colors.elevation, level3: palette.sheet },
    },
  };
}

const PaletteContext = createContext<Palette>(enamel);
export const PaletteProvider = PaletteContext.Provider;
export function usePalette(): Palette {
  return useContext(PaletteContext);
}

/** Enamel or iron: what was chosen on this phone, else what the phone says. */
export function useIsDark(): boolean {
  const chosen = usePreferences((state) => state.look);
  const device = useColorScheme();
  return chosen === 'system' ? device === 'dark' : chosen === 'iron';
}
export function paletteFor(dark: boolean): Palette {
  return dark ? iron : enamel;
}
