import { words } from '@broth/contract';
import type { DayPlan } from '@broth/core';
import { View } from 'react-native';
import { useDesk } from '../../state/desk';
import type { OpenDay } from '../../state/useDay';
import { askCures } from '../../state/usePlan';
import { Action } from '../../ui/Action';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Title } from '../../ui/Type';

/** One more cook, one more kettle, a faster wash, a soup left out: what each would change about a plan that is late. */
export function WhatWouldHelp({ day, plan, nowMin }: { readonly day: OpenDay; readonly plan: DayPlan; readonly nowMin: number }) {
  const asked = useDesk((state) => state.cures);
  const mine = asked !== null && asked.of === plan ? asked : null;
  if (mine === null)
    return (
      <Action
        label="What would help?"
        onPress={() => {
          askCures(day, plan, nowMin);
        }}
      />
    );
  const found = mine.cures;
  return (
    <Sheet label="What would help">
      <Title level={2}>What would help</Title>
      <View aria-live="polite" style={{ gap: 6 }}>
        {found === null ? null : found.cures.map((one) => <Body key={JSON.stringify(one.whatIf)}>{words.cure(one, day.names)}</Body>)}
        <Note>{mine.done ? 'Each was planned afresh from this plan. What is within the chance of the search is said to have no effect.' : 'Trying…'}</Note>
      </View>
    </Sheet>
  );
}
