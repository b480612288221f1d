import { useState } from 'react';
import { View } from 'react-native';
import type { OpenDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { Pick } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';
import { Note, Title } from '../../ui/Type';

/** The accepted plan on paper and in other programs, for the station or for one pair of hands. */
export function TakeAway({ day }: { readonly day: OpenDay }) {
  const [person, setPerson] = useState('');
  const open = (file: string, query: Readonly<Record<string, string>> = {}): void => {
    const asked = new URLSearchParams({ ...query, ...(person === '' ? {} : { person }) }).toString();
    window.open(`/api/kitchens/${day.book.kitchen.id}/days/${day.view.date}/${file}${asked === '' ? '' : `?${asked}`}`, '_blank');
  };
  return (
    <Sheet label="On paper">
      <Title level={2}>On paper, in a calendar</Title>
      <Note>The plan that was accepted, with names for the hands.</Note>
      <Pick
        label="For"
        value={person}
        options={[{ value: '', label: 'the station' }, ...day.book.station.people.map((one) => ({ value: one.id, label: one.name }))]}
        onPick={setPerson}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Action
          label="Run sheet, A4"
          onPress={() => {
            open('run-sheet.pdf', { paper: 'a4' });
          }}
        />
        <Action
          label="Letter"
          hint="Run sheet, Letter"
          onPress={() => {
            open('run-sheet.pdf', { paper: 'letter' });
          }}
        />
        <Action
          label="Calendar"
          onPress={() => {
            open('plan.ics');
          }}
        />
        <Action
          label="CSV"
          onPress={() => {
            open('plan.csv');
          }}
        />
      </View>
    </Sheet>
  );
}
