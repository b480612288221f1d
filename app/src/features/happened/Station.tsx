import { words } from '@broth/contract';
import { useState } from 'react';
import { View } from 'react-native';
import type { OpenDay } from '../../state/useDay';
import { Action, Choice } from '../../ui/Action';
import { MinutesStepper } from '../../ui/Stepper';
import { Sheet } from '../../ui/Sheet';
import { Note, Title } from '../../ui/Type';
import { Line } from './line';
import type { Do } from './line';

/** A thing that cannot be used: plans do without it until it is back. */
export function Equipment({ day, onDo }: { readonly day: OpenDay; readonly onDo: Do }) {
  const [stopping, setStopping] = useState<string | null>(null);
  const things = day.book.station.equipment.filter((thing) => thing.inUse);
  return (
    <Sheet label="Out of order">
      <Title level={2}>Out of order</Title>
      <Note>The rest of the day is planned without it. What stands in it stays.</Note>
      {things.map((thing) => {
        const stopped = day.state.stopped[thing.id];
        return (
          <View key={thing.id} style={{ gap: 6 }}>
            <Line head={thing.name} note={stopped === undefined ? '' : `${stopped.reason} since ${day.at(stopped.at)}, ${day.nameOf(stopped.by)}`}>
              {stopped === undefined ? (
                <Action
                  label="Out"
                  hint={`${thing.name} is out of order`}
                  onPress={() => {
                    setStopping(stopping === thing.id ? null : thing.id);
                  }}
                />
              ) : (
                <Action
                  kind="main"
                  label="Back in use"
                  hint={`${thing.name} is back in use`}
                  onPress={() => {
                    onDo([{ kind: 'equipment.resumed/1', data: { equipmentId: thing.id } }]);
                  }}
                />
              )}
            </Line>
            {stopping === thing.id ? (
              <Choice
                label={`What is the matter with ${thing.name}`}
                value={null}
                options={words.STOP_REASONS.map((reason) => ({ value: reason, label: reason }))}
                onPick={(reason) => {
                  setStopping(null);
                  onDo([{ kind: 'equipment.stopped/1', data: { equipmentId: thing.id, reason } }]);
                }}
              />
            ) : null}
          </View>
        );
      })}
    </Sheet>
  );
}

const AWAY_STEP_MIN = 10;

export function People({ day, now, onDo }: { readonly day: OpenDay; readonly now: number; readonly onDo: Do }) {
  const [awayMin, setAwayMin] = useState(40);
  return (
    <Sheet label="Somebody is gone">
      <Title level={2}>Somebody is gone</Title>
      <MinutesStepper label="away for" durationMin={awayMin} stepMin={AWAY_STEP_MIN} mostMin={480} onChange={setAwayMin} />
      {day.book.station.people.map((person) => {
        const gone = day.state.away[person.id];
        const last = day.state.lastOf[person.id];
        const where = last === undefined ? '' : `last entry ${day.at(last.at)}${last.batchId === null ? '' : `, ${day.names.batch(last.batchId)}`}`;
        return (
          <Line
            key={person.id}
            head={person.name}
            note={gone === undefined ? where : `away since ${day.at(gone.at)}${gone.backAt === null ? '' : `, back ${day.at(gone.backAt)}`}`}
          >
            {gone === undefined ? (
              <View style={{ flexDirection: 'row', gap: 8 }}>
                <Action
                  label={words.duration(awayMin)}
                  hint={`${person.name} is away for ${words.duration(awayMin)}`}
                  onPress={() => {
                    onDo([{ kind: 'person.left/1', data: { personId: person.id, backAt: Math.round(now + awayMin * 60_000) } }]);
                  }}
                />
                <Action
                  label="All day"
                  hint={`${person.name} is away for the rest of the day`}
                  onPress={() => {
                    onDo([{ kind: 'person.left/1', data: { personId: person.id, backAt: null } }]);
                  }}
                />
              </View>
            ) : (
              <Action
                kind="main"
                label="Is back"
                hint={`${person.name} is back`}
                onPress={() => {
                  onDo([{ kind: 'person.back/1', data: { personId: person.id } }]);
                }}
              />
            )}
          </Line>
        );
      })}
    </Sheet>
  );
}
