import { addDays } from '@broth/core';
import { useState } from 'react';
import { Linking, View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import { recordApi, useAsked, whyNot } from '../../state/recordApi';
import { useDay } from '../../state/useDay';
import type { OpenDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { Field } from '../../ui/Field';
import { Screen, Waiting } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { CountStepper } from '../../ui/Stepper';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { useBack } from '../book/useBack';
import { RecordSheet } from './RecordSheet';

const FILES = [
  { path: 'record.pdf?paper=a4', label: 'PDF, A4' },
  { path: 'record.pdf?paper=letter', label: 'PDF, Letter' },
  { path: 'record.csv', label: 'CSV' },
  { path: 'record.json', label: 'JSON' },
] as const;

/** Links that read some days and end by themselves. The link itself is shown once: only its hash is kept. */
function Inspector({ day, isLead }: { readonly day: OpenDay; readonly isLead: boolean }) {
  const who = usePreferences((state) => state.who);
  const kitchenId = day.book.kitchen.id;
  const [turn, setTurn] = useState(0);
  const { answer } = useAsked(() => recordApi.inspectorLinks(kitchenId), `${kitchenId} ${String(turn)}`);
  const [days, setDays] = useState(7);
  const [made, setMade] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { date } = day.view;
  const first = addDays(date, 1 - days);
  const when = new Intl.DateTimeFormat('en-GB', { timeZone: day.book.kitchen.timeZone, day: 'numeric', month: 'short' });
  const make = (): void => {
    recordApi
      .postInspectorLink(kitchenId, { by: who ?? '', fromDay: first, toDay: date, forDays: 7 })
      .then(({ token }) => {
        setMade(`${window.location.origin}/inspect/${token}`);
        setTrouble(null);
        setTurn(turn + 1);
      })
      .catch((error: unknown) => {
        setTrouble(whyNot(error));
      });
  };
  const end = (id: string): void => {
    recordApi
      .endInspectorLink(kitchenId, id)
      .then(() => {
        setTurn(turn + 1);
      })
      .catch((error: unknown) => {
        setTrouble(whyNot(error));
      });
  };
  const now = day.book.now;
  const links = (answer?.links ?? []).filter((link) => link.revokedAt === null && link.expiresAt > now);
  return (
    <Sheet label="For an inspector">
      <Title level={2}>For an inspector</Title>
      <Note>A link that only reads, from the day shown back, and ends by itself after seven days.</Note>
      <CountStepper
        label="days back"
        count={days}
        step={1}
        most={92}
        onChange={(count) => {
          setDays(Math.max(1, count));
        }}
      />
      <Action label="Make a link" disabled={!isLead} onPress={make} />
      {made === null ? null : (
        <View role="status" style={{ gap: 4 }}>
          <Strong style={{ fontSize: 15 }}>{made}</Strong>
          <Note>Shown this once. Copy it now, or let it be read from here.</Note>
          <Action
            label="Copy it"
            onPress={() => {
              void navigator.clipboard.writeText(made).catch(() => undefined);
            }}
          />
        </View>
      )}
      {links.map((link) => (
        <View key={link.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
          <Body style={{ flex: 1 }}>{`${link.fromDay} to ${link.toDay}, good until ${when.format(link.expiresAt)}`}</Body>
          <Action
            label="End it"
            hint={`End the link of ${link.fromDay} to ${link.toDay}`}
            onPress={() => {
              end(link.id);
            }}
          />
        </View>
      ))}
      {isLead ? null : <Note>Links are made by the lead.</Note>}
      {trouble === null ? null : <Body>{trouble}</Body>}
    </Sheet>
  );
}

function Loaded({ day }: { readonly day: OpenDay }) {
  const who = usePreferences((state) => state.who);
  const putEvents = useKitchen((state) => state.record);
  const outbox = useKitchen((state) => state.outbox);
  const [note, setNote] = useState('');
  const kitchenId = day.book.kitchen.id;
  const { date } = day.view;
  const last = day.view.events.at(-1)?.seq ?? 0;
  const { answer: record, trouble } = useAsked(() => recordApi.record(kitchenId, date), `${kitchenId} ${date} ${String(last)} ${String(outbox.length)}`);
  const isLead = day.book.station.people.find((person) => person.id === who)?.role === 'lead';
  const waiting = outbox.filter((entry) => entry.refused === null).length;
  if (record === null) return trouble === null ? <Waiting /> : <Body>{`${trouble} The record is written by the server: it needs a connection.`}</Body>;
  const { signature } = record;
  return (
    <View style={{ maxWidth: 860, gap: 12 }}>
      <Sheet label="Signature">
        {signature === null ? (
          <StateMark mark="open" word="Not signed" />
        ) : (
          <View style={{ gap: 4 }}>
            <StateMark
              mark={signature.holds ? 'fine' : 'soon'}
              word={signature.holds ? `Signed by ${signature.by}, ${signature.at.slice(11, 16)}` : `Signed by ${signature.by}, and entered into since: sign again`}
            />
            {signature.note === '' ? null : <Body>{signature.note}</Body>}
            {signature.recordedThemselves ? <Note>Whoever signed also took readings of this day: better somebody else looks through it.</Note> : null}
          </View>
        )}
        {signature?.holds === true ? null : isLead ? (
          <View style={{ gap: 8 }}>
            {record.open.length === 0 ? null : <Body>{`${String(record.open.length)} still open. It can be signed; what is open stays in it.`}</Body>}
            <Field label="Note for the record" value={note} onChange={setNote} />
            <Action
              kind="main"
              label="I have looked through it: sign"
              hint="Sign the day's record"
              disabled={waiting > 0}
              onPress={() => {
                putEvents([{ kind: 'day.signed/1', data: { upToSeq: record.head.seq, hash: record.head.hash, note: note.trim() } }]);
                setNote('');
              }}
            />
            {waiting > 0 ? <Note>{`${String(waiting)} entries are not sent yet: sign when they are.`}</Note> : null}
          </View>
        ) : (
          <Note>Signed by the lead, after the day.</Note>
        )}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          {FILES.map(({ path, label }) => (
            <Action
              key={path}
              style={{ flexGrow: 1 }}
              label={label}
              hint={`Record as ${label}`}
              onPress={() => {
                void Linking.openURL(`/api/kitchens/${kitchenId}/days/${date}/${path}`);
              }}
            />
          ))}
        </View>
      </Sheet>
      {trouble === null ? null : <Body>{trouble}</Body>}
      <RecordSheet record={record} />
      <Inspector day={day} isLead={isLead} />
      <Keeping day={day} />
    </View>
  );
}

const KEEP = [90, 180, 365, 730, 1460];

/** How long records stay. Nothing here deletes: it is what the kitchen has promised, and the shortest it may be. */
function Keeping({ day }: { readonly day: OpenDay }) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const { retentionDays, id } = day.book.kitchen;
  const put = (next: number): void => {
    recordApi
      .patchKeeping(id, { retentionDays: next })
      .then((book) => {
        useKitchen.setState({ book });
      })
      .catch((error: unknown) => {
        setTrouble(whyNot(error));
      });
  };
  return (
    <Sheet label="How long it is kept">
      <Title level={2}>How long it is kept</Title>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {KEEP.map((days) => (
          <Action
            key={days}
            kind={days === retentionDays ? 'main' : 'plain'}
            label={days >= 365 ? `${String(days / 365)} ${days === 365 ? 'year' : 'years'}` : `${String(days)} days`}
            onPress={() => {
              put(days);
            }}
          />
        ))}
      </View>
      <Note>
        At least. Ordinary kitchens are often asked for 90 days to a year, cook-chill for six months, New Zealand for four years; ask your authority. The log itself is never cut.
      </Note>
      {trouble === null ? null : <Body>{trouble}</Body>}
    </Sheet>
  );
}

/** A day's record: looked through, signed, taken along, shown to an inspector. */
export function RecordScreen() {
  const back = useBack('/log');
  const day = useDay();
  return (
    <Screen title="Record" back={back}>
      {day === null ? <Waiting /> : <Loaded day={day} />}
    </Screen>
  );
}
