import { useDeferredValue } from 'react';
import type { ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import type { OpenDay } from '../../state/useDay';
import { useNow } from '../../state/useNow';
import type { ShownPlan } from '../../state/usePlan';
import { Screen, WaitingForPlan } from '../../ui/Screen';
import { Title } from '../../ui/Type';
import { BatchList } from '../batches/BatchList';
import { BoardPanel } from '../board/BoardPanel';
import { PlanFoot } from '../board/PlanFoot';
import { useMoves, useUndoKeys } from '../board/useMoves';

interface Props {
  readonly day: OpenDay;
  readonly shown: ShownPlan | null;
  /** What to do next while nothing waits to be accepted. */
  readonly foot: ReactNode;
  /** The pars. */
  readonly children: ReactNode;
}

function Column({ title, share, children }: { readonly title: string; readonly share: number; readonly children: ReactNode }) {
  return (
    <ScrollView tabIndex={0} aria-label={title} style={{ flex: share }} contentContainerStyle={{ gap: 12, paddingBottom: 24 }}>
      <Title level={2}>{title}</Title>
      {children}
    </ScrollView>
  );
}

/** The planning desk of a wide screen: pars, the batches they come to and the board beside each other; a change in one runs through the others. */
export function DeskScreen({ day, shown, foot, children }: Props) {
  const now = useNow(15_000);
  const moves = useMoves(day, shown?.plan ?? null);
  useUndoKeys(moves);
  const drawn = useDeferredValue(shown?.plan ?? null);
  return (
    <Screen title="Planning desk" foot={shown === null || shown.kind === 'accepted' ? foot : <PlanFoot day={day} shown={shown} moves={moves} />} scroll={false}>
      <View style={{ flex: 1, flexDirection: 'row', gap: 16, paddingHorizontal: 20 }}>
        <Column title="Par" share={4}>
          {children}
        </Column>
        <Column title="Batches" share={4}>
          {shown === null ? <WaitingForPlan /> : <BatchList day={day} plan={drawn ?? shown.plan} />}
        </Column>
        <Column title="Board" share={6}>
          {shown === null ? <WaitingForPlan /> : <BoardPanel day={day} shown={shown} nowMin={day.minuteOf(now)} moves={moves} down />}
        </Column>
      </View>
    </Screen>
  );
}
