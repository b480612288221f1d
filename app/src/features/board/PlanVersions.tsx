import { words } from '@broth/contract';
import type { StoredPlan } from '@broth/contract';
import { planDifference } from '@broth/core';
import type { DayPlan } from '@broth/core';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { api } from '../../state/api';
import { useDesk } from '../../state/desk';
import type { OpenDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Strong, Title } from '../../ui/Type';

/** Every plan that was accepted for the day, the newest first, and what each changed of the one before. Fetched when somebody asks. */
export function PlanVersions({ day, shown, version }: { readonly day: OpenDay; readonly shown: DayPlan; readonly version: number }) {
  const takeUp = useDesk((state) => state.takeUp);
  const [open, setOpen] = useState(false);
  const [plans, setPlans] = useState<readonly StoredPlan[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { id, timeZone } = day.book.kitchen;
  const { date } = day.view;
  useEffect(() => {
    if (!open) return;
    api
      .plans(id, date)
      .then((answer) => {
        setPlans(answer.plans);
        setTrouble(null);
      })
      .catch((error: unknown) => {
        setTrouble(error instanceof Error ? error.message : String(error));
      });
  }, [open, id, date, version]);
  const clock = new Intl.DateTimeFormat('en-GB', { timeZone, hour: 'numeric', minute: '2-digit' });
  const nameOf = (by: string): string => day.book.station.people.find((person) => person.id === by)?.name ?? by;
  return (
    <Sheet label="Plans of the day">
      <Title level={2}>Plans of the day</Title>
      {open ? null : (
        <Action
          style={{ alignSelf: 'flex-start' }}
          label={`All ${String(version)}, compared`}
          onPress={() => {
            setOpen(true);
          }}
        />
      )}
      {trouble === null ? null : <Body>{trouble}</Body>}
      {open && plans === null && trouble === null ? <Note>Fetching…</Note> : null}
      {open
        ? plans?.map((one, index) => {
            const before = plans[index + 1];
            return (
              <View key={one.version} style={{ gap: 2 }}>
                <Strong>{`${String(one.version)}, taken at ${clock.format(one.acceptedAt)} by ${nameOf(one.by)}`}</Strong>
                <Note>
                  {before === undefined
                    ? `The first: ${String(one.plan.batches.length)} batches, ${one.plan.objective.lateMin === 0 ? 'all in time' : `${words.duration(one.plan.objective.lateMin)} late in all`}.`
                    : words.planDifference(planDifference(before.plan, one.plan), day.names)}
                </Note>
                {one.version === version ? null : (
                  <Action
                    style={{ alignSelf: 'flex-start' }}
                    label="Take it up again"
                    hint={`Take up plan ${String(one.version)} again`}
                    onPress={() => {
                      takeUp(shown, one.plan);
                    }}
                  />
                )}
              </View>
            );
          })
        : null}
    </Sheet>
  );
}
