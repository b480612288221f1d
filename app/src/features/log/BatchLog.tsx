import { words } from '@broth/contract';
import { readingIn } from '@broth/core';
import type { BatchRecord, CorrectiveAction, Purpose, Reading, RulePack, TemperatureUnit } from '@broth/core';
import { useState } from 'react';
import { TextInput, View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';
import { useNow } from '../../state/useNow';
import { SANS, TOUCH, usePalette } from '../../theme/theme';
import { Action } from '../../ui/Action';
import { LitresStepper } from '../../ui/Stepper';
import { AUTHORITY, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark, markOf } from '../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { CoolingCurve } from './CoolingCurve';
import { ReadingPad } from './ReadingPad';
import { Took } from './Took';
import { forecastOf } from './curveGeometry';
import { standingOf } from './standing';
import type { Standing } from './standing';

function purposeOf(batch: BatchRecord): Purpose | null {
  switch (batch.stage.kind) {
    case 'cooling':
      return 'cool';
    case 'holding':
      return 'hotHold';
    case 'stored':
      return 'coldHold';
    case 'reheating':
      return 'reheat';
    case 'cooking':
    case 'finished':
    case 'discarded':
      return null;
  }
}

/** What the rule allows, as taps. Each asks for a reason; discarding also asks for the litres. */
function Corrective({ batch, standing }: { readonly batch: BatchRecord; readonly standing: Standing }) {
  const palette = usePalette();
  const record = useKitchen((state) => state.record);
  const [picked, setPicked] = useState<CorrectiveAction | null>(null);
  const [note, setNote] = useState('');
  const [volumeL, setVolumeL] = useState(batch.volumeOutL ?? batch.volumeL);
  const { batchId } = batch;
  if (standing.actions.length === 0 || batch.stage.kind === 'discarded') return null;
  const confirm = (): void => {
    if (picked === null) return;
    record([{ kind: 'corrective.taken/1', data: { batchId, ruleId: standing.ruleId, action: picked, note, volumeL: picked === 'discard' ? volumeL : null } }]);
    setPicked(null);
    setNote('');
  };
  return (
    <View style={{ gap: 8 }} role="group" aria-label="Corrective action">
      <Strong>{standing.kind === 'fail' || standing.kind === 'undetermined' ? 'What to do now' : 'If it is behind'}</Strong>
      {standing.actions.map((action) => (
        <View key={action} style={{ gap: 4 }}>
          <Note>{words.ACTION[action].how}</Note>
          {picked === action ? null : (
            <Action
              kind={action === 'discard' ? 'stop' : 'plain'}
              label={words.ACTION[action].name}
              onPress={() => {
                setPicked(action);
              }}
            />
          )}
        </View>
      ))}
      {picked === null ? null : (
        <View style={{ gap: 8 }}>
          <TextInput
            aria-label="What happened, and why"
            placeholder="What happened, and why"
            placeholderTextColor={palette.muted}
            value={note}
            onChangeText={setNote}
            maxLength={1000}
            style={{
              minHeight: TOUCH,
              borderWidth: 2,
              borderColor: palette.hairline,
              borderRadius: 6,
              paddingHorizontal: 12,
              fontFamily: SANS,
              fontSize: 16,
              color: palette.ink,
              backgroundColor: palette.sheet,
            }}
          />
          {picked === 'discard' ? <LitresStepper label="litres discarded" volumeL={volumeL} onChange={setVolumeL} /> : null}
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <Action
              style={{ flex: 1 }}
              label="Not yet"
              onPress={() => {
                setPicked(null);
              }}
            />
            <Action style={{ flex: 2 }} kind={picked === 'discard' ? 'stop' : 'main'} label={`Record: ${words.ACTION[picked].name.toLowerCase()}`} onPress={confirm} />
          </View>
        </View>
      )}
    </View>
  );
}

/** Where the batch can be carried next. Each move is an event; the cooling clock is never set back. */
function Moves({ day, batch, standing }: { readonly day: OpenDay; readonly batch: BatchRecord; readonly standing: Standing | null }) {
  const record = useKitchen((state) => state.record);
  const { batchId, stage } = batch;
  const things = day.book.station.equipment.filter((thing) => thing.inUse);
  const taken = new Set(Object.values(day.state.batches).flatMap((one) => (one.stage.kind === 'holding' ? [one.stage.placeId] : [])));
  const here = stage.kind === 'cooling' ? batch.coolingSegments.at(-1)?.placeId : null;
  const well = things.find((thing) => thing.kind === 'well' && !taken.has(thing.id));
  const isHot = day.soupById.get(batch.soupId)?.served !== 'cold';
  const coolHere = stage.kind === 'cooling' || (stage.kind === 'holding' && isHot) || (stage.kind === 'finished' && isHot);
  const refused = standing?.kind === 'fail' || standing?.kind === 'undetermined';
  const mayStore = stage.kind === 'cooling' && standing?.kind === 'pass';
  const mayReheat = stage.kind === 'stored' && isHot && !refused;
  const mayHold = stage.kind === 'reheating' && standing?.kind === 'pass' && well !== undefined;
  return (
    <View style={{ gap: 8 }}>
      {coolHere
        ? things.map((thing) =>
            thing.kind === 'cooling' && thing.id !== here ? (
              <Action
                key={thing.id}
                label={stage.kind === 'cooling' ? `Move to ${thing.name}` : `Cool in ${thing.name}`}
                onPress={() => {
                  record([{ kind: 'cooling.started/1', data: { batchId, placeId: thing.id, ambientC: thing.ambientC } }]);
                }}
              />
            ) : null,
          )
        : null}
      {mayStore ? (
        <Action
          kind="main"
          label="Into cold hold"
          onPress={() => {
            record([{ kind: 'cold.stored/1', data: { batchId } }]);
          }}
        />
      ) : null}
      {mayReheat ? (
        <Action
          label="Start reheating"
          onPress={() => {
            record([{ kind: 'reheat.started/1', data: { batchId } }]);
          }}
        />
      ) : null}
      {mayHold ? (
        <Action
          kind="main"
          label={`Hold hot in ${well.name}`}
          onPress={() => {
            record([{ kind: 'hold.started/1', data: { batchId, placeId: well.id } }]);
          }}
        />
      ) : null}
    </View>
  );
}

function Readings({ day, batch, unit }: { readonly day: OpenDay; readonly batch: BatchRecord; readonly unit: TemperatureUnit }) {
  const record = useKitchen((state) => state.record);
  const person = (id: string): string => day.book.station.people.find((one) => one.id === id)?.name ?? id;
  const [asking, setAsking] = useState<string | null>(null);
  const rows = [...batch.readings].sort((left, right) => right.at - left.at);
  return (
    <View style={{ gap: 6 }}>
      {rows.length === 0 ? <Note>No reading yet.</Note> : null}
      {rows.map((row) => (
        <View key={row.eventId} style={{ gap: 6 }}>
          <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
            <Strong style={{ width: 52, fontVariant: ['tabular-nums'] }}>{day.at(row.at)}</Strong>
            <Strong style={{ width: 84, textAlign: 'right', fontVariant: ['tabular-nums'] }}>{words.degrees(row.reading.value, row.reading.unit)}</Strong>
            <Note
              style={{ flex: 1 }}
            >{`${row.reading.unit === unit ? '' : `${words.degrees(readingIn(row.reading, unit), unit)}, `}${words.PURPOSE[row.purpose].toLowerCase()}, ${person(row.by)}${row.heldS === null ? '' : `, held ${String(row.heldS)} s`}`}</Note>
            <Action
              label="Void"
              hint={`Void the reading of ${day.at(row.at)}`}
              onPress={() => {
                setAsking(asking === row.eventId ? null : row.eventId);
              }}
            />
          </View>
          {asking === row.eventId ? (
            <View style={{ gap: 6 }}>
              <Note>It stays in the record, marked, and no longer counts. Why?</Note>
              <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
                {['Wrong digits', 'Wrong batch', 'Probe not in the soup'].map((reason) => (
                  <Action
                    key={reason}
                    label={reason}
                    onPress={() => {
                      record([{ kind: 'event.voided/1', data: { eventId: row.eventId, reason } }]);
                      setAsking(null);
                    }}
                  />
                ))}
              </View>
            </View>
          ) : null}
        </View>
      ))}
      {batch.correctives.map((row) => (
        <View key={row.eventId} style={{ flexDirection: 'row', gap: 10 }}>
          <Strong style={{ width: 52 }}>{day.at(row.at)}</Strong>
          <Body
            style={{ flex: 1 }}
          >{`Corrective action: ${words.ACTION[row.action].name.toLowerCase()}${row.volumeL === null ? '' : `, ${words.litres(row.volumeL)}`}${row.note === '' ? '' : `. ${row.note}`} (${person(row.by)})`}</Body>
        </View>
      ))}
    </View>
  );
}

/** One batch's temperatures: where it stands, the curve, the pad, what to do, what was read. */
export function BatchLog({ day, batch }: { readonly day: OpenDay; readonly batch: BatchRecord }) {
  const record = useKitchen((state) => state.record);
  const now = useNow(5000);
  const wide = useIsWide();
  const soup = day.soupById.get(batch.soupId);
  const { book } = day;
  const pack = book.pack as RulePack;
  const unit: TemperatureUnit = book.kitchen.temperatureUnit;
  const standing = standingOf(batch, day, now);
  const purpose = purposeOf(batch);
  const cooling = standing?.verdicts.cooling ?? null;
  const clockFrom = cooling?.clockFrom ?? null;
  const showCurve = cooling !== null && standing?.purpose === 'cool';
  const forecast = showCurve && standing.kind === 'inProgress' ? forecastOf(batch, cooling, pack.cooling, unit) : null;
  const place =
    batch.stage.kind === 'cooling'
      ? day.names.resource(batch.coolingSegments.at(-1)?.placeId ?? '')
      : batch.stage.kind === 'holding'
        ? day.names.resource(batch.stage.placeId)
        : '';
  const log = (reading: Reading, heldS: number | null): void => {
    if (purpose !== null) record([{ kind: 'reading.taken/1', data: { batchId: batch.batchId, purpose, reading, heldS, packId: pack.id, packVersion: pack.version } }]);
  };
  const pad = purpose === null ? null : <ReadingPad key={purpose} batchName={batch.name} purpose={purpose} kitchenUnit={unit} pack={pack} onLog={log} />;
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
              ? 'Still cooking. Its temperatures are logged from when it is held or cooled.'
              : batch.stage.kind === 'discarded'
                ? (batch.correctives.at(-1)?.note ?? '')
                : 'Out of the kettle. Say on Now where it goes.'}
          </Body>
        ) : (
          <View role="status" aria-live="polite" style={{ gap: 4 }}>
            <StateMark mark={markOf(standing.kind)} word={words.VERDICT[standing.kind]} />
            <Strong style={{ fontSize: 18, lineHeight: 24 }}>{standing.says}</Strong>
            {forecast === null || cooling === null ? null : <Body>{words.forecast(forecast, cooling.stage1.kind === 'pass', pack.cooling, unit, day.at)}</Body>}
            {cooling?.rose === true && showCurve ? <Body>A reading rose by more than 3 °F. Probe moved, or another pan? Read again.</Body> : null}
            <Note>{`${standing.citation}. ${place === '' ? '' : `In ${place}. `}${clockFrom === null || !showCurve ? '' : `Clock from ${day.at(clockFrom)}.`}`}</Note>
          </View>
        )}
        {showCurve ? (
          <CoolingCurve batch={batch} verdict={cooling} forecast={forecast} rule={pack.cooling} unit={unit} toneHex={soup?.toneHex ?? '#888888'} says={standing.says} />
        ) : null}
      </Sheet>
      {standing !== null && (standing.kind === 'fail' || standing.kind === 'undetermined') && batch.stage.kind !== 'discarded' ? (
        <Sheet>
          <Corrective batch={batch} standing={standing} />
        </Sheet>
      ) : null}
      {wide ? (
        <View style={{ flexDirection: 'row', gap: 14, alignItems: 'flex-start' }}>
          {pad === null ? null : <View style={{ flex: 3 }}>{pad}</View>}
          <View style={{ flex: 4 }}>{readings}</View>
        </View>
      ) : (
        pad
      )}
      <Moves day={day} batch={batch} standing={standing} />
      {wide ? null : readings}
      {standing !== null && standing.kind !== 'fail' && standing.kind !== 'undetermined' ? (
        <Sheet>
          <Corrective batch={batch} standing={standing} />
          {standing.actions.length === 0 ? <Note>Nothing to correct.</Note> : null}
        </Sheet>
      ) : null}
      <Took day={day} batch={batch} />
      <Note>{AUTHORITY}</Note>
    </View>
  );
}
