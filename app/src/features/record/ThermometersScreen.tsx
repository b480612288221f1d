import { words } from '@broth/contract';
import { boilingPointC, checkThermometer, doubtfulSpans, fahrenheitFromCelsius, parseTemperature } from '@broth/core';
import type { CheckMethod } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import { recordApi, whyNot } from '../../state/recordApi';
import { useDay } from '../../state/useDay';
import type { OpenDay } from '../../state/useDay';
import { useNow } from '../../state/useNow';
import { Action, Choice } from '../../ui/Action';
import { Field, Pick } from '../../ui/Field';
import { Screen, Waiting } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { useBack } from '../book/useBack';
import { checkedThermometers } from '../log/thermometer';
import type { CheckedThermometer } from '../log/thermometer';
import { LoggerFile } from './LoggerFile';
import { ProbeChart } from './ProbeChart';

const KINDS = [
  { value: 'hand', label: 'Held by hand' },
  { value: 'probe', label: 'Stays in, reports by itself' },
  { value: 'logger', label: 'Writes a file' },
] as const;
const METHODS: readonly { readonly value: CheckMethod; readonly label: string }[] = [
  { value: 'ice', label: 'Ice water' },
  { value: 'boil', label: 'Boiling water' },
];
/** A check holds for about so long. Days; common practice, the maker's own word comes first. */
const CHECK_EVERY_DAYS = 7;
const DAY_MS = 86_400_000;

function Check({ day, one }: { readonly day: OpenDay; readonly one: CheckedThermometer }) {
  const record = useKitchen((state) => state.record);
  const [method, setMethod] = useState<CheckMethod>('ice');
  const [text, setText] = useState('');
  const { thermometer } = one;
  const { unit } = thermometer;
  const boilingC = boilingPointC(day.book.station.altitudeM);
  const value = parseTemperature(text);
  const result = value === null ? null : checkThermometer({ reading: value, unit, method, boilingC }, day.rulesNow.thermometer.food);
  const should = method === 'ice' ? (unit === 'C' ? 0 : 32) : unit === 'C' ? boilingC : fahrenheitFromCelsius(boilingC);
  return (
    <View style={{ gap: 8 }}>
      <Choice label={`How ${thermometer.name} is checked`} value={method} options={METHODS} onPick={setMethod} />
      <Note>
        {method === 'ice'
          ? 'Crushed ice and a little water, stirred. Tip in the middle, not on ice or glass, until it stands still.'
          : 'Water at a rolling boil. The weather moves it by half a degree: ice is the better check.'}
      </Note>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-end' }}>
        <Field
          label={`It shows, °${unit} (should be ${words.number(should)})`}
          name={`What ${thermometer.name} shows`}
          value={text}
          onChange={setText}
          numeric
          message={text !== '' && value === null ? 'Type digits, like 32.5.' : null}
        />
        <Action
          kind="main"
          label="Log the check"
          hint={`Log the check of ${thermometer.name}`}
          disabled={result === null}
          onPress={() => {
            if (result === null || value === null) return;
            record([
              {
                kind: 'thermometer.checked/1',
                data: { thermometerId: thermometer.id, method, reading: { value, unit, rawText: text }, offset: result.offset, usable: result.usable },
              },
            ]);
            setText('');
          }}
        />
      </View>
      {result === null ? null : (
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <StateMark mark={result.usable ? 'fine' : 'stop'} />
          <Body style={{ flex: 1 }}>
            {result.usable
              ? `${words.number(result.offset)} °${unit} off, within ±${words.number(result.tolerance)}. It is taken off every reading.`
              : `${words.number(result.offset)} °${unit} off, more than ±${words.number(result.tolerance)}. Out of use: take another one, and look through what was read with it since its last good check.`}
          </Body>
        </View>
      )}
    </View>
  );
}

function Doubtful({ day, one }: { readonly day: OpenDay; readonly one: CheckedThermometer }) {
  const when = new Intl.DateTimeFormat('en-GB', { timeZone: day.book.kitchen.timeZone, day: 'numeric', month: 'short', hour: 'numeric', minute: '2-digit' });
  const spans = doubtfulSpans(one.checks);
  if (spans.length === 0) return null;
  const since = Object.values(day.state.batches).flatMap((batch) =>
    batch.readings
      .filter((reading) => reading.thermometerId === one.thermometer.id && spans.some((span) => (span.from === null || reading.at > span.from) && reading.at <= span.to))
      .map((reading) => `${batch.name} ${day.at(reading.at)}, ${words.degrees(reading.shown.value, reading.shown.unit)}`),
  );
  return (
    <View style={{ gap: 4 }}>
      {spans.map((span) => (
        <View key={span.to} style={{ flexDirection: 'row', gap: 8 }}>
          <StateMark mark="soon" />
          <Body style={{ flex: 1 }}>{`Doubtful: what it read ${span.from === null ? 'before' : `from ${when.format(span.from)} to`} ${when.format(span.to)}.`}</Body>
        </View>
      ))}
      {since.length === 0 ? null : <Note>{`Today that is: ${since.join('; ')}. Read again what still stands.`}</Note>}
    </View>
  );
}

