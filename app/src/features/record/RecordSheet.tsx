import type { DayRecord, RecordLine } from '@broth/contract/record';
import { words } from '@broth/contract';
import * as advice from '@broth/contract/advice';
import { useState } from 'react';
import { View } from 'react-native';
import { Choice } from '../../ui/Action';
import { Sheet } from '../../ui/Sheet';
import { StateMark, markOf } from '../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../ui/Type';

const FILTERS = [
  { value: 'all', label: 'All' },
  { value: 'bad', label: 'Not right' },
  { value: 'readings', label: 'Readings' },
  { value: 'actions', label: 'Actions' },
] as const;
type Filter = (typeof FILTERS)[number]['value'];

function isBad(line: RecordLine): boolean {
  return (
    line.what === 'missed' ||
    line.what === 'action' ||
    line.what === 'correction' ||
    line.late ||
    line.voided ||
    line.suspect ||
    line.verdict === 'fail' ||
    line.verdict === 'undetermined' ||
    line.verdict === 'overdue'
  );
}

function shows(line: RecordLine, filter: Filter): boolean {
  switch (filter) {
    case 'all':
      return true;
    case 'bad':
      return isBad(line);
    case 'readings':
      return line.temperature !== null;
    case 'actions':
      return line.temperature === null;
  }
}

function Line({ line }: { readonly line: RecordLine }) {
  const more = [
    line.says,
    line.rule,
    line.thermometer,
    line.offset === 0 ? '' : `offset ${words.number(line.offset)} taken off`,
    line.litres === null ? '' : words.litres(line.litres),
    line.note,
    line.late ? 'entered late' : '',
    line.voided ? 'voided' : '',
    line.suspect ? 'its thermometer failed the next check' : '',
    line.by,
    line.seq === 0 ? '' : `no. ${String(line.seq)}`,
  ].filter((one) => one !== '');
  const about = [line.batch === '' ? line.soup : line.batch, line.purpose.toLowerCase(), line.pan === null ? '' : `pan ${String(line.pan)}`].filter((one) => one !== '').join(', ');
  return (
    <View style={{ flexDirection: 'row', gap: 10, paddingVertical: 4 }}>
      {/* The local time with its offset: an hour that there is twice stays two. */}
      <View style={{ width: 62 }}>
        <Strong style={{ fontVariant: ['tabular-nums'] }}>{advice.wall(line.takenAt).clock}</Strong>
        <Note style={{ fontSize: 12 }}>{advice.wall(line.takenAt).offset}</Note>
      </View>
      <Strong style={{ width: 76, textAlign: 'right', fontVariant: ['tabular-nums'], textDecorationLine: line.voided ? 'line-through' : 'none' }}>
        {line.temperature === null ? '' : words.degrees(line.temperature, line.unit ?? 'C')}
      </Strong>
      <View style={{ flex: 1 }}>
        <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
          {line.verdict === null ? null : <StateMark mark={markOf(line.verdict)} size={16} />}
          <Strong style={{ flex: 1 }}>{about === '' ? line.says : about}</Strong>
        </View>
        <Note>{more.join(' · ')}</Note>
      </View>
    </View>
  );
}

/** A day's record to be read: verdicts, what is open, every entry, patterns. The same for the kitchen and for an inspector. */
export function RecordSheet({ record }: { readonly record: DayRecord }) {
  const [filter, setFilter] = useState<Filter>('all');
  const lines = record.lines.filter((line) => shows(line, filter));
  return (
    <View style={{ gap: 12 }}>
      <Note>{record.notice}</Note>
      {record.open.length === 0 ? null : (
        <Sheet label="Open">
          {record.open.map((one) => (
            <View key={one} style={{ flexDirection: 'row', gap: 8 }}>
              <StateMark mark="stop" />
              <Body style={{ flex: 1 }}>{one}</Body>
            </View>
          ))}
        </Sheet>
      )}
      <Sheet label="Verdicts">
        <Title level={2}>Verdicts</Title>
        {record.verdicts.length === 0 ? <Note>Nothing was cooked, held, cooled or reheated yet.</Note> : null}
        {record.verdicts.map((one) => (
          <View key={`${one.batchId} ${one.purpose}`} style={{ gap: 2, paddingVertical: 4 }}>
            <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
              <Strong style={{ flex: 1 }}>{`${one.batch}, ${one.purpose.toLowerCase()}`}</Strong>
              <StateMark mark={markOf(one.verdict)} word={words.VERDICT[one.verdict]} />
            </View>
            <Body style={{ fontSize: 15 }}>{one.says}</Body>
            <Note>{`${one.rule}${one.proof.length === 0 ? '' : `; stands on ${one.proof.join(', ')}`}`}</Note>
          </View>
        ))}
      </Sheet>
      {record.patterns.length === 0 ? null : (
        <Sheet label="Patterns">
          <Title level={2}>For the reviewer</Title>
          {record.patterns.map((one) => (
            <Body key={one}>{one}</Body>
          ))}
          <Note>Patterns, not accusations: ask.</Note>
        </Sheet>
      )}
      <Sheet label="Entries">
        <Title level={2}>{`Entries (${String(lines.length)})`}</Title>
        <Choice label="Which entries" value={filter} options={FILTERS} onPick={setFilter} />
        {lines.length === 0 ? <Note>None.</Note> : null}
        {lines.map((line) => (
          <Line key={`${String(line.seq)} ${line.eventId} ${String(line.at)} ${line.thermometer}`} line={line} />
        ))}
      </Sheet>
      <Note>{`Written ${record.writtenAt.slice(0, 16).replace('T', ' ')}. Head of the log: entry ${String(record.head.seq)}, ${record.head.hash.slice(0, 16)}…`}</Note>
    </View>
  );
}
