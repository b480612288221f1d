import { words } from '@broth/contract';
import type { DayPlan, PlannedBatch } from '@broth/core';
import { View } from 'react-native';
import type { OpenDay } from '../../state/useDay';
import { usePalette } from '../../theme/theme';
import { PhaseMark } from '../../ui/PhaseMark';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Strong, Title } from '../../ui/Type';

/** One batch's way in words: when, where, what it waits for and why. The board's picture as a table. */
export function BatchStory({ day, plan, batch }: { readonly day: OpenDay; readonly plan: DayPlan; readonly batch: PlannedBatch }) {
  const palette = usePalette();
  const soup = day.soupById.get(batch.soupId);
  const wash = plan.washes.find((one) => one.beforeBatchId === batch.id);
  const ready =
    batch.readyByMin === null
      ? `Ready ${words.clock(batch.readyMin)}.`
      : batch.lateMin > 0
        ? `Ready ${words.clock(batch.readyMin)}, ${words.duration(batch.lateMin)} late.`
        : `Ready ${words.clock(batch.readyMin)}, wanted by ${words.clock(batch.readyByMin)}: ${words.duration(batch.readyByMin - batch.readyMin)} to spare.`;
  return (
    <Sheet rim={soup?.toneHex} label={`${batch.name} in words`}>
      <Title level={2}>{`${batch.name}, ${words.litres(batch.volumeL)}`}</Title>
      <Body>{`${batch.vesselId === null ? '' : `${day.names.resource(batch.vesselId)}. `}${ready}`}</Body>
      {wash === undefined ? null : (
        <Note>
          {wash.kind === 'full'
            ? `Full wash before it, ${words.clock(wash.startMin)} to ${words.clock(wash.endMin)}: ${words.list(wash.carriesOver.map((one) => words.ALLERGEN[one as keyof typeof words.ALLERGEN]))} must not carry over.`
            : `Rinse before it, ${words.clock(wash.startMin)} to ${words.clock(wash.endMin)}.`}
        </Note>
      )}
      {batch.steps.map((planned) => {
        const step = soup?.steps.find((one) => one.id === planned.stepId);
        if (step === undefined) return null;
        return (
          <View key={planned.stepId} style={{ gap: 2 }}>
            {planned.waitedMin > 0 ? (
              <Note>{`Waits ${words.duration(planned.waitedMin)}${planned.waitedFor === null ? '' : ` for ${day.names.resource(planned.waitedFor)}`}.`}</Note>
            ) : null}
            <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
              <PhaseMark phase={step.phase} color={palette.ink} size={20} />
              <Strong style={{ width: 96, fontSize: 15, fontVariant: ['tabular-nums'] }}>{`${words.clock(planned.startMin)}–${words.clock(planned.endMin)}`}</Strong>
              <Body style={{ flex: 1, fontSize: 15 }}>{step.name}</Body>
            </View>
          </View>
        );
      })}
    </Sheet>
  );
}
