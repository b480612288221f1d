import { words } from '@broth/contract';
import { useId } from 'react';
import { View } from 'react-native';
import { Toggles } from '../../ui/Field';
import { WhatIsWrong } from '../../ui/WhatIsWrong';

/** Days of the week as they are sent: 1 = Monday … 7 = Sunday. */
const DAYS = ['1', '2', '3', '4', '5', '6', '7'] as const;
export type Day = (typeof DAYS)[number];

/** What is ticked for what is known; left out = every day. */
export function picked(days: readonly number[] | undefined): readonly Day[] {
  return DAYS.filter((day) => days?.includes(Number(day)) !== false);
}

/** What is sent for what is ticked. */
export function sent(days: readonly Day[]): number[] | undefined {
  return days.length === DAYS.length ? undefined : days.map(Number).sort((left, right) => left - right);
}

/** `, Mon to Fri`; nothing for every day. */
export function onDays(days: readonly number[] | undefined): string {
  return days === undefined ? '' : `, ${words.weekdays(days)}`;
}

export function Days({ value, wrong, onChange }: { readonly value: readonly Day[]; readonly wrong: string | null; readonly onChange: (value: readonly Day[]) => void }) {
  const id = useId();
  return (
    <View style={{ gap: 4 }}>
      <Toggles label="On these days" value={value} options={DAYS.map((day) => ({ value: day, label: words.weekdays([Number(day)]) }))} onChange={onChange} />
      <WhatIsWrong id={id} says={wrong} />
    </View>
  );
}
