import { words } from '@broth/contract';
import { memo } from 'react';
import { View } from 'react-native';
import { useDesk } from '../../state/desk';
import { useKitchen } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';
import type { ShownPlan } from '../../state/usePlan';
import { Action } from '../../ui/Action';
import { Note, Strong } from '../../ui/Type';
import type { Moves } from './useMoves';

/** Why there is a draft. */
export const BECAUSE = {
  none: 'A draft',
  moved: 'Changed by hand',
  changed: 'The pars have changed',
  station: 'The station has changed',
  slipped: 'The day runs behind the plan',
  ahead: 'The day runs ahead of the plan',
  better: 'A better plan has been found',
} as const;

const LONGER_S = 10;
const LONGER = {
  searching: `The server looks for a better one, for ${String(LONGER_S)} s…`,
  better: 'The server found this better one.',
  same: `The server found none better in ${String(LONGER_S)} s.`,
} as const;

function noteOf(shown: ShownPlan, day: OpenDay): string {
  if (shown.improving) return shown.because === 'better' ? 'Looking for one better still…' : 'Looking for a better one…';
  if (shown.because === 'none') return 'Nobody works by it yet.';
  return shown.difference === null ? 'This is a new draft. Begun batches stay.' : words.planDifference(shown.difference, day.names);
}

/** What stands between the draft and its being the plan: what it cost, one step back, and the one thing to do. Nothing while people work by what is shown. */
export const PlanFoot = memo(function PlanFoot({ day, shown, moves }: { readonly day: OpenDay; readonly shown: ShownPlan; readonly moves: Moves }) {
  const letGo = useDesk((state) => state.letGo);
  const lookLonger = useDesk((state) => state.lookLonger);
  const searchPlan = useKitchen((state) => state.searchPlan);
  const online = useKitchen((state) => state.line === 'live');
  const longer = useDesk((state) => state.longer);
  const tried = longer?.of === shown.plan ? longer.state : null;
  if (shown.kind === 'accepted') return null;
  return (
    <View style={{ gap: 8 }}>
      <View aria-live="polite">
        <Strong>{BECAUSE[shown.because ?? 'none']}</Strong>
        <Note>{noteOf(shown, day)}</Note>
        {tried === null ? null : <Note>{LONGER[tried]}</Note>}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {moves.undo === null && moves.redo === null ? null : (
          <>
            <Action label="Undo" hint="Undo the last move" disabled={moves.undo === null} onPress={() => moves.undo?.()} />
            <Action label="Redo" hint="Do it again" disabled={moves.redo === null} onPress={() => moves.redo?.()} />
          </>
        )}
        {shown.because === 'moved' && day.view.plan !== null ? (
          <Action
            label="As agreed"
            hint="Back to the plan people work by"
            onPress={() => {
              letGo(day.view.plan?.plan ?? null);
            }}
          />
        ) : null}
        {shown.keep === null ? null : <Action label="Keep as agreed" hint="Go on by the plan people work by" onPress={shown.keep} />}
        {tried === null && !shown.improving && online ? <Action label="Look longer" onPress={() => void lookLonger((from, nowMin) => searchPlan(from, nowMin, LONGER_S))} /> : null}
        <Action
          style={{ flexGrow: 1, flexBasis: 160 }}
          kind="main"
          label="Use this plan"
          disabled={shown.accepting || shown.plan.batches.length === 0}
          onPress={() => void shown.accept()}
        />
      </View>
    </View>
  );
});
