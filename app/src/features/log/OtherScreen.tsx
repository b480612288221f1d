import { words } from '@broth/contract';
import { addMinutes, boilingPointC, corrected, limitIn, offsetIn } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import { useDay } from '../../state/useDay';
import type { OpenDay } from '../../state/useDay';
import { useNow } from '../../state/useNow';
import { Action, Choice } from '../../ui/Action';
import { Field, Pick } from '../../ui/Field';
import { Screen, Waiting } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { useBack } from '../book/useBack';
import { ReadingPad } from './ReadingPad';
import type { Entered } from './ReadingPad';
import { usableThermometers } from './thermometer';

const WHAT = [
  { value: 'place', label: 'A cold place' },
  { value: 'receive', label: 'A delivery' },
  { value: 'thaw', label: 'What thaws' },
] as const;
type What = (typeof WHAT)[number]['value'];

function Told({ day }: { readonly day: OpenDay }) {
  const rows = [
    ...day.state.placeReadings.map((one) => ({ ...one, name: day.names.resource(one.equipmentId), more: one.note })),
    ...day.state.items.map((one) => ({
      ...one,
      name: one.what,
      more: `${one.purpose === 'receive' ? 'received' : 'thawing'}, ${one.accepted ? 'accepted' : 'refused'}${one.note === '' ? '' : `: ${one.note}`}`,
    })),
  ].sort((left, right) => right.at - left.at);
  if (rows.length === 0) return null;
  return (
    <Sheet label="Read today">
      <Title level={2}>Read today</Title>
      {rows.map((row) => (
        <View key={row.eventId} style={{ flexDirection: 'row', gap: 10 }}>
          <Strong style={{ width: 52 }}>{day.at(row.at)}</Strong>
          <Strong style={{ width: 84, textAlign: 'right' }}>{words.degrees(row.reading.value, row.reading.unit)}</Strong>
          <Note style={{ flex: 1 }}>{`${row.name}${row.more === '' ? '' : `, ${row.more}`} (${day.nameOf(row.by)})`}</Note>
        </View>
      ))}
    </Sheet>
  );
}

