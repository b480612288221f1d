import { words } from '@broth/contract';
import { minutesBetween, upNow } from '@broth/core';
import type { Task } from '@broth/core';
import { Text, View } from 'react-native';
import { usePreferences } from '../../state/preferences';
import type { OpenDay } from '../../state/useDay';
import { useHands } from '../../state/useHands';
import { useNow } from '../../state/useNow';
import { usePlan } from '../../state/usePlan';
import { BOLD, usePalette } from '../../theme/theme';
import { inkOn } from '../../theme/tone';
import { Screen, Waiting } from '../../ui/Screen';
import { StateMark } from '../../ui/StateMark';
import { Body, Title } from '../../ui/Type';
import { useAwake } from '../book/useAwake';
import { useBack } from '../book/useBack';
import { RibbonBoard } from '../board/RibbonBoard';
import { countdown, isOver } from '../now/countdown';

/** Lines of each list: more cannot be read from where the cooks stand. */
const SHOWN = 5;

function noMove(): void {
  // The pass is for looking: nothing is moved here.
}

/** One thing that goes on, readable from three metres: whose soup by its tone, what it is at, how long. */
function Line({ day, task, now }: { readonly day: OpenDay; readonly task: Task; readonly now: number }) {
  const palette = usePalette();
  const tone = day.soupById.get(task.soupId)?.toneHex ?? '#888888';
  const late = isOver(task, now);
  const says =
    task.state === 'running'
      ? countdown(task, now)
      : task.plannedAt === null
        ? ''
        : minutesBetween(task.plannedAt, now) > 0
          ? `${words.duration(minutesBetween(task.plannedAt, now))} behind`
          : day.at(task.plannedAt);
  const who = task.personId === null ? '' : (day.nameOf(task.personId).split(' ')[0] ?? '');
  return (
    <View
      role="group"
      aria-label={`${task.batchName}: ${words.PHASE[task.step.phase]}, ${says}`}
      style={{ flexDirection: 'row', alignItems: 'center', gap: 14, minHeight: 62, borderBottomWidth: 1, borderColor: palette.hairline }}
    >
      <View style={{ minWidth: 190, borderRadius: 6, paddingHorizontal: 12, paddingVertical: 6, backgroundColor: tone }}>
        <Text style={{ fontFamily: BOLD, fontSize: 26, color: inkOn(tone) }}>{task.batchName}</Text>
      </View>
      <Text style={{ flex: 1, fontFamily: BOLD, fontSize: 24, color: palette.ink }}>{`${words.PHASE[task.step.phase]}${who === '' ? '' : ` · ${who}`}`}</Text>
      {late ? <StateMark mark="soon" size={30} /> : null}
      <Text style={{ fontFamily: BOLD, fontSize: 30, color: late ? palette.soon : palette.ink, fontVariant: ['tabular-nums'] }}>{says}</Text>
    </View>
  );
}

/** A screen at the pass: what is up, what goes on, what comes, and the board. Nothing is tapped here. */
export function PassScreen() {
  const palette = usePalette();
  const back = useBack('/now');
  const now = useNow(1000);
  const open = useHands(now);
  const shown = usePlan(usePreferences((state) => state.who));
  useAwake(true);
  if (open === null) {
    return (
      <Screen title="The pass" back={back}>
        <Waiting />
      </Screen>
    );
  }
  const { day, hands } = open;
  const going = hands.tasks.filter((task) => task.state !== 'toStart').slice(0, SHOWN + 2);
  const coming = hands.tasks.filter((task) => task.state === 'toStart').slice(0, SHOWN);
  const washes = hands.washes.filter((task) => task.ready && task.plannedAt <= now).slice(0, 3);
  const up = upNow(hands.alarms, now).slice(-3);
  return (
    <Screen title={day.at(now)} day={false} back={back}>
      <View role="status" aria-live="polite" style={{ gap: 4 }}>
        {up.map((one) => (
          <View key={one.key} style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
            <StateMark mark={one.kind === 'limit' ? 'stop' : 'soon'} size={32} />
            <Text style={{ flex: 1, fontFamily: BOLD, fontSize: 26, color: palette.ink }}>
              {one.timerId === null
                ? words.alarm(one, day.names, hands.tasks.find((task) => task.batchId === one.batchId)?.step ?? null)
                : `${day.state.timers.find((timer) => timer.eventId === one.timerId)?.name ?? ''}: up.`}
            </Text>
          </View>
        ))}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 24, alignItems: 'flex-start' }}>
        <View style={{ flexGrow: 3, flexBasis: 560, gap: 4 }}>
          <Title level={2}>Now</Title>
          {going.length + washes.length === 0 ? <Body>Nothing is under way.</Body> : null}
          {washes.map(({ wash }) => (
            <Text key={`${wash.unitId} ${wash.beforeBatchId}`} style={{ fontFamily: BOLD, fontSize: 26, lineHeight: 44, color: palette.ink }}>
              {`${wash.kind === 'full' ? 'Wash in full' : 'Rinse'}: ${day.names.resource(wash.unitId)}`}
            </Text>
          ))}
          {going.map((task) => (
            <Line key={task.batchId} day={day} task={task} now={now} />
          ))}
        </View>
        <View style={{ flexGrow: 2, flexBasis: 420, gap: 4 }}>
          <Title level={2}>Coming</Title>
          {coming.map((task) => (
            <Line key={task.batchId} day={day} task={task} now={now} />
          ))}
        </View>
      </View>
      {shown === null ? null : (
        <RibbonBoard day={day} plan={shown.plan} nowMin={Math.floor(day.minuteOf(now))} selected={null} onSelect={noMove} onMove={noMove} down={false} zoom={1} />
      )}
    </Screen>
  );
}
