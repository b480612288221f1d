import { words } from '@broth/contract';
import type { Cure, DayPlan } from '@broth/core';
import { useEffect } from 'react';
import { View } from 'react-native';
import { useDesk } from '../../state/desk';
import { useKitchen } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';
import { askCures } from '../../state/usePlan';
import { Action } from '../../ui/Action';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Title } from '../../ui/Type';

/** What one thing would change; what only the plan has to do can be done at once. */
function CureLine({ day, plan, cure }: { readonly day: OpenDay; readonly plan: DayPlan; readonly cure: Cure }) {
  const change = useDesk((state) => state.change);
  const patchStation = useKitchen((state) => state.patchStation);
  const { whatIf } = cure;
  const said = words.cure(cure, day.names);
  return (
    <View style={{ gap: 4 }}>
      <Body>{said}</Body>
      {whatIf.kind === 'split' ? (
        <Action
          style={{ alignSelf: 'flex-start' }}
          label="Plan it so"
          hint={`Plan it so: ${day.names.soup(whatIf.split.soupId)} in ${String(whatIf.split.batches)} batches`}
          onPress={() => {
            change(plan, { splits: [...plan.splits.filter(({ soupId }) => soupId !== whatIf.split.soupId), whatIf.split] });
          }}
        />
      ) : null}
      {whatIf.kind === 'cutting' ? (
        <Action
          style={{ alignSelf: 'flex-start' }}
          label="Plan it so"
          hint="Plan it so: cutting may be put down and taken up again, from now on"
          onPress={() => {
            void patchStation({ interruptsCutting: true });
          }}
        />
      ) : null}
    </View>
  );
}

/** One more cook, one more kettle, a faster wash, a soup left out: what each would change about a plan that is late. */
export function WhatWouldHelp({ day, plan, nowMin }: { readonly day: OpenDay; readonly plan: DayPlan; readonly nowMin: number }) {
  const asked = useDesk((state) => state.cures);
  // A plan that gets better while it is asked is what is asked about.
  const isOvertaken = asked !== null && !asked.done && asked.of !== plan;
  useEffect(() => {
    if (isOvertaken) askCures(day, plan, nowMin);
  }, [isOvertaken, day, plan, nowMin]);
  const mine = asked !== null && (asked.of === plan || isOvertaken) ? asked : null;
  if (mine === null)
    return (
      <Action
        label="What would help?"
        onPress={() => {
          askCures(day, plan, nowMin);
        }}
      />
    );
  const found = mine.cures?.cures ?? [];
  const helpful = found.filter((one) => one.places > 0 || one.gainsMin > 0);
  const useless = words.noCures(
    found.filter((one) => !helpful.includes(one)),
    day.names,
  );
  return (
    <Sheet label="What would help">
      <Title level={2}>What would help</Title>
      <View aria-live="polite" style={{ gap: 6 }}>
        {helpful.map((one) => (
          <CureLine key={JSON.stringify(one.whatIf)} day={day} plan={plan} cure={one} />
        ))}
        {helpful.length === 0 && mine.done ? <Body>Nothing of what was tried does.</Body> : null}
        {useless === null ? null : <Note>{useless}</Note>}
        <Note>{mine.done ? 'Each was planned afresh from this plan. What is within the chance of the search is said to have no effect.' : 'Trying…'}</Note>
      </View>
    </Sheet>
  );
}
