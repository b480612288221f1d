import { useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import { useHands } from '../../state/useHands';
import { useNow } from '../../state/useNow';
import { Choice } from '../../ui/Action';
import { Screen, Waiting } from '../../ui/Screen';
import { useBack } from '../book/useBack';
import { Lost, MoreGuests, Result } from './Soups';
import { Equipment, People } from './Station';
import { HandOver, Notes, Timer } from './Told';
import type { Do } from './line';

const WHAT = [
  { value: 'stopped', label: 'Out of order' },
  { value: 'gone', label: 'Somebody is gone' },
  { value: 'lost', label: 'A batch is lost' },
  { value: 'guests', label: 'More guests' },
  { value: 'timer', label: 'A timer' },
  { value: 'note', label: 'A note' },
  { value: 'result', label: 'How it came out' },
  { value: 'handover', label: 'Handing over' },
] as const;

/** What no plan foresees, one tap away from Now: each entry is an event like any other, and the plan follows it. */
export function HappenedScreen() {
  const back = useBack('/now');
  const now = useNow(5000);
  const open = useHands(now);
  const record = useKitchen((state) => state.record);
  const [what, setWhat] = useState<(typeof WHAT)[number]['value'] | null>(null);
  const act: Do = (events) => {
    record(events);
  };
  if (open === null) {
    return (
      <Screen title="What happened" day={false} back={back}>
        <Waiting />
      </Screen>
    );
  }
  const { day, hands } = open;
  return (
    <Screen title="What happened" day={false} back={back}>
      <View style={{ maxWidth: 720, gap: 12 }}>
        <Choice label="What happened" value={what} options={WHAT} onPick={setWhat} />
        {what === 'stopped' ? <Equipment day={day} onDo={act} /> : null}
        {what === 'gone' ? <People day={day} now={now} onDo={act} /> : null}
        {what === 'lost' ? <Lost day={day} onDo={act} /> : null}
        {what === 'guests' ? <MoreGuests day={day} /> : null}
        {what === 'timer' ? <Timer onDo={act} /> : null}
        {what === 'note' ? <Notes day={day} onDo={act} /> : null}
        {what === 'result' ? <Result day={day} onDo={act} /> : null}
        {what === 'handover' ? <HandOver day={day} hands={hands} now={now} onDo={act} /> : null}
      </View>
    </Screen>
  );
}
