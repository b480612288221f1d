import { words } from '@broth/contract';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { usePreferences } from '../../state/preferences';
import { useDay } from '../../state/useDay';
import { usePlan } from '../../state/usePlan';
import { Action } from '../../ui/Action';
import { Screen, WaitingForPlan, useIsWide } from '../../ui/Screen';
import { Note, Strong } from '../../ui/Type';
import { PlanFoot } from '../board/PlanFoot';
import { useMoves } from '../board/useMoves';
import { BatchList } from './BatchList';

export function BatchesScreen() {
  const day = useDay();
  const router = useRouter();
  const wide = useIsWide();
  const shown = usePlan(usePreferences((state) => state.who));
  const moves = useMoves(day, shown?.plan ?? null);
  const litres = shown?.plan.batches.reduce((sum, batch) => sum + batch.volumeL, 0) ?? 0;
  const foot = (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
      <View style={{ flex: 1 }}>
        <Strong>{shown === null ? 'No batches yet' : `${String(shown.plan.batches.length)} batches, ${words.litres(litres)}`}</Strong>
        <Note>{shown === null ? '' : shown.kind === 'accepted' ? 'As in the accepted plan' : 'Not accepted yet'}</Note>
      </View>
      <Action
        label="Prep list"
        onPress={() => {
          router.push('/prep');
        }}
      />
      <Action
        kind="main"
        label="Board"
        hint="See the board"
        onPress={() => {
          router.navigate('/board');
        }}
      />
    </View>
  );
  // What another size costs is said where it was picked.
  const changed = day !== null && shown?.because === 'moved' ? <PlanFoot day={day} shown={shown} moves={moves} /> : foot;
  return (
    <Screen title="Batches" foot={changed}>
      {day === null || shown === null ? <WaitingForPlan /> : <BatchList day={day} plan={shown.plan} columns={wide ? 3 : 1} />}
    </Screen>
  );
}
