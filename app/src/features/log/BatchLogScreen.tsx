import { useLocalSearchParams, useRouter } from 'expo-router';
import { useDay } from '../../state/useDay';
import { Screen, Waiting } from '../../ui/Screen';
import { Body } from '../../ui/Type';
import { BatchLog } from './BatchLog';

export function BatchLogScreen() {
  const day = useDay();
  const router = useRouter();
  const { batchId } = useLocalSearchParams<{ batchId: string }>();
  const batch = day?.state.batches[batchId];
  return (
    <Screen
      title={batch?.name ?? 'Log'}
      day={false}
      back={() => {
        router.navigate('/log');
      }}
    >
      {day === null ? <Waiting /> : batch === undefined ? <Body>This batch has not been started on the open day.</Body> : <BatchLog day={day} batch={batch} />}
    </Screen>
  );
}
