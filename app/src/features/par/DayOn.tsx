import { words } from '@broth/contract';
import type { SalesView } from '@broth/contract';
import { DAY_EVENTS } from '@broth/core';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { api } from '../../state/api';
import { useKitchen } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import { salesChanged } from '../../state/useSales';
import { Action } from '../../ui/Action';
import { Pick, Toggles } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';

const LEVELS = [0.75, 0.9, 0.95, 0.98];

/** What is on that day, how seldom a soup may run out, and the way to what was sold. */
export function DayOn({ date, sales }: { readonly date: string; readonly sales: SalesView }) {
  const router = useRouter();
  const say = useKitchen((state) => state.say);
  const kitchenId = useKitchen((state) => state.book?.kitchen.id ?? '');
  const { serviceLevel, pickLevel } = usePreferences();
  return (
    <Sheet label="The day">
      <Toggles
        label="On that day"
        options={DAY_EVENTS.map((value) => ({ value, label: words.DAY_EVENT[value] }))}
        value={sales.events[date] ?? []}
        onChange={(events) => {
          api
            .putDayEvents(kitchenId, date, { events })
            .then(salesChanged)
            .catch((error: unknown) => {
              say(error instanceof Error ? error.message : String(error));
            });
        }}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, alignItems: 'flex-end' }}>
        <Pick
          label="Run out at most"
          width={220}
          value={String(serviceLevel)}
          options={LEVELS.map((level) => ({ value: String(level), label: words.oneDayIn(level) }))}
          onPick={(level) => {
            pickLevel(Number(level));
          }}
        />
        <Action
          label="Sales"
          onPress={() => {
            router.push('/sales');
          }}
        />
      </View>
    </Sheet>
  );
}
