import { words } from '@broth/contract';
import { TASTE_RESULTS, TEXTURE_RESULTS, handover } from '@broth/core';
import { useState } from 'react';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import type { NewEvent } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import type { OpenDay } from '../../state/useDay';
import { useHands } from '../../state/useHands';
import type { Hands } from '../../state/useHands';
import { useNow } from '../../state/useNow';
import { Action, Choice } from '../../ui/Action';
import { Pick, Field } from '../../ui/Field';
import { CountStepper, MinutesStepper } from '../../ui/Stepper';
import { Screen, Waiting } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { useBack } from '../book/useBack';

type Do = (events: readonly NewEvent[]) => void;

function Line({ head, note, children }: { readonly head: string; readonly note: string; readonly children: ReactNode }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10, minHeight: 56 }}>
      <View style={{ flex: 1 }}>
        <Strong>{head}</Strong>
        {note === '' ? null : <Note>{note}</Note>}
      </View>
      {children}
    </View>
  );
}

/** A thing that cannot be used: plans do without it until it is back. */
function Equipment({ day, onDo }: { readonly day: OpenDay; readonly onDo: Do }) {
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

function People({ day, now, onDo }: { readonly day: OpenDay; readonly now: number; readonly onDo: Do }) {
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

const GUESTS_STEP = 10;

/** A party that was not expected: its portions go onto the par, and the day is planned anew. */
function MoreGuests({ day }: { readonly day: OpenDay }) {
  const [soupId, setSoupId] = useState('');
  const [portions, setPortions] = useState(60);
  const [says, setSays] = useState<string | null>(null);
  const putPar = useKitchen((state) => state.putPar);
  const pars = day.view.pars.filter((par) => day.soupById.get(par.soupId)?.role === 'soup');
  const par = pars.find((one) => one.soupId === soupId);
  const moreL = (portions * (day.soupById.get(soupId)?.portionMl ?? 0)) / 1000;
  return (
    <Sheet label="More guests">
      <Title level={2}>More guests</Title>
      <Pick
        label="Of which soup"
        value={soupId}
        options={[{ value: '', label: 'pick one' }, ...pars.map((one) => ({ value: one.soupId, label: day.names.soup(one.soupId) }))]}
        onPick={setSoupId}
      />
      <CountStepper label="portions more" count={portions} step={GUESTS_STEP} most={500} onChange={setPortions} />
      {par === undefined ? null : <Body>{`${words.litres(moreL)} more: the par goes from ${words.litres(par.parL)} to ${words.litres(par.parL + moreL)}.`}</Body>}
      <Action
        kind="main"
        label="Raise the par"
        disabled={par === undefined || portions === 0}
        onPress={() => {
          if (par !== undefined)
            void putPar(par.soupId, Math.round((par.parL + moreL) * 10) / 10).then((wrong) => {
              setSays(wrong ?? 'Raised. Now says what it does to the day.');
            });
        }}
      />
      {says === null ? null : <Note>{says}</Note>}
    </Sheet>
  );
}

/** A batch that is lost: it is thrown away with its litres and the reason, and what it was for is planned anew. */
function Lost({ day, onDo }: { readonly day: OpenDay; readonly onDo: Do }) {
  const [losing, setLosing] = useState<string | null>(null);
  const running = Object.values(day.state.batches).filter((batch) => batch.stage.kind !== 'discarded');
  if (running.length === 0) return null;
  return (
    <Sheet label="A batch is lost">
      <Title level={2}>A batch is lost</Title>
      <Note>It goes into the bin and the record; what it was for is planned anew.</Note>
      {running.map((batch) => (
        <View key={batch.batchId} style={{ gap: 6 }}>
          <Line head={batch.name} note={words.litres(batch.volumeOutL ?? batch.volumeL)}>
            <Action
              label="Lost"
              hint={`${batch.name} is lost`}
              onPress={() => {
                setLosing(losing === batch.batchId ? null : batch.batchId);
              }}
            />
          </Line>
          {losing === batch.batchId ? (
            <Choice
              label={`What happened to ${batch.name}`}
              value={null}
              options={words.LOST_REASONS.map((reason) => ({ value: reason, label: reason }))}
              onPick={(note) => {
                setLosing(null);
                onDo([
                  {
                    kind: 'corrective.taken/1',
                    data: { batchId: batch.batchId, ruleId: words.LOST_RULE, action: 'discard', note, volumeL: batch.volumeOutL ?? batch.volumeL },
                  },
                ]);
              }}
            />
          ) : null}
        </View>
      ))}
    </Sheet>
  );
}

/** How a batch came out, and why where it went wrong. */
function Result({ day, onDo }: { readonly day: OpenDay; readonly onDo: Do }) {
  const batches = Object.values(day.state.batches);
  const [picked, setPicked] = useState('');
  const [cause, setCause] = useState('');
  const batch = batches.find((one) => one.batchId === picked);
  if (batches.length === 0) return null;
  const last = batch?.results.at(-1);
  return (
    <Sheet label="How it came out">
      <Title level={2}>How it came out</Title>
      <Pick label="Batch" value={picked} options={[{ value: '', label: 'pick one' }, ...batches.map((one) => ({ value: one.batchId, label: one.name }))]} onPick={setPicked} />
      {batch === undefined ? null : (
        <>
          <Field label="Cause, where it went wrong" value={cause} onChange={setCause} />
          <Strong>Texture</Strong>
          <Choice
            label="Texture"
            value={last?.texture ?? null}
            options={TEXTURE_RESULTS.map((value) => ({ value, label: words.TEXTURE_RESULT[value] }))}
            onPick={(texture) => {
              onDo([{ kind: 'result.noted/1', data: { batchId: batch.batchId, texture, taste: last?.taste ?? null, cause } }]);
            }}
          />
          <Strong>Taste</Strong>
          <Choice
            label="Taste"
            value={last?.taste ?? null}
            options={TASTE_RESULTS.map((value) => ({ value, label: words.TASTE_RESULT[value] }))}
            onPick={(taste) => {
              onDo([{ kind: 'result.noted/1', data: { batchId: batch.batchId, texture: last?.texture ?? null, taste, cause } }]);
            }}
          />
        </>
      )}
    </Sheet>
  );
}

function Notes({ day, onDo }: { readonly day: OpenDay; readonly onDo: Do }) {
  const [text, setText] = useState('');
  const [batchId, setBatchId] = useState('');
  const batches = Object.values(day.state.batches);
  return (
    <Sheet label="A note">
      <Title level={2}>A note, with its time</Title>
      <Pick label="About" value={batchId} options={[{ value: '', label: 'the day' }, ...batches.map((one) => ({ value: one.batchId, label: one.name }))]} onPick={setBatchId} />
      <Field label="Note" value={text} onChange={setText} />
      <Action
        kind="main"
        label="Write it down"
        disabled={text.trim() === ''}
        onPress={() => {
          onDo([{ kind: 'note.made/1', data: { batchId: batchId === '' ? null : batchId, text: text.trim() } }]);
          setText('');
        }}
      />
      {[...day.state.notes]
        .reverse()
        .slice(0, 5)
        .map((note) => (
          <Note key={note.eventId}>{`${day.at(note.at)} ${day.nameOf(note.by)}${note.batchId === null ? '' : `, ${day.names.batch(note.batchId)}`}: ${note.text}`}</Note>
        ))}
    </Sheet>
  );
}

function Timer({ onDo }: { readonly onDo: Do }) {
  const [name, setName] = useState('');
  const [durationMin, setDurationMin] = useState(10);
  return (
    <Sheet label="A timer">
      <Title level={2}>A timer of your own</Title>
      <Field label="For what" value={name} onChange={setName} />
      <MinutesStepper label="from now" durationMin={durationMin} stepMin={1} mostMin={240} onChange={setDurationMin} />
      <Action
        kind="main"
        label="Set it"
        disabled={name.trim() === '' || durationMin < 1}
        onPress={() => {
          onDo([{ kind: 'timer.set/1', data: { name: name.trim(), durationS: durationMin * 60, batchId: null } }]);
          setName('');
        }}
      />
    </Sheet>
  );
}

/** What whoever takes over has to know, and that it was handed over. */
function HandOver({ day, hands, now, onDo }: { readonly day: OpenDay; readonly hands: Hands; readonly now: number; readonly onDo: Do }) {
  const who = usePreferences((state) => state.who);
  const [to, setTo] = useState('');
  const lines = words.handover(handover(day.state, hands.tasks, day.soupById, now), day.names, day.nameOf, day.at);
  const last = day.state.handovers.at(-1);
  return (
    <Sheet label="Handing over">
      <Title level={2}>Handing over</Title>
      {lines.length === 0 ? <Body>Nothing is under way.</Body> : lines.map((line) => <Body key={line}>{line}</Body>)}
      <Pick
        label="To"
        value={to}
        options={[{ value: '', label: 'pick a name' }, ...day.book.station.people.filter((one) => one.id !== who).map((one) => ({ value: one.id, label: one.name }))]}
        onPick={setTo}
      />
      <Action
        kind="main"
        label="Hand over"
        disabled={to === ''}
        onPress={() => {
          onDo([{ kind: 'shift.handedOver/1', data: { toId: to, note: lines.join('\n').slice(0, 2000) } }]);
          setTo('');
        }}
      />
      {last === undefined ? null : <Note>{`Last handed over at ${day.at(last.at)}, ${day.nameOf(last.by)} to ${day.nameOf(last.toId)}.`}</Note>}
    </Sheet>
  );
}

const WHAT = [
  { value: 'stopped', label: 'Out of order' },
  { value: 'gone', label: 'Somebody is gone' },
  { value: 'lost', label: 'A batch is lost' },
  { value: 'guests', label: 'More guests' },
  { value: 'timer', label: 'A timer' },
  { value: 'note', label: 'A note' },
  { value: 'result', label: 'How it came out' },
  { value: 'handover', label: 'Handing over' },
] as const;

/** What no plan foresees, one tap away from Now: each entry is an event like any other, and the plan follows it. */
export function HappenedScreen() {
  const back = useBack('/now');
  const now = useNow(5000);
  const open = useHands(now);
  const record = useKitchen((state) => state.record);
  const [what, setWhat] = useState<(typeof WHAT)[number]['value'] | null>(null);
  const act: Do = (events) => {
    record(events);
  };
  if (open === null) {
    return (
      <Screen title="What happened" day={false} back={back}>
        <Waiting />
      </Screen>
    );
  }
  const { day, hands } = open;
  return (
    <Screen title="What happened" day={false} back={back}>
      <View style={{ maxWidth: 720, gap: 12 }}>
        <Choice label="What happened" value={what} options={WHAT} onPick={setWhat} />
        {what === 'stopped' ? <Equipment day={day} onDo={act} /> : null}
        {what === 'gone' ? <People day={day} now={now} onDo={act} /> : null}
        {what === 'lost' ? <Lost day={day} onDo={act} /> : null}
        {what === 'guests' ? <MoreGuests day={day} /> : null}
        {what === 'timer' ? <Timer onDo={act} /> : null}
        {what === 'note' ? <Notes day={day} onDo={act} /> : null}
        {what === 'result' ? <Result day={day} onDo={act} /> : null}
        {what === 'handover' ? <HandOver day={day} hands={hands} now={now} onDo={act} /> : null}
      </View>
    </Screen>
  );
}
