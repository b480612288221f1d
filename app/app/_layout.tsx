import { Slot, usePathname } from 'expo-router';
import Head from 'expo-router/head';
import { useFonts } from 'expo-font';
import { StatusBar } from 'expo-status-bar';
import { useEffect } from 'react';
import { View } from 'react-native';
import { PaperProvider } from 'react-native-paper';
import regular from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff2';
import bold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff2';
import display from '@fontsource/fraunces/files/fraunces-latin-600-normal.woff2';
import { useKitchen } from '../src/state/kitchen';
import { useAlarms } from '../src/state/useAlarms';
import { useNewerApp } from '../src/state/useNewerApp';
import { usePlanner } from '../src/state/usePlan';
import { PaletteProvider, paletteFor, paperTheme, useIsDark } from '../src/theme/theme';
import { Action } from '../src/ui/Action';
import { Places, useIsWide } from '../src/ui/Screen';

/** What goes on whatever page is open. They draw nothing, so that their ticking draws nothing anew. */
function Planner() {
  usePlanner();
  return null;
}
/** A newer app is here: one tap takes it. */
function NewerApp() {
  const take = useNewerApp();
  return take === null ? null : (
    <View role="status" style={{ padding: 8 }}>
      <Action label="A newer Broth Board is here. Take it now" onPress={take} />
    </View>
  );
}
function Alarms() {
  useAlarms();
  return null;
}

/** By then the first picture stands. Milliseconds. */
const QUIET_MS = 3000;

/** The root: theme, type, the five places, and the one connection to the kitchen. Text shows at once in the system's face. */
export default function Layout() {
  useFonts({ AtkinsonNext: regular, AtkinsonNextBold: bold, FrauncesSemi: display });
  const dark = useIsDark();
  const wide = useIsWide();
  const palette = paletteFor(dark);
  const open = useKitchen((state) => state.open);
  // Whoever was given a link to read by sees that and nothing of the kitchen.
  const reading = usePathname().startsWith('/inspect/');
  useEffect(() => {
    if (reading) return;
    void open();
    // What lies behind the places is fetched in the first quiet moment: it is there when the network is not.
    const soon = setTimeout(() => {
      import('../src/features/later').catch(() => undefined);
    }, QUIET_MS);
    return () => {
      clearTimeout(soon);
    };
  }, [open, reading]);
  return (
    <PaletteProvider value={palette}>
      <PaperProvider theme={paperTheme(palette, dark)}>
        <Head>
          <title>Broth Board</title>
        </Head>
        <StatusBar style={dark ? 'light' : 'dark'} />
        {reading ? null : (
          <>
            <Planner />
            <Alarms />
            <NewerApp />
          </>
        )}
        <View style={{ flex: 1, flexDirection: wide ? 'row' : 'column', backgroundColor: palette.ground }}>
          {wide && !reading ? <Places /> : null}
          <View style={{ flex: 1 }}>
            <Slot />
          </View>
          {wide || reading ? null : <Places />}
        </View>
      </PaperProvider>
    </PaletteProvider>
  );
}
