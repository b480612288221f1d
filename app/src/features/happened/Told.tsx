import { words } from '@broth/contract';
import { handover } from '@broth/core';
import { useState } from 'react';
import { usePreferences } from '../../state/preferences';
import type { OpenDay } from '../../state/useDay';
import type { Hands } from '../../state/useHands';
import { Action } from '../../ui/Action';
import { Field, Pick } from '../../ui/Field';
import { MinutesStepper } from '../../ui/Stepper';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Title } from '../../ui/Type';
import type { Do } from './line';

export function Notes({ day, onDo }: { readonly day: OpenDay; readonly onDo: Do }) {
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

export function Timer({ onDo }: { readonly onDo: Do }) {
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
export function HandOver({ day, hands, now, onDo }: { readonly day: OpenDay; readonly hands: Hands; readonly now: number; readonly onDo: Do }) {
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
