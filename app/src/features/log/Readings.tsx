import { words } from '@broth/contract';
import { readingIn } from '@broth/core';
import type { BatchRecord, ReadingRecord, TemperatureUnit } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { Field } from '../../ui/Field';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Strong } from '../../ui/Type';

/** A probe says something every minute: the list has every tenth of it, the record all that counts. */
const EVERY = 10;

function tell(row: ReadingRecord, day: OpenDay, unit: TemperatureUnit): string {
  const thermometer = day.book.station.thermometers.find((one) => one.id === row.thermometerId)?.name;
  return [
    row.reading.unit === unit ? '' : words.degrees(readingIn(row.reading, unit), unit),
    words.PURPOSE[row.purpose].toLowerCase(),
    row.pan === null ? '' : `pan ${String(row.pan)}`,
    thermometer ?? '',
    row.offset === 0 ? '' : `showed ${words.degrees(row.shown.value, row.shown.unit)}`,
    row.heldS === null ? '' : `held ${String(row.heldS)} s`,
    row.source === 'probe' ? '' : day.nameOf(row.by),
    row.lateReason === null ? '' : `late: ${row.lateReason}`,
  ]
    .filter((one) => one !== '')
    .join(', ');
}

/** What was read and done, the newest first. An entry is corrected by a note beside it, never removed. */
export function Readings({ day, batch, unit }: { readonly day: OpenDay; readonly batch: BatchRecord; readonly unit: TemperatureUnit }) {
  const record = useKitchen((state) => state.record);
  const [asking, setAsking] = useState<string | null>(null);
  const [why, setWhy] = useState('');
  let probes = 0;
  const rows = [...batch.readings].sort((left, right) => right.at - left.at).filter((row) => row.source === 'hand' || (probes += 1) % EVERY === 1);
  const voided = (eventId: string, reason: string): void => {
    record([{ kind: 'event.voided/1', data: { eventId, reason } }]);
    setAsking(null);
    setWhy('');
  };
  return (
    <View style={{ gap: 6 }}>
      {rows.length === 0 ? <Note>No reading yet.</Note> : null}
      {rows.map((row) => (
        <View key={`${row.eventId} ${row.thermometerId ?? ''}`} style={{ gap: 6 }}>
          <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
            <Strong style={{ width: 52, fontVariant: ['tabular-nums'] }}>{day.at(row.at)}</Strong>
            <Strong style={{ width: 84, textAlign: 'right', fontVariant: ['tabular-nums'] }}>{words.degrees(row.reading.value, row.reading.unit)}</Strong>
            <Note style={{ flex: 1 }}>{tell(row, day, unit)}</Note>
            {row.source === 'probe' ? null : (
              <Action
                label="Void"
                hint={`Void the reading of ${day.at(row.at)}`}
                onPress={() => {
                  setAsking(asking === row.eventId ? null : row.eventId);
                }}
              />
            )}
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
                      voided(row.eventId, reason);
                    }}
                  />
                ))}
              </View>
              <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-end' }}>
                <Field label="Another reason" value={why} onChange={setWhy} />
                <Action
                  label="Void it"
                  disabled={why.trim() === ''}
                  onPress={() => {
                    voided(row.eventId, why.trim());
                  }}
                />
              </View>
            </View>
          ) : null}
        </View>
      ))}
      {batch.iced.map((row) => (
        <View key={row.eventId} style={{ flexDirection: 'row', gap: 10 }}>
          <Strong style={{ width: 52 }}>{day.at(row.at)}</Strong>
          <Body style={{ flex: 1 }}>{`${words.number(row.massKg)} kg of ice stirred in (${day.nameOf(row.by)})`}</Body>
        </View>
      ))}
      {batch.correctives.map((row) => (
        <View key={row.eventId} style={{ flexDirection: 'row', gap: 10 }}>
          <Strong style={{ width: 52 }}>{day.at(row.at)}</Strong>
          <Body
            style={{ flex: 1 }}
          >{`Corrective action: ${words.ACTION[row.action].name.toLowerCase()}${row.volumeL === null ? '' : `, ${words.litres(row.volumeL)}`}${row.note === '' ? '' : `. ${row.note}`} (${day.nameOf(row.by)})`}</Body>
        </View>
      ))}
      {batch.decisions.map((row) => (
        <View key={row.eventId} style={{ flexDirection: 'row', gap: 10 }}>
          <Strong style={{ width: 52 }}>{day.at(row.at)}</Strong>
          <Body style={{ flex: 1 }}>{`${row.keep ? 'Kept' : 'Not kept'}: ${row.reason} (${day.nameOf(row.by)})`}</Body>
        </View>
      ))}
    </View>
  );
}

/** Checks nobody made: they can be explained, and stay missed. */
export function Missed({ day, batch, dues }: { readonly day: OpenDay; readonly batch: BatchRecord; readonly dues: readonly number[] }) {
  const record = useKitchen((state) => state.record);
  const [why, setWhy] = useState('');
  const open = dues.filter((dueAt) => !batch.explained.some((one) => one.dueAt === dueAt));
  if (dues.length === 0) return null;
  return (
    <View role="group" aria-label="Missed checks" style={{ gap: 8 }}>
      <StateMark mark="soon" word={dues.length === 1 ? 'One check missed' : `${String(dues.length)} checks missed`} />
      {dues.map((dueAt) => (
        <Body key={dueAt}>{`${day.at(dueAt)}: ${batch.explained.find((one) => one.dueAt === dueAt)?.reason ?? 'not made'}`}</Body>
      ))}
      {open.length === 0 ? null : (
        <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-end' }}>
          <Field label="Why" value={why} onChange={setWhy} />
          <Action
            label="Note it"
            disabled={why.trim() === ''}
            onPress={() => {
              record(open.map((dueAt) => ({ kind: 'check.explained/1', data: { batchId: batch.batchId, dueAt, reason: why.trim() } })));
              setWhy('');
            }}
          />
        </View>
      )}
      <Note>It stays in the record as missed. A good reading later does not prove the time before.</Note>
    </View>
  );
}
