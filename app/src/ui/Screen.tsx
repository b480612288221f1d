import { words } from '@broth/contract';
import { addDays, readBatchId } from '@broth/core';
import type { DayEvent } from '@broth/core';
import { usePathname, useRouter } from 'expo-router';
import { memo } from 'react';
import type { ReactNode } from 'react';
import { Pressable, ScrollView, Text, View, useWindowDimensions } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { useUnsentPars } from '../state/unsentPars';
import { useDesk } from '../state/desk';
import { useKitchen } from '../state/kitchen';
import { usePreferences } from '../state/preferences';
import { BOLD, SANS, TOUCH, WIDE_FROM, usePalette } from '../theme/theme';
import { StateMark } from './StateMark';
import { Body, Note, Title } from './Type';

export function useIsWide(): boolean {
  return useWindowDimensions().width >= WIDE_FROM;
}

/** `Wed 25 Nov` of a calendar date, whatever zone the device is in. */
export function dayName(date: string): string {
  return new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' }).format(Date.parse(`${date}T12:00:00Z`)).replace(',', '');
}

const DayTurner = memo(function DayTurner() {
  const palette = usePalette();
  const date = useKitchen((state) => state.date);
  const showDay = useKitchen((state) => state.showDay);
  const say = useKitchen((state) => state.say);
  if (date === null) return null;
  const turn = (label: string, glyph: string, days: number) => (
    <Pressable
      role="button"
      aria-label={label}
      onPress={() => {
        showDay(addDays(date, days)).catch(() => {
          say('That day is not on this device and the server cannot be reached.');
        });
      }}
      style={{ width: 36, height: 44, alignItems: 'center', justifyContent: 'center' }}
    >
      <Text style={{ fontFamily: BOLD, fontSize: 20, color: palette.ink }}>{glyph}</Text>
    </Pressable>
  );
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center' }}>
      {turn('Day before', '‹', -1)}
      <Body style={{ fontSize: 15, minWidth: 84, textAlign: 'center' }}>{dayName(date)}</Body>
      {turn('Day after', '›', 1)}
    </View>
  );
});

/** Who holds the phone, and whether what was entered has reached the record. Behind it: people, equipment, settings. */
const Holder = memo(function Holder() {
  const palette = usePalette();
  const router = useRouter();
  const who = usePreferences((state) => state.who);
  const book = useKitchen((state) => state.book);
  const person = book?.station.people.find((one) => one.id === who);
  const initials =
    person?.name
      .split(' ')
      .map((part) => part[0])
      .join('') ?? '?';
  return (
    <Pressable
      role="button"
      aria-label={person === undefined ? 'Pick who holds this phone' : `${person.name} holds this phone. People, equipment and settings`}
      onPress={() => {
        router.push('/kitchen');
      }}
      style={{
        width: 44,
        height: 44,
        borderRadius: 22,
        borderWidth: 2,
        borderColor: person === undefined ? palette.stop : palette.rim,
        alignItems: 'center',
        justifyContent: 'center',
      }}
    >
      <Text style={{ fontFamily: BOLD, fontSize: 16, color: palette.ink }}>{initials}</Text>
    </Pressable>
  );
});

/** The soup book, one tap away from every page. */
const BookDoor = memo(function BookDoor() {
  const palette = usePalette();
  const router = useRouter();
  const path = usePathname();
  if (path.startsWith('/book')) return null;
  return (
    <Pressable
      role="link"
      aria-label="Soup book"
      onPress={() => {
        router.push('/book');
      }}
      style={{ width: 44, height: 44, alignItems: 'center', justifyContent: 'center' }}
    >
      <Svg width={28} height={28} viewBox="0 0 24 24" fill="none" stroke={palette.ink} strokeWidth={1.8} strokeLinejoin="round" aria-hidden>
        <Path d="M12 6C9.5 4.4 6.5 4 3 4v14.5c3.5 0 6.5.4 9 2 2.5-1.6 5.5-2 9-2V4c-3.5 0-6.5.4-9 2zm0 0v14.5" />
      </Svg>
    </Pressable>
  );
});

