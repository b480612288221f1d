import { words } from '@broth/contract';
import { minutesBetween, soupOf } from '@broth/core';
import type { BatchRecord } from '@broth/core';
import { View } from 'react-native';
import type { OpenDay } from '../../state/useDay';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Strong, Title } from '../../ui/Type';

/** What each step took beside what was planned for it, what was left out and why, and how it came out. */
export function Took({ day, batch }: { readonly day: OpenDay; readonly batch: BatchRecord }) {
  const soup = soupOf(batch, day.soupById);
  const planned = day.view.plan?.plan.batches.find((one) => one.id === batch.batchId);
  const done = soup?.steps.flatMap((step) => {
    const record = batch.steps[step.id];
    return record?.doneAt == null ? [] : [{ step, record, tookMin: minutesBetween(record.startedAt, record.doneAt) }];
  });
  if (done === undefined || done.length === 0) return null;
  const result = batch.results.at(-1);
  return (
    <Sheet label="What it took">
      <Title level={2}>What it took</Title>
      {done.map(({ step, record, tookMin }) => {
        const plan = planned?.steps.find((one) => one.stepId === step.id);
        const planMin = plan === undefined ? null : plan.endMin - plan.startMin;
        return (
          <View key={step.id} style={{ flexDirection: 'row', gap: 8 }}>
            <Strong style={{ width: 72, textAlign: 'right', fontVariant: ['tabular-nums'] }}>{record.skipped === null ? words.duration(tookMin) : 'left out'}</Strong>
            <View style={{ flex: 1 }}>
              <Body>{step.name}</Body>
              <Note>
                {record.skipped ??
                  [
                    day.nameOf(record.by),
                    planMin === null ? '' : `planned ${words.duration(planMin)}`,
                    record.extendedMin > 0 ? `given ${words.duration(record.extendedMin)} more` : '',
                  ]
                    .filter((one) => one !== '')
                    .join(' · ')}
              </Note>
            </View>
          </View>
        );
      })}
      {batch.waived.map((one) => (
        <Note key={one.eventId}>{`Left out: ${soup?.ingredients.find((line) => line.id === one.ingredientId)?.name ?? one.ingredientId}. ${one.reason}.`}</Note>
      ))}
      {result === undefined ? null : (
        <Note>
          {[
            result.texture === null ? '' : `Texture: ${words.TEXTURE_RESULT[result.texture].toLowerCase()}.`,
            result.taste === null ? '' : `Taste: ${words.TASTE_RESULT[result.taste].toLowerCase()}.`,
            result.cause === '' ? '' : `Cause: ${result.cause}.`,
          ]
            .filter((one) => one !== '')
            .join(' ')}
        </Note>
      )}
    </Sheet>
  );
}
