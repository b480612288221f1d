import { words } from '@broth/contract';
import * as advice from '@broth/contract/advice';
import { addMinutes, offsetIn, rulesAt, standingOf } from '@broth/core';
import type { BatchRecord, Standing, TemperatureUnit } from '@broth/core';
import type { CoolingForecast } from '@broth/core/advice';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import type { OpenDay } from '../../state/useDay';
import { useNow } from '../../state/useNow';
import { Sheet } from '../../ui/Sheet';
import { StateMark, markOf } from '../../ui/StateMark';
import { useIsWide } from '../../ui/Screen';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { CoolingCurve } from './CoolingCurve';
import { Corrective, Decision } from './Corrective';
import { DateMark } from './DateMark';
import { Lethality } from './Lethality';
import { Moves, waysFor } from './Moves';
import { ReadingPad } from './ReadingPad';
import type { Entered } from './ReadingPad';
import { Missed, Readings } from './Readings';
import { Took } from './Took';
import { forecastOf } from './curveGeometry';
import { contextOf, holdOf, purposeOf } from './entryContext';
import { usableThermometers } from './thermometer';

function lowered(text: string): string {
  return `${text[0]?.toLowerCase() ?? ''}${text.slice(1)}`;
}

/** Where it is heading and, if that is not good enough, the quickest way out with its time. */
function Heading({
  day,
  batch,
  standing,
  forecast,
  now,
}: {
  readonly day: OpenDay;
  readonly batch: BatchRecord;
  readonly standing: Standing;
  readonly forecast: CoolingForecast;
  readonly now: number;
}) {
  const bad = forecast.next !== null && !(forecast.next.at !== null && forecast.next.at < now) && (forecast.next.at === null || (forecast.next.spareMin ?? 0) < 0);
  const here = batch.coolingSegments.at(-1);
  const best = waysFor(day, batch, standing.verdicts.cooling).find(
    (way) => way.minutes !== null && way.method !== 'iceWand' && !(way.placeId === here?.placeId && way.method === here.method),
  );
  return (
    <View style={{ flexDirection: 'row', gap: 8 }}>
      {bad ? <StateMark mark="soon" /> : null}
      <Body style={{ flex: 1 }}>
        {advice.forecast(forecast, best === undefined ? null : lowered(advice.way(best, best.placeName, now, day.at)), day.book.kitchen.temperatureUnit, day.at, now)}
      </Body>
    </View>
  );
}

