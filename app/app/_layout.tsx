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
import { useDesk } from '../src/state/desk';
import { useKitchen } from '../src/state/kitchen';
import { useAlarms } from '../src/state/useAlarms';
import { useNewerApp } from '../src/state/useNewerApp';
import { usePlanner } from '../src/state/usePlan';
import { PaletteProvider, paletteFor, paperTheme, useIsDark } from '../src/theme/theme';
import { Action } from '../src/ui/Action';
import { Places, useIsWide } from '../src/ui/Screen';
import { Body } from '../src/ui/Type';

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
const STOPPED = {
  off: 'This browser has WebAssembly switched off, and no plan can be worked out here without it. Allow it for this address and open the page again, or plan on another device. Batches, temperatures and the record go on.',
  room: 'This device has no memory left to plan with. Close other pages and plan again. What you entered is kept.',
  bug: 'Planning has stopped on this device. What you entered is kept. Plan again; if it stops once more, open the page again.',
} as const;

/** Where a plan is made. */
const DESK = ['/par', '/batches', '/board', '/prep'];

/** Nothing is planned here at the moment: said where somebody would plan. */
function PlannerStopped() {
  const stopped = useDesk((state) => state.stopped);
  const again = useDesk((state) => state.again);
  const path = usePathname();
  return stopped === null || !DESK.includes(path) ? null : (
    <View role="alert" style={{ padding: 12, gap: 8, alignItems: 'flex-start' }}>
      <Body>{STOPPED[stopped]}</Body>
      {stopped === 'off' ? null : <Action label="Plan again" onPress={again} />}
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
          </>
        )}
        <View style={{ flex: 1, flexDirection: wide ? 'row' : 'column', backgroundColor: palette.ground }}>
          {wide && !reading ? <Places /> : null}
          <View style={{ flex: 1 }}>
            {reading ? null : (
              <>
                <NewerApp />
                <PlannerStopped />
              </>
            )}
            <Slot />
          </View>
          {wide || reading ? null : <Places />}
        </View>
      </PaperProvider>
    </PaletteProvider>
  );
}