const LineNote = memo(function LineNote() {
  const line = useKitchen((state) => state.line);
  const outbox = useKitchen((state) => state.outbox);
  const trouble = useKitchen((state) => state.trouble);
  const notice = useKitchen((state) => state.notice);
  const clearTrouble = useKitchen((state) => state.clearTrouble);
  const palette = usePalette();
  const pars = useUnsentPars((state) => Object.values(state.byDay).reduce((count, day) => count + Object.keys(day).length, 0));
  const onTheWay = pars + outbox.filter((entry) => entry.refused === null).length;
  const sentences = [
    ...(notice === null ? [] : [notice]),
    ...(trouble === null ? [] : [trouble]),
    ...(line === 'away' ? ['No connection. You can go on; entries are kept here and sent when it is back.'] : []),
    ...(onTheWay > 0 && line === 'away' ? [`${String(onTheWay)} waiting to be sent.`] : []),
  ];
  return (
    <View role="status" aria-live="polite">
      {sentences.length === 0 ? null : (
        <Pressable
          role="button"
          aria-label={`${sentences.join(' ')} Tap to hide.`}
          onPress={clearTrouble}
          style={{
            flexDirection: 'row',
            alignItems: 'center',
            gap: 10,
            paddingHorizontal: 16,
            paddingVertical: 8,
            backgroundColor: palette.sheet,
            borderBottomWidth: 1,
            borderColor: palette.hairline,
          }}
        >
          <StateMark mark="soon" />
          <Body style={{ flex: 1, fontSize: 15 }}>{sentences.join(' ')}</Body>
        </Pressable>
      )}
    </View>
  );
});

/** What it was, as far as it is a reading: whoever is told that it was not logged has to know which. */
function whatWas({ data }: DayEvent, soups: readonly { readonly id: string; readonly name: string }[]): string {
  if (!('reading' in data)) return 'Not logged.';
  const batch = 'batchId' in data ? readBatchId(data.batchId) : null;
  const soup = soups.find((one) => one.id === batch?.soupId)?.name;
  return `${words.degrees(data.reading.value, data.reading.unit)}${soup === undefined ? '' : ` for ${soup} ${String(batch?.ordinal ?? '')}`} was not logged.`;
}

/** Entries the server would not take: kept until somebody has read why. */
const Refused = memo(function Refused() {
  const palette = usePalette();
  const outbox = useKitchen((state) => state.outbox);
  const dismiss = useKitchen((state) => state.dismiss);
  const soups = useKitchen((state) => state.book?.soups) ?? [];
  const refused = outbox.filter((entry) => entry.refused !== null);
  return (
    <View role="alert">
      {refused.map((entry) => (
        <View
          key={entry.event.id}
          style={{ flexDirection: 'row', alignItems: 'center', gap: 10, paddingLeft: 16, backgroundColor: palette.sheet, borderBottomWidth: 1, borderColor: palette.hairline }}
        >
          <StateMark mark="stop" />
          <Body style={{ flex: 1, fontSize: 15, paddingVertical: 8 }}>{`${whatWas(entry.event, soups)} ${entry.refused?.detail ?? ''}`}</Body>
          <Pressable
            role="button"
            aria-label="I have read it"
            onPress={() => {
              dismiss(entry.event.id);
            }}
            style={{ minWidth: TOUCH, minHeight: TOUCH, alignItems: 'center', justifyContent: 'center' }}
          >
            <Text style={{ fontFamily: BOLD, fontSize: 16, color: palette.ink }}>OK</Text>
          </Pressable>
        </View>
      ))}
    </View>
  );
});

const PLACES = [
  { path: '/par', name: 'Par' },
  { path: '/batches', name: 'Batches' },
  { path: '/board', name: 'Board' },
  { path: '/now', name: 'Now' },
  { path: '/log', name: 'Log' },
] as const;

