import { words } from '@broth/contract';
import { useState } from 'react';
import { Pressable, ScrollView, Text, View } from 'react-native';
import { usePreferences } from '../../state/preferences';
import { useDay } from '../../state/useDay';
import { usePlan } from '../../state/usePlan';
import { useNow } from '../../state/useNow';
import { BOLD, usePalette } from '../../theme/theme';
import { inkOn } from '../../theme/tone';
import { Action } from '../../ui/Action';
import { Screen, Waiting, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Strong } from '../../ui/Type';
import { BatchStory } from './BatchStory';
import { RibbonBoard } from './RibbonBoard';
import { TakeAway } from './TakeAway';

const HEAD = { none: 'A draft', changed: 'The pars have changed', slipped: 'The day runs behind the plan' } as const;

/** The board itself must stay in sight on a bad day. */
const TROUBLE_SHOWN = 2;

export function BoardScreen() {
  const day = useDay();
  const wide = useIsWide();
  const palette = usePalette();
  const now = useNow(15_000);
  const shown = usePlan(usePreferences((state) => state.who));
  const [selected, setSelected] = useState<string | null>(null);
  const [allTrouble, setAllTrouble] = useState(false);
  if (day === null || shown === null) {
    return (
      <Screen title="Board">
        <Waiting />
      </Screen>
    );
  }
  const { plan } = shown;
  const nowMin = day.minuteOf(now);
  const missing = new Set(
    plan.findings.flatMap((found) => (found.code === 'station.lacks' || found.code === 'batch.noVessel' || found.code === 'batch.tooMany' ? [found.soupId] : [])),
  ).size;
  const late = plan.batches.filter((batch) => batch.lateMin > 0 && batch.state !== 'finished').length;
  const unplaced = plan.findings.filter((found) => found.code === 'plan.unplaced').length;
  const line = words.planLine(late, unplaced, missing);
  const trouble = plan.findings.filter((found) => ['plan.late', 'plan.unplaced', 'station.lacks', 'batch.noVessel', 'batch.tooMany'].includes(found.code));
  const batch = plan.batches.find((one) => one.id === selected);
  const foot =
    shown.kind === 'accepted' ? null : (
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
        <View style={{ flex: 1 }}>
          <Strong>{HEAD[shown.because ?? 'none']}</Strong>
          <Note>{shown.improving ? 'Looking for a better one…' : shown.because === 'none' ? 'Nobody works by it yet.' : 'This is a new draft. Begun batches stay.'}</Note>
        </View>
        <Action kind="main" label="Use this plan" disabled={shown.accepting || plan.batches.length === 0} onPress={() => void shown.accept()} />
      </View>
    );
  const chips = (
    <View role="radiogroup" aria-label="Batches on the board" style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      {plan.batches.map((one) => {
        const tone = day.soupById.get(one.soupId)?.toneHex ?? '#888888';
        const picked = one.id === selected;
        return (
          <Pressable
            key={one.id}
            role="radio"
            aria-checked={picked}
            aria-label={`${one.name}, ${words.litres(one.volumeL)}, ready ${words.clock(one.readyMin)}`}
            onPress={() => {
              setSelected(picked ? null : one.id);
            }}
            style={{
              minHeight: 48,
              borderRadius: 6,
              paddingHorizontal: 12,
              justifyContent: 'center',
              backgroundColor: tone,
              borderWidth: 3,
              borderColor: picked ? palette.ink : tone,
            }}
          >
            <Text style={{ fontFamily: BOLD, fontSize: 15, color: inkOn(tone) }}>{`${one.name} · ${words.clock(one.readyMin)}`}</Text>
          </Pressable>
        );
      })}
    </View>
  );
  const content = (
    <View style={{ padding: wide ? 20 : 12, gap: 12 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 12 }}>
        <StateMark mark={missing + unplaced > 0 ? 'stop' : late > 0 ? 'soon' : 'fine'} word={line} />
        <Note>{`${words.duration(plan.objective.changeoverMin)} of washing; ready ${String(day.book.station.readyLeadMin)} min before service.`}</Note>
      </View>
      {(allTrouble ? trouble : trouble.slice(0, TROUBLE_SHOWN)).map((found) => (
        <Body key={JSON.stringify(found)}>{words.finding(found, day.names)}</Body>
      ))}
      {trouble.length > TROUBLE_SHOWN ? (
        <Action
          label={allTrouble ? 'Show fewer' : `Show ${String(trouble.length - TROUBLE_SHOWN)} more`}
          onPress={() => {
            setAllTrouble(!allTrouble);
          }}
        />
      ) : null}
      {plan.batches.length === 0 ? (
        <Body>Nothing to cook. Set a par first.</Body>
      ) : (
        <>
          <Sheet style={{ paddingHorizontal: wide ? 14 : 6 }}>
            <RibbonBoard
              day={day}
              plan={plan}
              nowMin={nowMin}
              selected={selected}
              onSelect={(id) => {
                setSelected(id === selected ? null : id);
              }}
              down={!wide}
            />
            <Note>Breadth = litres. Beads = fills of the jar. Dashed = it stands and waits, or the kettle is held. Hatched = rinse; close hatching = full wash.</Note>
          </Sheet>
          {batch === undefined ? null : <BatchStory day={day} plan={plan} batch={batch} />}
          {chips}
          {day.view.plan === null ? null : (
            <View style={wide ? { maxWidth: 620 } : {}}>
              <TakeAway day={day} />
            </View>
          )}
        </>
      )}
    </View>
  );
  return (
    <Screen title="Board" foot={foot} scroll={false}>
      <ScrollView tabIndex={0} style={{ flex: 1 }}>
        {content}
      </ScrollView>
    </Screen>
  );
}
