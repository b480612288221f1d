import { words } from '@broth/contract';
import { serving, serviceOfSoup } from '@broth/core';
import type { BatchRecord, DayPlan } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import type { OpenDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { LitresStepper } from '../../ui/Stepper';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Strong, Title } from '../../ui/Type';
import type { OnDo } from './rows';

/** A serving ladle, 8 fl oz. Common practice. */
const LADLE_L = 0.237;

/** One soup that is served: what is left, until when, what comes after it, and 86. */
function Counter({
  day,
  batch,
  plan,
  now,
  onDo,
}: {
  readonly day: OpenDay;
  readonly batch: BatchRecord;
  readonly plan: DayPlan | null;
  readonly now: number;
  readonly onDo: OnDo;
}) {
  const [leftL, setLeftL] = useState<number | null>(null);
  const par = day.view.pars.find((one) => one.soupId === batch.soupId);
  const service = day.book.station.services.find((one) => one.id === par?.serviceId);
  if (par === undefined || service === undefined || batch.stage.kind !== 'holding') return null;
  const { midnight } = day.view;
  const { batchId } = batch;
  const told = serving(batch, par.parL, { startsAt: midnight + service.startMin * 60_000, endsAt: midnight + service.endMin * 60_000 }, now);
  if (told === null) return null;
  const next = plan?.batches
    .filter((one) => one.soupId === batch.soupId && one.ordinal > batch.ordinal && day.state.batches[one.id]?.finishedAt == null)
    .sort((left, right) => left.readyMin - right.readyMin)[0];
  const is86 = day.state.out[serviceOfSoup(batch.soupId, service.id)];
  const shownL = leftL ?? Math.round(told.leftL * 2) / 2;
  const enter = (litres: number, how: 'ladles' | 'eye'): void => {
    setLeftL(null);
    onDo([{ kind: 'level.noted/1', data: { batchId, leftL: Math.max(0, Math.round(litres * 100) / 100), how } }], `${batch.name}: ${words.litres(litres)} left.`);
  };
  return (
    <Sheet rim={day.soupById.get(batch.soupId)?.toneHex} label={`At the counter: ${batch.name}`}>
      <Strong>{`${batch.name}, ${day.names.resource(batch.stage.placeId)}`}</Strong>
      <Body>{words.serving(told, day.at)}</Body>
      {next === undefined || told.outAt === null ? null : (
        <Note>{`${next.name} is ready ${words.clock(next.readyMin)}${midnight + next.readyMin * 60_000 > told.outAt ? `, ${words.duration((midnight + next.readyMin * 60_000 - told.outAt) / 60_000)} too late at this pace` : ', in time'}.`}</Note>
      )}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 12 }}>
        <LitresStepper label="litres left, by eye" volumeL={shownL} onChange={setLeftL} />
        <Action
          label="Enter"
          hint={`${batch.name}: ${words.litres(shownL)} left`}
          onPress={() => {
            enter(shownL, 'eye');
          }}
        />
        <Action
          label="10 ladles served"
          hint={`Ten ladles of ${batch.name} served`}
          onPress={() => {
            enter(Math.max(0, (batch.levels.at(-1)?.leftL ?? batch.volumeOutL ?? batch.volumeL) - 10 * LADLE_L), 'ladles');
          }}
        />
        <Action
          label={is86 === undefined ? '86' : 'Back on'}
          hint={`${is86 === undefined ? '86' : 'Back on'}: ${day.names.soup(batch.soupId)}`}
          onPress={() => {
            const data = { soupId: batch.soupId, serviceId: service.id };
            if (is86 === undefined) onDo([{ kind: 'soup.out/1', data }], `${day.names.soup(batch.soupId)} is 86.`);
            else onDo([{ kind: 'soup.back/1', data }], `${day.names.soup(batch.soupId)} is back on.`);
          }}
        />
      </View>
      {is86 === undefined ? null : <Note>{`86 at ${day.at(is86.at)} by ${day.nameOf(is86.by)}.`}</Note>}
    </Sheet>
  );
}

/** A counter is looked after from this long before its doors open. Minutes. */
const AHEAD_MIN = 30;

/** What is served while its service is open, or soon. */
export function AtTheCounter({ day, plan, now, onDo }: { readonly day: OpenDay; readonly plan: DayPlan | null; readonly now: number; readonly onDo: OnDo }) {
  const opensAt = (batch: BatchRecord): number => {
    const par = day.view.pars.find((one) => one.soupId === batch.soupId);
    return day.view.midnight + (day.book.station.services.find((one) => one.id === par?.serviceId)?.startMin ?? 0) * 60_000;
  };
  const held = Object.values(day.state.batches).filter((batch) => batch.stage.kind === 'holding' && now >= opensAt(batch) - AHEAD_MIN * 60_000);
  if (held.length === 0) return null;
  return (
    <View style={{ gap: 12 }}>
      <Title level={2}>At the counter</Title>
      {held.map((batch) => (
        <Counter key={batch.batchId} day={day} batch={batch} plan={plan} now={now} onDo={onDo} />
      ))}
    </View>
  );
}
