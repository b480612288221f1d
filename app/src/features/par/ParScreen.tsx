import { words } from '@broth/contract';
import type { SalesView } from '@broth/contract';
import type { DayPlan, LotUse, Need, PlanFinding } from '@broth/core';
import { dateMarkLastDay, needFor } from '@broth/core';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { usePreferences } from '../../state/preferences';
import { useDay } from '../../state/useDay';
import type { OpenDay } from '../../state/useDay';
import { usePlan } from '../../state/usePlan';
import { useSales } from '../../state/useSales';
import { Action } from '../../ui/Action';
import { Screen, Waiting, dayName, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Figure, Note, Strong, Title } from '../../ui/Type';
import { DeskScreen } from '../desk/DeskScreen';
import { DayOn } from './DayOn';
import { Dipstick } from './Dipstick';
import { ParAdvice } from './ParAdvice';
import { ParField } from './ParField';
import { ServedAt } from './ServedAt';

function useSentence(use: LotUse): string | null {
  switch (use.kind) {
    case 'counts':
      return `${words.litres(use.takenL)} ${use.lot.state}, use by ${dayName(use.useBy)}`;
    case 'spare':
      return `${words.litres(use.lot.volumeL)} more on hand than the par asks for, use by ${dayName(use.useBy)}`;
    case 'frozen':
    case 'pastDate':
      return null;
  }
}

interface SoupParProps {
  readonly day: OpenDay;
  readonly need: Need;
  readonly scaleL: number;
  readonly findings: readonly PlanFinding[];
  readonly sales: SalesView | null;
}

function SoupPar({ day, need, scaleL, findings, sales }: SoupParProps) {
  const soup = day.soupById.get(need.soupId);
  if (soup === undefined) return null;
  const onHand = need.uses.flatMap((use) => useSentence(use) ?? []);
  return (
    <Sheet rim={soup.toneHex} label={soup.name}>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-start' }}>
        <View style={{ flex: 1 }}>
          <Title level={2}>{soup.name}</Title>
          <ServedAt day={day} soupId={soup.id} soupName={soup.name} serviceId={need.serviceId} />
        </View>
        <View style={{ alignItems: 'flex-end' }}>
          <Figure style={{ fontSize: 28 }}>{words.litres(need.needL)}</Figure>
          <Note>to make</Note>
        </View>
      </View>
      <Dipstick need={need} toneHex={soup.toneHex} scaleL={scaleL} />
      {sales === null ? null : <ParAdvice soup={soup} serviceId={need.serviceId} date={day.view.date} parL={need.parL} scaleL={scaleL} sales={sales} />}
      <ParField soupId={soup.id} soupName={soup.name} parL={need.parL} />
      {onHand.length === 0 ? null : <Note>On hand: {onHand.join('; ')}.</Note>}
      {findings.map((found) => (
        <View key={found.code + JSON.stringify(found)} style={{ flexDirection: 'row', gap: 8 }}>
          <StateMark mark="soon" />
          <Body style={{ flex: 1, fontSize: 15 }}>{words.finding(found, day.names)}</Body>
        </View>
      ))}
    </Sheet>
  );
}

/** Findings that belong to one soup of the list. */
function findingsOf(plan: DayPlan | undefined, soupId: string): readonly PlanFinding[] {
  return (plan?.findings ?? []).filter((found) => 'soupId' in found && found.soupId === soupId && found.code !== 'batch.surplus');
}

export function ParScreen() {
  const day = useDay();
  const router = useRouter();
  const wide = useIsWide();
  const who = usePreferences((state) => state.who);
  const shown = usePlan(who);
  const sales = useSales(day?.view.date ?? null);
  if (day === null) {
    return (
      <Screen title="Par">
        <Waiting />
      </Screen>
    );
  }
  const { view, book } = day;
  const needs = view.pars.map((par) => needFor(par, view.lots, view.date, dateMarkLastDay(day.rulesNow)));
  const scaleL = Math.max(...needs.map((need) => need.parL), 1);
  const toMakeL = needs.reduce((sum, need) => sum + need.needL, 0);
  const list = needs.map((need) => <SoupPar key={need.soupId} day={day} need={need} scaleL={scaleL} findings={findingsOf(shown?.plan, need.soupId)} sales={sales} />);
  const on = sales === null ? null : <DayOn date={view.date} sales={sales} />;
  const foot = (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
      <View style={{ flex: 1 }}>
        <Strong>{words.litres(toMakeL)} to make</Strong>
        <Note>{shown === null ? 'No batches yet' : `${String(shown.plan.batches.length)} batches with stocks and roasts`}</Note>
      </View>
      <Action
        kind="main"
        label="See the batches"
        onPress={() => {
          router.navigate('/batches');
        }}
      />
    </View>
  );
  if (!wide) {
    return (
      <Screen title="Par" foot={foot}>
        {book.kitchen.invented ? (
          <Note>
            {book.kitchen.name}, {book.kitchen.place}: an invented demo kitchen.
          </Note>
        ) : null}
        {on}
        {list}
      </Screen>
    );
  }
  return (
    <DeskScreen day={day} shown={shown} foot={foot}>
      {book.kitchen.invented ? (
        <Note>
          {book.kitchen.name}, {book.kitchen.place}: an invented demo kitchen.
        </Note>
      ) : null}
      {on}
      {list}
    </DeskScreen>
  );
}
