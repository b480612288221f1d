import { words } from '@broth/contract';
import { dateMarkLastDay, useBy } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { Field } from '../../ui/Field';
import { dayName } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Note, Strong } from '../../ui/Type';

/** What is on hand past its date mark: thrown away with litres and reason, and then it is no stock any more. */
export function PastDate({ day }: { readonly day: OpenDay }) {
  const record = useKitchen((state) => state.record);
  const [asking, setAsking] = useState<string | null>(null);
  const [reason, setReason] = useState('');
  const gone = new Set(day.state.discardedLots.map((one) => one.lotId));
  const lastDay = dateMarkLastDay(day.rulesNow);
  const past = day.view.lots.filter((lot) => lot.state !== 'frozen' && useBy(lot, lastDay) < day.view.date && !gone.has(lot.id));
  return past.map((lot) => (
    <Sheet key={lot.id} label={`Past its date: ${day.names.soup(lot.soupId)}`}>
      <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
        <StateMark mark="stop" />
        <View style={{ flex: 1 }}>
          <Strong>{`${day.names.soup(lot.soupId)}: ${words.litres(lot.volumeL)} past its date`}</Strong>
          <Note>{`Made ${dayName(lot.preparedOn)}, to be used by ${dayName(useBy(lot, lastDay))}. ${day.rulesNow.dateMark.made?.citation ?? ''}`}</Note>
        </View>
        {asking === lot.id ? null : (
          <Action
            kind="stop"
            label="Discard"
            hint={`Discard ${day.names.soup(lot.soupId)} past its date`}
            onPress={() => {
              setAsking(lot.id);
              setReason('past its date');
            }}
          />
        )}
      </View>
      {asking === lot.id ? (
        <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-end' }}>
          <Field label="Why" value={reason} onChange={setReason} />
          <Action
            kind="stop"
            label={`${words.litres(lot.volumeL)} away`}
            disabled={reason.trim() === ''}
            onPress={() => {
              record([{ kind: 'lot.discarded/1', data: { lotId: lot.id, soupId: lot.soupId, volumeL: lot.volumeL, reason: reason.trim() } }]);
              setAsking(null);
            }}
          />
        </View>
      ) : null}
    </Sheet>
  ));
}
