import { ScrollView, View } from 'react-native';
import { usePreferences } from '../../state/preferences';
import { useDay } from '../../state/useDay';
import { useNow } from '../../state/useNow';
import { usePlan } from '../../state/usePlan';
import { lazyPart } from '../../ui/lazily';
import { Screen, WaitingForPlan, useIsWide } from '../../ui/Screen';
import { BoardPanel } from './BoardPanel';
import { PlanFoot } from './PlanFoot';
import { useMoves, useUndoKeys } from './useMoves';

const PlanVersions = lazyPart(() => import('../later').then((part) => part.PlanVersions));
const TakeAway = lazyPart(() => import('../later').then((part) => part.TakeAway));

export function BoardScreen() {
  const day = useDay();
  const wide = useIsWide();
  const now = useNow(15_000);
  const shown = usePlan(usePreferences((state) => state.who));
  const moves = useMoves(day, shown?.plan ?? null);
  useUndoKeys(moves);
  if (day === null || shown === null) {
    return (
      <Screen title="Board">
        <WaitingForPlan />
      </Screen>
    );
  }
  return (
    <Screen title="Board" foot={shown.kind === 'accepted' ? null : <PlanFoot day={day} shown={shown} moves={moves} />} scroll={false}>
      <ScrollView tabIndex={0} style={{ flex: 1 }}>
        <View style={{ padding: wide ? 20 : 12, gap: 12 }}>
          <BoardPanel day={day} shown={shown} nowMin={day.minuteOf(now)} moves={moves} down={!wide} />
          {day.view.plan === null ? null : (
            <View style={wide ? { maxWidth: 620, gap: 12 } : { gap: 12 }}>
              <TakeAway day={day} />
              {day.view.plan.version < 2 ? null : <PlanVersions day={day} shown={shown.plan} version={day.view.plan.version} />}
            </View>
          )}
        </View>
      </ScrollView>
    </Screen>
  );
}
