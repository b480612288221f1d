import { words } from '@broth/contract';
import * as advice from '@broth/contract/advice';
import { heatingMin, limitIn, readingIn, USUAL_EFFICIENCY } from '@broth/core';
import type { BatchRecord, CoolingMethod, CoolingVerdict, Equipment, Standing } from '@broth/core';
import { coolingWays, iceIn } from '@broth/core/advice';
import type { CoolingWay } from '@broth/core/advice';
import { useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { KilogramsStepper, LitresStepper } from '../../ui/Stepper';
import { Body, Note, Strong } from '../../ui/Type';

type ColdPlace = Extract<Equipment, { kind: 'cooling' }>;

function coldPlaces(day: OpenDay): readonly ColdPlace[] {
  return day.book.station.equipment.filter((thing): thing is ColdPlace => thing.kind === 'cooling' && thing.inUse);
}

/** Ways to cool a batch from where it is to the target ahead of it, the fastest first, in words with the time each should take. */
export function waysFor(day: OpenDay, batch: BatchRecord, cooling: CoolingVerdict | null): readonly (CoolingWay & { readonly placeName: string })[] {
  const last = batch.readings.at(-1);
  const to = cooling?.current?.to;
  const fromC = last === undefined ? 85 : readingIn(last.reading, 'C');
  const toC = to?.kind === 'temperature' ? limitIn(to.limit, 'C') : 5;
  if (fromC <= toC) return [];
  return coolingWays({ volumeL: batch.volumeOutL ?? batch.volumeL, fromC, toC, places: coldPlaces(day) }).map((way) => ({
    ...way,
    placeName: coldPlaces(day).find((place) => place.id === way.placeId)?.name ?? '',
  }));
}

/** Into which place, how, and what that should do. One tap is one move; it is a new segment of the same clock. */
function Cooling({ day, batch, cooling, now }: { readonly day: OpenDay; readonly batch: BatchRecord; readonly cooling: CoolingVerdict | null; readonly now: number }) {
  const record = useKitchen((state) => state.record);
  const here = batch.coolingSegments.at(-1);
  const isCooling = batch.stage.kind === 'cooling';
  const ways = waysFor(day, batch, cooling).filter((way) => !(isCooling && here?.placeId === way.placeId && here.method === way.method));
  // Out of its kettle it has to go somewhere; in the well nobody is to cool it by a slip of the thumb.
  const [open, setOpen] = useState(batch.stage.kind === 'finished');
  const move = (placeId: string, ambientC: number, method: CoolingMethod, pans: number | null, depthCm: number | null): void => {
    record([{ kind: 'cooling.started/2', data: { batchId: batch.batchId, placeId, ambientC, method, pans, depthCm } }]);
  };
  if (ways.length === 0) return null;
  return (
    <View role="group" aria-label="Ways to cool it" style={{ gap: 8 }}>
      <Action
        label={isCooling ? 'Cool it another way' : 'Cool it'}
        hint={isCooling ? 'Cool it another way: show the ways' : 'Cool it: show the ways'}
        onPress={() => {
          setOpen(!open);
        }}
      />
      {open
        ? ways.map((way) => (
            <Action
              key={`${way.method} ${way.placeId ?? ''}`}
              kind={way === ways[0] ? 'main' : 'plain'}
              label={advice.way(way, way.placeName, now, day.at)}
              disabled={way.minutes === null}
              onPress={() => {
                move(way.placeId ?? '', way.ambientC, way.method, way.pans, way.depthCm);
                setOpen(false);
              }}
            />
          ))
        : null}
      {open ? <Note>Times are reckoned from usual rates: advice. The readings decide.</Note> : null}
    </View>
  );
}

/** Ice as an ingredient: how much, and what it does to the soup. */
function Ice({ batch, cooling }: { readonly batch: BatchRecord; readonly cooling: CoolingVerdict | null }) {
  const record = useKitchen((state) => state.record);
  const last = batch.readings.at(-1);
  const to = cooling?.current?.to;
  const [open, setOpen] = useState(false);
  const [kg, setKg] = useState<number | null>(null);
  if (last === undefined || to?.kind !== 'temperature') return null;
  const [fromC, toC] = [readingIn(last.reading, 'C'), limitIn(to.limit, 'C')];
  if (fromC <= toC) return null;
  const needed = iceIn(batch.volumeOutL ?? batch.volumeL, fromC, toC);
  const massKg = kg ?? Math.round(needed.iceKg * 2) / 2;
  return (
    <View style={{ gap: 8 }}>
      <Action
        label="Ice into the soup"
        onPress={() => {
          setOpen(!open);
        }}
      />
      {open ? (
        <>
          <Body>{advice.ice(needed)}</Body>
          <KilogramsStepper label="of ice" massKg={massKg} onChange={setKg} />
          <Action
            kind="main"
            label={`${words.number(massKg)} kg of ice is in`}
            onPress={() => {
              record([{ kind: 'ice.added/1', data: { batchId: batch.batchId, massKg } }]);
              setOpen(false);
            }}
          />
        </>
      ) : null}
    </View>
  );
}

/** Into the cold, and how much of it: what was served is not on hand tomorrow. */
function ColdStore({ batch }: { readonly batch: BatchRecord }) {
  const record = useKitchen((state) => state.record);
  const [volumeL, setVolumeL] = useState(batch.levels.at(-1)?.leftL ?? batch.volumeOutL ?? batch.volumeL);
  return (
    <View style={{ gap: 8 }}>
      <LitresStepper label="litres into the cold" volumeL={volumeL} onChange={setVolumeL} />
      <Action
        kind="main"
        label="Into cold hold"
        onPress={() => {
          record([{ kind: 'cold.stored/2', data: { batchId: batch.batchId, volumeL } }]);
        }}
      />
    </View>
  );
}

/** Which kettle heats it in time, reckoned from its power; the well never does. */
function Heating({ day, batch }: { readonly day: OpenDay; readonly batch: BatchRecord }) {
  const rule = day.rulesNow.reheat.own;
  const target = rule?.points.at(-1)?.limit;
  if (rule === null || target === undefined) return null;
  const volumeL = batch.volumeOutL ?? batch.volumeL;
  const last = batch.readings.at(-1);
  const fromC = last === undefined ? 5 : readingIn(last.reading, 'C');
  const lines = day.book.station.equipment.flatMap((thing) => {
    if (thing.kind !== 'vessel' || !thing.inUse || thing.workingMaxL < volumeL || thing.powerKw === undefined) return [];
    const minutes = heatingMin(volumeL * 1.03, target.c - fromC, thing.powerKw, thing.efficiency ?? USUAL_EFFICIENCY);
    return [{ id: thing.id, text: `${thing.name}: about ${words.duration(minutes)}${rule.withinMin !== null && minutes > rule.withinMin ? ', too slow' : ''}` }];
  });
  return (
    <View style={{ gap: 2 }}>
      {lines.map((line) => (
        <Body key={line.id}>{line.text}</Body>
      ))}
      <Note>{`${lines.length === 0 ? 'No kettle in use has room for it and a known power. ' : ''}To ${words.heat(rule.points, day.book.kitchen.temperatureUnit)}. Never in the well: it takes hours.`}</Note>
    </View>
  );
}

/** Where the batch can be carried next. Each move is an event; the cooling clock is never set back. */
export function Moves({ day, batch, standing, now }: { readonly day: OpenDay; readonly batch: BatchRecord; readonly standing: Standing | null; readonly now: number }) {
  const record = useKitchen((state) => state.record);
  const [asking, setAsking] = useState(false);
  const { batchId, stage } = batch;
  const things = day.book.station.equipment.filter((thing) => thing.inUse);
  const taken = new Set(Object.values(day.state.batches).flatMap((one) => (one.stage.kind === 'holding' ? [one.stage.placeId] : [])));
  const well = things.find((thing) => thing.kind === 'well' && !taken.has(thing.id));
  const isHot = day.soupById.get(batch.soupId)?.served !== 'cold';
  const cooling = standing?.verdicts.cooling ?? null;
  // Food that is out by time has no way back: it is used, or thrown away.
  const byTime = batch.timeControl !== null;
  const coolHere = !byTime && (stage.kind === 'cooling' || ((stage.kind === 'holding' || stage.kind === 'finished') && isHot));
  const refused = (standing?.kind === 'fail' || standing?.kind === 'undetermined') && standing.decision?.keep !== true;
  const done = cooling === null || cooling.kind === 'pass' || cooling.kind === 'notApplicable' || standing?.decision?.keep === true;
  const mayStore = stage.kind === 'cooling' && done;
  // Out of the bath as well, where the first window is still open and somebody has said so.
  const startsOver = stage.kind === 'cooling' && !refused && batch.correctives.at(-1)?.action === 'reheat';
  const mayReheat = !byTime && isHot && ((stage.kind === 'stored' && !refused) || startsOver);
  const mayHold = stage.kind === 'reheating' && standing?.kind === 'pass' && well !== undefined;
  const timeRules = batch.timeControl === null && (stage.kind === 'holding' || stage.kind === 'stored') && !refused ? day.rulesNow.timeControl : [];
  const probes = day.book.station.thermometers.filter((one) => one.kind === 'probe' && one.inUse);
  const placed = Object.entries(day.state.placed).find(([, one]) => one.batchId === batchId)?.[0];
  const free = probes.filter((one) => day.state.placed[one.id] === undefined);
  const purpose = stage.kind === 'cooling' ? 'cool' : stage.kind === 'holding' ? 'hotHold' : stage.kind === 'stored' ? 'coldHold' : stage.kind === 'reheating' ? 'reheat' : null;
  return (
    <View style={{ gap: 8 }}>
      {coolHere && !refused ? <Cooling day={day} batch={batch} cooling={cooling} now={now} /> : null}
      {stage.kind === 'cooling' && !refused ? <Ice batch={batch} cooling={cooling} /> : null}
      {mayStore ? <ColdStore batch={batch} /> : null}
      {mayReheat || stage.kind === 'reheating' ? <Heating day={day} batch={batch} /> : null}
      {mayReheat ? (
        <Action
          label="Start reheating"
          onPress={() => {
            record([{ kind: 'reheat.started/1', data: { batchId } }]);
          }}
        />
      ) : null}
      {mayHold ? (
        <Action
          kind="main"
          label={`Hold hot in ${well.name}`}
          onPress={() => {
            record([{ kind: 'hold.started/1', data: { batchId, placeId: well.id } }]);
          }}
        />
      ) : null}
      {placed === undefined ? (
        purpose === null ? null : (
          free.map((probe) => (
            <Action
              key={probe.id}
              label={`${probe.name} goes into it`}
              onPress={() => {
                record([{ kind: 'probe.placed/1', data: { thermometerId: probe.id, batchId, purpose } }]);
              }}
            />
          ))
        )
      ) : (
        <Action
          label={`${probes.find((one) => one.id === placed)?.name ?? placed} is out of it`}
          onPress={() => {
            record([{ kind: 'probe.lifted/1', data: { thermometerId: placed } }]);
          }}
        />
      )}
      {timeRules.map((rule) =>
        asking ? (
          <View key={rule.id} style={{ gap: 8 }}>
            <Strong>{advice.ruleLine(rule, day.book.kitchen.temperatureUnit)}</Strong>
            <Note>{`${rule.citation}. It is marked with the time it ends, and may not go back into the well or the cold room.`}</Note>
            <View style={{ flexDirection: 'row', gap: 8 }}>
              <Action
                style={{ flex: 1 }}
                label="Not now"
                onPress={() => {
                  setAsking(false);
                }}
              />
              <Action
                style={{ flex: 2 }}
                kind="main"
                label="Take it out by time"
                onPress={() => {
                  record([{ kind: 'timeControl.started/1', data: { batchId, ruleId: rule.id } }]);
                  setAsking(false);
                }}
              />
            </View>
          </View>
        ) : (
          <Action
            key={rule.id}
            label="Time instead of temperature"
            onPress={() => {
              setAsking(true);
            }}
          />
        ),
      )}
      {batch.timeControl !== null && batch.timeControl.endedAt === null ? (
        <Action
          label="All of it is used"
          onPress={() => {
            record([{ kind: 'timeControl.ended/1', data: { batchId } }]);
          }}
        />
      ) : null}
    </View>
  );
}
