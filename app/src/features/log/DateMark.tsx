import { dateMarkLastDay, preparedOn, useBy } from '@broth/core';
import type { BatchRecord } from '@broth/core';
import type { OpenDay } from '../../state/useDay';
import { dayName } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { Note, Strong } from '../../ui/Type';

/** What goes on the container: the calendar day it was prepared, the earliest of what the plan took for it, and the last day it may be used. */
export function DateMark({ day, batch }: { readonly day: OpenDay; readonly batch: BatchRecord }) {
  const made = new Intl.DateTimeFormat('en-CA', { timeZone: day.book.kitchen.timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(batch.startedAt);
  const plan = day.view.plan?.plan;
  const soup = day.soupById.get(batch.soupId);
  const parts = new Set(soup?.ingredients.flatMap((line) => (line.componentId === null ? [] : [line.componentId])) ?? []);
  const used = (plan?.components ?? []).some((one) => parts.has(one.componentId) && one.takenL > 0) ? day.view.lots.filter((lot) => parts.has(lot.soupId)) : [];
  const dated = preparedOn(made, used);
  const last = useBy({ id: batch.batchId, soupId: batch.soupId, volumeL: 0, state: 'chilled', preparedOn: dated, frozenDays: 0 }, dateMarkLastDay(day.rulesNow));
  return (
    <Sheet label="Date mark">
      <Strong>{`On the label: ${batch.name}, made ${dayName(made)}, use by the end of ${dayName(last)}`}</Strong>
      {dated === made ? null : <Note>{`It has stock of ${dayName(dated)} in it and keeps that date.`}</Note>}
    </Sheet>
  );
}
