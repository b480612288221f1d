import { words } from '@broth/contract';
import type { DayPlan } from '@broth/core';
import { memo, useCallback, useDeferredValue, useRef, useState } from 'react';
import { Pressable, Text, View } from 'react-native';
import { useDesk } from '../../state/desk';
import type { OpenDay } from '../../state/useDay';
import { useStory } from '../../state/usePlan';
import type { ShownPlan } from '../../state/usePlan';
import { BOLD, usePalette } from '../../theme/theme';
import { inkOn } from '../../theme/tone';
import { Action } from '../../ui/Action';
import { lazyPart } from '../../ui/lazily';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note } from '../../ui/Type';
import { BatchStory } from './BatchStory';
import { RibbonBoard } from './RibbonBoard';
import type { Moves } from './useMoves';

const WhatWouldHelp = lazyPart(() => import('../later').then((part) => part.WhatWouldHelp));

/** The board itself must stay in sight on a bad day. */
const TROUBLE_SHOWN = 2;
/** Steps nearer to the board, as shares of what fits. */
const ZOOMS = [1, 1.5, 2.25, 3.4];
const TROUBLE = [
  'plan.late',
  'plan.unplaced',
  'station.nobody',
  'plan.overtime',
  'plan.pinDropped',
  'station.lacks',
  'station.instead',
  'station.wells',
  'batch.noVessel',
  'batch.tooMany',
];

interface Props {
  readonly day: OpenDay;
  readonly shown: ShownPlan;
  readonly nowMin: number;
  readonly moves: Moves;
  /** Time runs down on a phone and at the desk, across when the board has the screen to itself. */
  readonly down: boolean;
}

interface ChipsProps {
  readonly day: OpenDay;
  readonly plan: DayPlan;
  readonly selected: string | null;
  readonly onSelect: (batchId: string) => void;
}

/** Every batch as a button in its own tone: the picture is never the only way to it. */
const BatchChips = memo(function BatchChips({ day, plan, selected, onSelect }: ChipsProps) {
  const palette = usePalette();
  return (
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
              onSelect(one.id);
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
});

/** How the plan stands, the board, the batch that is picked and what can be done with it. */
export const BoardPanel = memo(function BoardPanel({ day, shown, nowMin, moves, down }: Props) {
  const { plan } = shown;
  const [selected, setSelected] = useState<string | null>(null);
  const [allTrouble, setAllTrouble] = useState(false);
  useStory(day, plan, nowMin);
  const told = useDesk((state) => state.story);
  const story = told !== null && told.of === plan ? told.story : null;
  const missing = new Set(
    plan.findings.flatMap((found) => (found.code === 'station.lacks' || found.code === 'batch.noVessel' || found.code === 'batch.tooMany' ? [found.soupId] : [])),
  ).size;
  const late = plan.batches.filter((batch) => batch.lateMin > 0 && batch.state !== 'finished').length;
  const unplaced = plan.findings.filter((found) => found.code === 'plan.unplaced').length;
  const trouble = words.findings(
    plan.findings.filter((found) => TROUBLE.includes(found.code)),
    plan,
    day.names,
  );
  const batch = plan.batches.find((one) => one.id === selected);
  const [zoom, setZoom] = useState(0);
  const select = useCallback((id: string): void => {
    setSelected((was) => (id === was ? null : id));
  }, []);
  // The picture is much: it is drawn in pieces behind the words, so that the page answers meanwhile.
  const drawnPlan = useDeferredValue(plan);
  const drawnSelected = useDeferredValue(selected);
  const latest = useRef(moves);
  latest.current = moves;
  const move = useCallback((batchId: string, byMin: number, vesselId: string | null) => {
    latest.current.move(batchId, byMin, vesselId);
  }, []);
  if (plan.batches.length === 0)
    return (
      <View style={{ gap: 12 }}>
        {trouble.length === 0 ? (
          <Body>Nothing to cook. Set a par first.</Body>
        ) : (
          trouble.map((said) => (
            <View key={said} style={{ flexDirection: 'row', gap: 8 }}>
              <StateMark mark="stop" />
              <Body style={{ flex: 1 }}>{said}</Body>
            </View>
          ))
        )}
      </View>
    );
  return (
    <View style={{ gap: 12 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 12 }}>
        <StateMark mark={missing + unplaced > 0 ? 'stop' : late > 0 ? 'soon' : 'fine'} word={words.planLine(late, unplaced, missing)} />
        <Note>{`${words.duration(plan.objective.changeoverMin)} of washing; ready ${String(day.book.station.readyLeadMin)} min before service.`}</Note>
        {story === null ? null : <Note>{`Everything: ${words.chance(story.chanceOfAll).toLowerCase()}.`}</Note>}
      </View>
      {(allTrouble ? trouble : trouble.slice(0, TROUBLE_SHOWN)).map((said) => (
        <Body key={said}>{said}</Body>
      ))}
      {trouble.length > TROUBLE_SHOWN ? (
        <Action
          label={allTrouble ? 'Show fewer' : `Show ${String(trouble.length - TROUBLE_SHOWN)} more`}
          onPress={() => {
            setAllTrouble(!allTrouble);
          }}
        />
      ) : null}
      {story !== null && story.lateMin > 0 ? (
        <Note>
          {story.leastLateMin === 0 || unplaced > 0
            ? `${words.duration(story.lateMin)} late in all.`
            : `${words.duration(story.lateMin)} late in all; with these hands and kettles${plan.pins.length > 0 ? ', and what was put by hand,' : ''} no plan is below ${words.duration(story.leastLateMin)}.`}
        </Note>
      ) : null}
      {late + unplaced > 0 ? <WhatWouldHelp day={day} plan={plan} nowMin={nowMin} /> : null}
      <Sheet style={{ paddingHorizontal: down ? 6 : 14 }}>
        <RibbonBoard day={day} plan={drawnPlan} nowMin={Math.floor(nowMin)} selected={drawnSelected} onSelect={select} onMove={move} down={down} zoom={ZOOMS[zoom] ?? 1} />
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <Action
            label="Nearer"
            disabled={zoom >= ZOOMS.length - 1}
            onPress={() => {
              setZoom(zoom + 1);
            }}
          />
          <Action
            label="Further"
            disabled={zoom <= 0}
            onPress={() => {
              setZoom(zoom - 1);
            }}
          />
        </View>
        <Note>
          Breadth = litres. Beads = fills of the jar. Dashed = it stands and waits, or the kettle is held. Hatched = rinse; close hatching = full wash. A peg = put there by hand.
          Tap a ribbon, then drag it.
        </Note>
      </Sheet>
      {batch === undefined ? null : <BatchStory day={day} plan={plan} batch={batch} story={story?.batches.find((one) => one.batchId === batch.id) ?? null} moves={moves} />}
      <BatchChips day={day} plan={drawnPlan} selected={drawnSelected} onSelect={select} />
    </View>
  );
});
