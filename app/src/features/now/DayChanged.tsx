import { words } from '@broth/contract';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { OpenDay } from '../../state/useDay';
import { isOffer } from '../../state/usePlan';
import type { ShownPlan } from '../../state/usePlan';
import { Action } from '../../ui/Action';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note } from '../../ui/Type';
import { BECAUSE } from '../board/PlanFoot';

/** The day is no longer what the plan was made for: what would be otherwise, and the choice. */
export function DayChanged({ day, shown }: { readonly day: OpenDay; readonly shown: ShownPlan }) {
  const router = useRouter();
  const { because, difference } = shown;
  if (because === null || because === 'none' || because === 'moved') return null;
  const cannot = words.findings(
    shown.plan.findings.filter((found) => ['station.lacks', 'station.instead', 'station.nobody', 'plan.unplaced', 'plan.overtime', 'plan.late'].includes(found.code)),
    shown.plan,
    day.names,
  );
  return (
    <Sheet label={BECAUSE[because]}>
      <StateMark mark={isOffer(shown) ? 'open' : 'soon'} word={BECAUSE[because]} />
      <Body>{difference === null ? 'A new plan is being worked out.' : words.planDifference(difference, day.names)}</Body>
      {cannot.slice(0, 2).map((said) => (
        <Note key={said}>{said}</Note>
      ))}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {shown.keep === null ? null : <Action label="Keep as agreed" onPress={shown.keep} />}
        <Action
          label="Look at it"
          hint="Look at the new plan on the board"
          onPress={() => {
            router.navigate('/board');
          }}
        />
        <Action style={{ flexGrow: 1 }} kind="main" label="Use the new plan" disabled={shown.improving || shown.accepting} onPress={() => void shown.accept()} />
      </View>
    </Sheet>
  );
}