/** One batch's temperatures: where it stands, what to do, the curve, the pad, what was read. */
export function BatchLog({ day, batch }: { readonly day: OpenDay; readonly batch: BatchRecord }) {
  const record = useKitchen((state) => state.record);
  const who = usePreferences((state) => state.who);
  const now = useNow(5000);
  const wide = useIsWide();
  const soup = day.soupById.get(batch.soupId);
  const unit: TemperatureUnit = day.book.kitchen.temperatureUnit;
  const standing = standingOf(batch, soup, day.rules, now);
  const purpose = purposeOf(batch, soup?.served === 'cold');
  const cooling = standing?.verdicts.cooling ?? null;
  const coolingRules = standing?.verdicts.coolingRules ?? [];
  const judgedBy = rulesAt(day.rules, batch.coolingSegments[0]?.since ?? batch.holds.at(-1)?.since ?? batch.startedAt);
  const showCurve = cooling !== null && standing?.purpose === 'cool' && batch.coolingSegments.length > 0;
  const forecast =
    showCurve && batch.stage.kind === 'cooling' && (standing.kind === 'inProgress' || standing.kind === 'overdue') ? forecastOf(batch, cooling, coolingRules, unit) : null;
  const isLead = day.book.station.people.find((person) => person.id === who)?.role === 'lead';
  const place =
    batch.stage.kind === 'cooling'
      ? day.names.resource(batch.coolingSegments.at(-1)?.placeId ?? '')
      : batch.stage.kind === 'holding'
        ? day.names.resource(batch.stage.placeId)
        : '';
  const method = batch.coolingSegments.at(-1)?.method ?? null;
  const says = standing === null ? '' : words.standing(standing, unit, day.at);
  const log = ({ reading, heldS, pan, thermometer, doubt, minutesAgo, lateReason }: Entered): void => {
    if (purpose === null) return;
    const { packId, packVersion, version: rulesVersion } = day.rulesNow;
    const offset = thermometer === null ? 0 : offsetIn(thermometer.offset, thermometer.unit, reading.unit);
    const data = { batchId: batch.batchId, purpose, reading, heldS, packId, packVersion, rulesVersion, pan, thermometerId: thermometer?.id ?? null, offset, doubt, lateReason };
    record([{ kind: 'reading.taken/2', data, ...(minutesAgo === 0 ? {} : { at: addMinutes(now, -minutesAgo) }) }]);
  };
  const pad =
    purpose === null ? null : (
      <ReadingPad
        key={`${batch.batchId} ${purpose}`}
        name={batch.name}
        kitchenUnit={unit}
        point={purpose === 'cool' || purpose === 'coldHold' ? 'warmest' : 'coldest'}
        context={contextOf(day, batch, purpose, now)}
        now={now}
        thermometers={usableThermometers(day)}
        pans={purpose === 'cool' ? (batch.coolingSegments.findLast((segment) => segment.pans !== null)?.pans ?? null) : null}
        holdS={holdOf(standing, purpose)}
        batchName={day.names.batch}
        onLog={log}
      />
    );
  const refused = standing !== null && (standing.kind === 'fail' || standing.kind === 'undetermined') && batch.stage.kind !== 'discarded';
  const asksLead = refused && (standing.kind === 'undetermined' || batch.correctives.at(-1)?.action === 'personInCharge') && standing.decision === null;
  const missed = standing?.verdicts.hotHold?.missed.map((one) => one.dueAt) ?? [];
  const readings = (
    <Sheet label="Readings">
      <Title level={2}>Readings</Title>
      <Readings day={day} batch={batch} unit={unit} />
    </Sheet>
  );
  return (
    <View style={{ gap: 10 }}>
      <Sheet rim={soup?.toneHex} label={`${batch.name}: where it stands`} style={{ paddingVertical: 8, gap: 4 }}>
        {batch.stage.kind === 'discarded' ? <StateMark mark="stop" word={`Discarded at ${day.at(batch.stage.at)}`} /> : null}
        {standing === null ? (
          <Body>
            {batch.stage.kind === 'cooking'
              ? 'Still cooking.'
              : batch.stage.kind === 'discarded'
                ? (batch.correctives.at(-1)?.note ?? '')
                : batch.stage.kind === 'used'
                  ? `All of it has gone ${words.usedIn(batch.stage.intoBatchIds.map(day.names.batch))}, at ${day.at(batch.stage.at)}.`
                  : 'Out of the kettle. Say on Now where it goes.'}
          </Body>
        ) : (
          <View role="status" aria-live="polite" style={{ gap: 4 }}>
            <StateMark mark={markOf(standing.kind)} word={words.VERDICT[standing.kind]} />
            <Strong style={{ fontSize: 18, lineHeight: 24 }}>{says}</Strong>
            {standing.decision === null ? null : (
              <Body>{`${standing.decision.keep ? 'Kept' : 'Not kept'} by ${day.nameOf(standing.decision.by)}: ${standing.decision.reason}`}</Body>
            )}
            {forecast === null ? null : <Heading day={day} batch={batch} standing={standing} forecast={forecast} now={now} />}
            {cooling?.wanted != null && standing.purpose === 'cool' && (standing.kind === 'undetermined' || forecast === null) ? (
              <Body>{words.wanted(cooling.wanted, unit, day.at)}</Body>
            ) : null}
            {cooling?.rose === true && showCurve ? <Body>A reading rose by more than 3 °F. Probe moved, or another pan? Read again.</Body> : null}
            {standing.verdicts.pans.length === 0 ? null : (
              <Note>{standing.verdicts.pans.map(({ pan, verdict }) => `pan ${String(pan)}: ${words.VERDICT[verdict.kind].toLowerCase()}`).join(', ')}</Note>
            )}
            <Note>
              {[
                standing.citation,
                place === '' ? '' : `in ${place}`,
                method === null ? '' : words.COOLING_METHOD[method].toLowerCase(),
                showCurve && cooling.clockFrom !== null ? `clock from ${day.at(cooling.clockFrom)}` : '',
              ]
                .filter((one) => one !== '')
                .join('; ')}
            </Note>
          </View>
        )}
        {refused ? <Corrective batch={batch} standing={standing} /> : null}
        {asksLead ? <Decision batch={batch} standing={standing} isLead={isLead} /> : null}
        {showCurve ? <CoolingCurve batch={batch} verdict={cooling} forecast={forecast} rules={coolingRules} unit={unit} toneHex={soup?.toneHex ?? '#888888'} says={says} /> : null}
      </Sheet>
      {wide ? (
        <View style={{ flexDirection: 'row', gap: 14, alignItems: 'flex-start' }}>
          {pad === null ? null : <View style={{ flex: 3 }}>{pad}</View>}
          <View style={{ flex: 4 }}>{readings}</View>
        </View>
      ) : (
        pad
      )}
      <Moves day={day} batch={batch} standing={standing} now={now} />
      {missed.length === 0 ? null : (
        <Sheet>
          <Missed day={day} batch={batch} dues={missed} />
        </Sheet>
      )}
      {wide ? null : readings}
      {standing !== null && !refused && standing.actions.length > 0 && batch.stage.kind !== 'discarded' ? (
        <Sheet>
          <Corrective batch={batch} standing={standing} />
        </Sheet>
      ) : null}
      {batch.stage.kind === 'stored' || batch.stage.kind === 'cooling' ? <DateMark day={day} batch={batch} /> : null}
      <Lethality batch={batch} />
      <Took day={day} batch={batch} />
      <Note>{words.authority(judgedBy)}</Note>
    </View>
  );
}
