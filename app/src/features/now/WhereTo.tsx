import { words } from '@broth/contract';
import { takersOf } from '@broth/core';
import type { BatchRecord, DayPlan } from '@broth/core';
import { View } from 'react-native';
import type { NewEvent } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { Sheet } from '../../ui/Sheet';
import { Note, Title } from '../../ui/Type';

/** A batch that is out of the kettle has to go somewhere, and its temperature clock starts there. */
export function WhereTo({
  day,
  plan,
  batch,
  onDo,
}: {
  readonly day: OpenDay;
  readonly plan: DayPlan | null;
  readonly batch: BatchRecord;
  readonly onDo: (events: readonly NewEvent[], says: string) => void;
}) {
  const soup = day.soupById.get(batch.soupId);
  const things = day.book.station.equipment.filter((thing) => thing.inUse);
  const taken = new Set(Object.values(day.state.batches).flatMap((one) => (one.stage.kind === 'holding' ? [one.stage.placeId] : [])));
  const well = things.find((thing) => thing.kind === 'well' && !taken.has(thing.id));
  const baths = things.filter((thing) => thing.kind === 'cooling');
  const { batchId } = batch;
  const takers = takersOf(batch, plan, day.state, day.soupById, day.view.midnight);
  // Nothing has gone into what nobody has begun.
  const isEarly = takers.some(({ begun }) => !begun);
  const into = words.usedIn(takers.map(({ name }) => name));
  return (
    <Sheet rim={soup?.toneHex} label={`${batch.name} is out of the kettle`}>
      <Title level={2}>{`${batch.name} is out: ${words.litres(batch.volumeOutL ?? batch.volumeL)}`}</Title>
      <Note>{`Out since ${day.at(batch.finishedAt ?? batch.startedAt)}, and its temperature counts. ${isEarly ? `It is to go ${into}: where does it stand until then?` : 'Where does it go?'}`}</Note>
      <View style={{ gap: 8 }}>
        {takers.length === 0 || isEarly ? null : (
          <Action
            kind="main"
            label={`All of it has gone ${into}`}
            hint={`All of ${batch.name} has gone ${into}`}
            onPress={() => {
              onDo([{ kind: 'batch.used/1', data: { batchId, intoBatchIds: takers.map((taker) => taker.batchId) } }], `${batch.name} has gone ${into}.`);
            }}
          />
        )}
        {soup?.served === 'cold' ? (
          <Action
            kind="main"
            label="Cold hold"
            hint={`Cold hold ${batch.name}`}
            onPress={() => {
              onDo([{ kind: 'cold.stored/2', data: { batchId, volumeL: batch.volumeOutL ?? batch.volumeL } }], `${batch.name} is in the cold.`);
            }}
          />
        ) : (
          <>
            {well === undefined || soup?.role === 'component' ? null : (
              <Action
                kind="main"
                label={`Hold hot in ${well.name}`}
                hint={`Hold ${batch.name} hot in ${well.name}`}
                onPress={() => {
                  onDo([{ kind: 'hold.started/1', data: { batchId, placeId: well.id } }], `${batch.name} is held hot in ${well.name}.`);
                }}
              />
            )}
            {baths.map((bath) => (
              <Action
                key={bath.id}
                label={`Cool in ${bath.name}`}
                hint={`Cool ${batch.name} in ${bath.name}`}
                onPress={() => {
                  onDo(
                    [
                      {
                        kind: 'cooling.started/2',
                        data: { batchId, placeId: bath.id, ambientC: bath.ambientC, method: bath.ambientC > 0 ? 'walkIn' : null, pans: null, depthCm: null },
                      },
                    ],
                    `${batch.name} is cooling in ${bath.name}.`,
                  );
                }}
              />
            ))}
          </>
        )}
      </View>
    </Sheet>
  );
}