/** The five places, in the day's order: along the bottom on a phone, a rail at the side when there is room. */
export function Places() {
  const palette = usePalette();
  const wide = useIsWide();
  const path = usePathname();
  const router = useRouter();
  return (
    <View
      role="navigation"
      aria-label="Places"
      style={wide ? { width: 104, backgroundColor: palette.rail, paddingTop: 18, gap: 6, paddingHorizontal: 8 } : { flexDirection: 'row', backgroundColor: palette.rail }}
    >
      {wide ? (
        <Text style={{ fontFamily: 'FrauncesSemi, Georgia, serif', fontSize: 21, lineHeight: 24, color: palette.onRail, textAlign: 'center', marginBottom: 14 }}>
          Broth{'\n'}Board
        </Text>
      ) : null}
      {PLACES.map((place) => {
        const here = path.startsWith(place.path);
        return (
          <Pressable
            key={place.path}
            role="link"
            aria-label={place.name}
            aria-current={here ? 'page' : undefined}
            onPress={() => {
              router.navigate(place.path);
            }}
            style={[
              { alignItems: 'center', justifyContent: 'center', minHeight: wide ? TOUCH : 62, backgroundColor: here ? palette.ground : 'transparent' },
              wide
                ? { borderRadius: 6, borderLeftWidth: 5, borderLeftColor: here ? palette.accent : 'transparent' }
                : { flex: 1, borderTopWidth: 5, borderTopColor: here ? palette.accent : 'transparent' },
            ]}
          >
            <Text style={{ fontFamily: BOLD, fontSize: 16, color: here ? palette.ink : palette.onRail }}>{place.name}</Text>
          </Pressable>
        );
      })}
    </View>
  );
}

interface ScreenProps {
  readonly title: string;
  readonly children: ReactNode;
  /** The main action, kept within a thumb's reach. */
  readonly foot?: ReactNode;
  readonly day?: boolean;
  /** false for a screen that scrolls by itself. */
  readonly scroll?: boolean;
  readonly back?: () => void;
}

/** One screen: its head, what went wrong if anything, its content, its main action. */
export function Screen({ title, children, foot, day = true, scroll = true, back }: ScreenProps) {
  const palette = usePalette();
  const wide = useIsWide();
  const inner = { padding: wide ? 20 : 12, gap: 12 } as const;
  return (
    <View role="main" style={{ flex: 1, backgroundColor: palette.ground }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4, paddingHorizontal: wide ? 20 : 12, minHeight: 60 }}>
        {back === undefined ? null : (
          <Pressable role="button" aria-label="Back" onPress={back} style={{ width: 44, height: TOUCH, alignItems: 'center', justifyContent: 'center', marginLeft: -10 }}>
            <Text style={{ fontFamily: SANS, fontSize: 30, color: palette.ink }}>‹</Text>
          </Pressable>
        )}
        <Title
          style={{
            flex: 1,
            ...(wide
              ? {}
              : title.length >= 18
                ? { fontSize: 21, lineHeight: 25 }
                : day
                  ? title.length >= 9
                    ? { fontSize: 19, lineHeight: 26 }
                    : { fontSize: 22, lineHeight: 28 }
                  : {}),
          }}
        >
          {title}
        </Title>
        {day ? <DayTurner /> : null}
        <BookDoor />
        <Holder />
      </View>
      <LineNote />
      <Refused />
      {scroll ? (
        <ScrollView tabIndex={0} style={{ flex: 1 }} contentContainerStyle={inner}>
          {children}
        </ScrollView>
      ) : (
        <View style={{ flex: 1 }}>{children}</View>
      )}
      {foot === undefined || foot === null ? null : (
        <View style={{ paddingVertical: 12, paddingHorizontal: wide ? 20 : 12, borderTopWidth: 1, borderTopColor: palette.hairline, backgroundColor: palette.ground, gap: 8 }}>
          {foot}
        </View>
      )}
    </View>
  );
}

/** What a screen says before there is anything to show. */
export function Waiting() {
  const trouble = useKitchen((state) => state.trouble);
  const isAway = useKitchen((state) => state.line === 'away');
  return (
    <View style={{ gap: 8 }}>
      <Body>{trouble ?? (isAway ? 'The server cannot be reached.' : 'Fetching the day…')}</Body>
      {trouble === null && !isAway ? null : <Note>Trying again every few seconds.</Note>}
    </View>
  );
}

/** Where a plan will stand: until the day is here, and then until it has one. Why it may get none is said above the page. */
export function WaitingForPlan() {
  const isHere = useKitchen((state) => state.book !== null && state.day !== null);
  const stopped = useDesk((state) => state.stopped !== null);
  return isHere ? <Body>{stopped ? 'There is no plan here yet.' : 'Working out the plan…'}</Body> : <Waiting />;
}
