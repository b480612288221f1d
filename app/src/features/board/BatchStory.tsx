import { words } from '@broth/contract';
import { MOST_SLACK_MIN, vesselsFor, stretchesOf } from '@broth/core';
import type { BatchStory as Story, DayPlan, PlannedBatch, Station } from '@broth/core';
import { View } from 'react-native';
import type { OpenDay } from '../../state/useDay';
import { usePalette } from '../../theme/theme';
import { Action } from '../../ui/Action';
import { PhaseMark } from '../../ui/PhaseMark';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../ui/Type';
import type { Moves } from './useMoves';

const STEP_MIN = 10;

interface Props {
  readonly day: OpenDay;
  readonly plan: DayPlan;
  readonly batch: PlannedBatch;
  /** Slack, causes and chance; null until they are worked out. */
  readonly story: Story | null;
  readonly moves: Moves;
}

function readyLine(batch: PlannedBatch): string {
  const ready = `Ready ${words.clock(batch.readyMin)}`;
  if (batch.readyByMin === null) return `${ready}.`;
  if (batch.lateMin > 0) return `${ready}, ${words.duration(batch.lateMin)} late.`;
  const spareMin = batch.readyByMin - batch.readyMin;
  return spareMin === 0 ? `${ready}, just when it is wanted.` : `${ready}, wanted by ${words.clock(batch.readyByMin)}: ${words.duration(spareMin)} to spare.`;
}

/** Moving by buttons: what dragging does, for a thumb or a keyboard. */
function MoveButtons({ day, batch, moves }: Pick<Props, 'day' | 'batch' | 'moves'>) {
  const others = vesselsFor(batch, day.book.station as Station).filter((id) => id !== batch.vesselId);
  if (batch.steps.every((step) => step.frozen)) return null;
  const half = { flexGrow: 1, flexBasis: 140 };
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      <Action
        style={half}
        label={`${String(STEP_MIN)} min earlier`}
        hint={`${batch.name} ${String(STEP_MIN)} minutes earlier`}
        onPress={() => {
          moves.move(batch.id, -STEP_MIN, null);
        }}
      />
      <Action
        style={half}
        label={`${String(STEP_MIN)} min later`}
        hint={`${batch.name} ${String(STEP_MIN)} minutes later`}
        onPress={() => {
          moves.move(batch.id, STEP_MIN, null);
        }}
      />
      {others.map((id) => (
        <Action
          key={id}
          style={half}
          label={`To ${day.names.resource(id)}`}
          hint={`${batch.name} to ${day.names.resource(id)}`}
          onPress={() => {
            moves.move(batch.id, 0, id);
          }}
        />
      ))}
      <Action
        style={half}
        label={moves.isPinned(batch.id) ? 'Let it go' : 'Keep it here'}
        hint={moves.isPinned(batch.id) ? `Let ${batch.name} go where it is best` : `Keep ${batch.name} where it is`}
        onPress={() => {
          if (moves.isPinned(batch.id)) moves.letGo(batch.id);
          else moves.move(batch.id, 0, batch.state === 'planned' ? batch.vesselId : null);
        }}
      />
    </View>
  );
}

/** One batch's way in words: when, where, what it waits for and why, and what it has to spare. The board's picture as a table. */
export function BatchStory({ day, plan, batch, story, moves }: Props) {
  const palette = usePalette();
  const soup = day.soupById.get(batch.soupId);
  const washes = plan.washes.filter((one) => one.beforeBatchId === batch.id);
  const why = story === null || (batch.lateMin === 0 && story.slackMin > 0) ? null : words.binding(story, day.names);
  return (
    <Sheet rim={soup?.toneHex} label={`${batch.name} in words`}>
      <Title level={2}>{`${batch.name}, ${words.litres(batch.volumeL)}`}</Title>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-start' }}>
        {batch.lateMin > 0 ? <StateMark mark="soon" /> : null}
        <Body style={{ flex: 1 }}>{`${batch.vesselId === null ? '' : `${day.names.resource(batch.vesselId)}. `}${readyLine(batch)}`}</Body>
      </View>
      {why === null ? null : <Body>{why}</Body>}
      {story === null || batch.state === 'finished' ? null : (
        <Note>{`${words.slack(story, MOST_SLACK_MIN)}${story.chance === null ? '' : ` ${words.chance(story.chance)}, by the spread of its times and of what comes before it.`}`}</Note>
      )}
      {moves.isPinned(batch.id) ? <Note>Put here by hand: everything else is planned around it.</Note> : null}
      <MoveButtons day={day} batch={batch} moves={moves} />
      {washes.map((wash) => (
        <Note key={wash.unitId}>
          {wash.kind === 'full'
            ? `Full wash of ${day.names.resource(wash.unitId)} before it, ${words.clock(wash.startMin)} to ${words.clock(wash.endMin)}: ${words.list(wash.carriesOver.map((one) => words.ALLERGEN[one]))} must not carry over.`
            : `Rinse of ${day.names.resource(wash.unitId)} before it, ${words.clock(wash.startMin)} to ${words.clock(wash.endMin)}.`}
        </Note>
      ))}
      {batch.steps.map((planned) => {
        const step = soup?.steps.find((one) => one.id === planned.stepId);
        if (step === undefined) return null;
        const goes = words.goes(stretchesOf(planned).map(({ startMin, endMin }) => [words.clock(startMin), words.clock(endMin)]));
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
            {goes === null ? null : <Note>{`${goes}.`}</Note>}
          </View>
        );
      })}
    </Sheet>
  );
}