/** A temperature that is of no batch: a fridge, a delivery, a thing that thaws. */
export function OtherScreen() {
  const back = useBack('/log');
  const day = useDay();
  const now = useNow(5000);
  const record = useKitchen((state) => state.record);
  const [what, setWhat] = useState<What>('place');
  const [equipmentId, setEquipmentId] = useState('');
  const [name, setName] = useState('');
  const [from, setFrom] = useState('');
  const [note, setNote] = useState('');
  const [said, setSaid] = useState<{ readonly good: boolean; readonly says: string } | null>(null);
  const [pending, setPending] = useState<Entered | null>(null);
  if (day === null) {
    return (
      <Screen title="Other temperature" day={false} back={back}>
        <Waiting />
      </Screen>
    );
  }
  const places = day.book.station.equipment.flatMap((thing) => (thing.kind === 'cooling' && thing.inUse ? [thing] : [])).sort((left, right) => right.capacityL - left.capacityL);
  const place = places.find((one) => one.id === equipmentId) ?? places[0];
  const unit = day.book.kitchen.temperatureUnit;
  const { coldHold, version: rulesVersion } = day.rulesNow;
  const limit = coldHold === null ? '' : words.limit(coldHold.limit, unit);
  const offsetOf = ({ thermometer, reading }: Entered): number => (thermometer === null ? 0 : offsetIn(thermometer.offset, thermometer.unit, reading.unit));
  /** As it counts: less what the thermometer shows too much. */
  const valueOf = (entered: Entered): number => corrected(entered.reading.value, offsetOf(entered));
  const isGood = (entered: Entered): boolean => coldHold === null || valueOf(entered) <= limitIn(coldHold.limit, entered.reading.unit);
  const carried = (entered: Entered) => ({ reading: entered.reading, thermometerId: entered.thermometer?.id ?? null, offset: offsetOf(entered), rulesVersion });
  const when = (entered: Entered) => (entered.minutesAgo === 0 ? {} : { at: addMinutes(now, -entered.minutesAgo) });
  const done = (good: boolean, says: string): void => {
    setSaid({ good, says });
    setPending(null);
    setNote('');
    setName('');
  };
  const log = (entered: Entered): void => {
    if (what === 'place') {
      if (place === undefined) return;
      record([{ kind: 'place.read/1', data: { equipmentId: place.id, ...carried(entered), note }, ...when(entered) }]);
      const good = isGood(entered);
      done(good, good ? `${place.name}: logged.` : `${place.name} is above ${limit}. Check door, load and thermostat, read the food in it, and move what is at risk.`);
    } else setPending(entered);
  };
  const item = (accepted: boolean): void => {
    if (pending === null || what === 'place') return;
    record([{ kind: 'item.read/1', data: { purpose: what, what: name.trim(), from: from.trim(), ...carried(pending), accepted, note }, ...when(pending) }]);
    done(accepted, `${name.trim()}: ${accepted ? 'accepted' : 'refused'}, logged.`);
  };
  const ready = what === 'place' ? place !== undefined : name.trim() !== '';
  return (
    <Screen title="Other temperature" day={false} back={back}>
      <View style={{ maxWidth: 560, gap: 12 }}>
        <Choice
          label="What was read"
          value={what}
          options={WHAT}
          onPick={(next) => {
            setWhat(next);
            setSaid(null);
            setPending(null);
          }}
        />
        {what === 'place' ? (
          places.length === 0 ? (
            <Body>No cold place is in use. Put one into use under Kitchen.</Body>
          ) : (
            <Pick label="Which" value={place?.id ?? ''} options={places.map((one) => ({ value: one.id, label: one.name }))} onPick={setEquipmentId} />
          )
        ) : (
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <Field label="What is it" value={name} onChange={setName} />
            <Field label={what === 'receive' ? 'From whom' : 'Where it thaws'} value={from} onChange={setFrom} />
          </View>
        )}
        {limit === '' ? null : (
          <Note>{`Cold food: ${limit} or below. ${what === 'thaw' ? 'In the cold room, under running water, or as part of cooking; never on the bench.' : ''}`}</Note>
        )}
        <View role="status" aria-live="polite">
          {said === null ? null : (
            <View style={{ flexDirection: 'row', gap: 8 }}>
              <StateMark mark={said.good ? 'fine' : 'stop'} />
              <Body style={{ flex: 1 }}>{said.says}</Body>
            </View>
          )}
        </View>
        {pending === null ? (
          ready ? (
            <ReadingPad
              key={what}
              name={what === 'place' ? (place?.name ?? '') : name}
              kitchenUnit={unit}
              point="warmest"
              context={{ purpose: what === 'place' ? 'coldHold' : 'receive', boilingC: boilingPointC(day.book.station.altitudeM) }}
              now={now}
              thermometers={usableThermometers(day)}
              onLog={log}
            />
          ) : (
            <Body>Say what it is first.</Body>
          )
        ) : (
          <Sheet label="Take it or not">
            <View style={{ flexDirection: 'row', gap: 8 }}>
              <StateMark mark={isGood(pending) ? 'fine' : 'stop'} />
              <Strong style={{ flex: 1 }}>{`${name}: ${words.degrees(valueOf(pending), pending.reading.unit)}${isGood(pending) ? '' : `, above ${limit}`}`}</Strong>
            </View>
            {isGood(pending) ? null : <Note>Frozen goods, shell eggs and a few others have limits of their own. When in doubt, refuse it.</Note>}
            <Field label="Note" value={note} onChange={setNote} />
            <View style={{ flexDirection: 'row', gap: 8 }}>
              <Action
                style={{ flex: 1 }}
                kind={isGood(pending) ? 'main' : 'plain'}
                label="Accept"
                disabled={!isGood(pending) && note.trim() === ''}
                hint={isGood(pending) ? 'Accept it' : 'Accept it all the same: say why in the note first'}
                onPress={() => {
                  item(true);
                }}
              />
              <Action
                style={{ flex: 1 }}
                kind="stop"
                label="Refuse"
                onPress={() => {
                  item(false);
                }}
              />
            </View>
          </Sheet>
        )}
        <Told day={day} />
      </View>
    </Screen>
  );
}