function One({ day, one, now }: { readonly day: OpenDay; readonly one: CheckedThermometer; readonly now: number }) {
  const who = usePreferences((state) => state.who);
  const refresh = useKitchen((state) => state.refresh);
  const [open, setOpen] = useState<'check' | 'file' | 'chart' | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const { thermometer, last, usable } = one;
  const days = last === null ? null : Math.floor((now - last.at) / DAY_MS);
  const placed = day.state.placed[thermometer.id];
  const lastSampleAt = day.state.lastSampleAt[thermometer.id];
  const put = (inUse: boolean): void => {
    const { id, ...rest } = thermometer;
    recordApi
      .putThermometer(day.book.kitchen.id, id, { by: who ?? '', ...rest, inUse })
      .then((book) => {
        useKitchen.setState({ book });
        setTrouble(null);
        void refresh();
      })
      .catch((error: unknown) => {
        setTrouble(whyNot(error));
      });
  };
  const kind = KINDS.find((each) => each.value === thermometer.kind)?.label.toLowerCase() ?? '';
  return (
    <Sheet label={thermometer.name}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
        <View style={{ flex: 1 }}>
          <Strong style={{ fontSize: 18 }}>{thermometer.name}</Strong>
          <Note>{`°${thermometer.unit}, ${kind}`}</Note>
        </View>
        <StateMark
          mark={!thermometer.inUse ? 'open' : usable ? (last === null || (days ?? 0) >= CHECK_EVERY_DAYS ? 'soon' : 'fine') : 'stop'}
          word={!thermometer.inUse ? 'Put away' : !usable ? 'Out of use' : last === null || (days ?? 0) >= CHECK_EVERY_DAYS ? 'Check due' : 'In use'}
        />
      </View>
      <Body>
        {last === null
          ? 'Never checked. Hold it into ice water.'
          : `${last.method === 'ice' ? 'Ice water' : 'Boiling water'} ${days === 0 ? 'today' : days === 1 ? 'yesterday' : `${String(days)} days ago`}: showed ${words.degrees(last.shown, last.unit)}, ${last.offset === 0 ? 'exact' : `${last.offset > 0 ? '+' : '−'}${words.number(Math.abs(last.offset))} °${last.unit}`}. By ${day.nameOf(last.by)}.`}
      </Body>
      {placed === undefined ? null : (
        <Note>{`In ${day.names.batch(placed.batchId)} since ${day.at(placed.at)}${lastSampleAt === undefined ? ', nothing heard yet' : `, last heard ${day.at(lastSampleAt)}`}.`}</Note>
      )}
      <Doubtful day={day} one={one} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Action
          label="Check it"
          hint={`Check ${thermometer.name}`}
          onPress={() => {
            setOpen(open === 'check' ? null : 'check');
          }}
        />
        {thermometer.kind === 'hand' ? null : (
          <Action
            label="What it sent"
            hint={`What ${thermometer.name} sent`}
            onPress={() => {
              setOpen(open === 'chart' ? null : 'chart');
            }}
          />
        )}
        {thermometer.kind === 'hand' ? null : (
          <Action
            label="Take in a file"
            hint={`Take in a file of ${thermometer.name}`}
            onPress={() => {
              setOpen(open === 'file' ? null : 'file');
            }}
          />
        )}
        <Action
          label={thermometer.inUse ? 'Put away' : 'Take out again'}
          hint={`${thermometer.inUse ? 'Put away' : 'Take out again'} ${thermometer.name}`}
          onPress={() => {
            put(!thermometer.inUse);
          }}
        />
      </View>
      {open === 'check' ? <Check day={day} one={one} /> : null}
      {open === 'chart' ? <ProbeChart day={day} thermometer={thermometer} now={now} /> : null}
      {open === 'file' ? <LoggerFile kitchenId={day.book.kitchen.id} thermometer={thermometer} /> : null}
      <View role="alert">{trouble === null ? null : <Body>{trouble}</Body>}</View>
    </Sheet>
  );
}

function Register({ day }: { readonly day: OpenDay }) {
  const who = usePreferences((state) => state.who);
  const [name, setName] = useState('');
  const [unit, setUnit] = useState<'C' | 'F'>(day.book.kitchen.temperatureUnit);
  const [kind, setKind] = useState<(typeof KINDS)[number]['value']>('hand');
  const [trouble, setTrouble] = useState<string | null>(null);
  const add = (): void => {
    const id = `${name
      .trim()
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')}-${String(day.book.station.thermometers.length + 1)}`;
    recordApi
      .putThermometer(day.book.kitchen.id, id, { by: who ?? '', name: name.trim(), unit, kind, inUse: true })
      .then((book) => {
        useKitchen.setState({ book });
        setName('');
        setTrouble(null);
      })
      .catch((error: unknown) => {
        setTrouble(whyNot(error));
      });
  };
  return (
    <Sheet label="Register a thermometer">
      <Title level={2}>Register another</Title>
      <Field label="What stands on it" value={name} onChange={setName} message={trouble} />
      <Choice
        label="Unit on its display"
        value={unit}
        options={[
          { value: 'F', label: '°F' },
          { value: 'C', label: '°C' },
        ]}
        onPick={setUnit}
      />
      <Pick label="Kind" value={kind} options={KINDS} onPick={setKind} />
      <Action kind="main" label="Register it" disabled={name.trim() === ''} onPress={add} />
    </Sheet>
  );
}

/** Thermometers: what their checks say, and what that means for what was read with them. */
export function ThermometersScreen() {
  const back = useBack('/log');
  const day = useDay();
  const now = useNow(30_000);
  if (day === null) {
    return (
      <Screen title="Thermometers" day={false} back={back}>
        <Waiting />
      </Screen>
    );
  }
  const rule = day.rulesNow.thermometer.food;
  return (
    <Screen title="Thermometers" day={false} back={back}>
      <View style={{ maxWidth: 640, gap: 12 }}>
        <Note>
          {rule === null
            ? 'The rules in force name no accuracy: ±2 °F or ±1 °C is asked for.'
            : `${rule.citation}: within ±${words.number(rule.tolerance.f)} °F or ±${words.number(rule.tolerance.c)} °C.`}
        </Note>
        {checkedThermometers(day).map((one) => (
          <One key={one.thermometer.id} day={day} one={one} now={now} />
        ))}
        <Register day={day} />
      </View>
    </Screen>
  );
}
