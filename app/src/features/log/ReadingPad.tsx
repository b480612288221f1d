import { words } from '@broth/contract';
import * as advice from '@broth/contract/advice';
import { celsiusFromFahrenheit, fahrenheitFromCelsius, parseTemperature } from '@broth/core';
import { REFUSED, doubtReading } from '@broth/core/advice';
import type { Reading, TemperatureUnit } from '@broth/core';
import type { EntryContext, ReadingDoubt } from '@broth/core/advice';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { Action, Choice } from '../../ui/Action';
import { Field, Pick } from '../../ui/Field';
import { Keypad, typed } from '../../ui/Keypad';
import { StateMark } from '../../ui/StateMark';
import { MinutesStepper } from '../../ui/Stepper';
import { Body, Figure, Note } from '../../ui/Type';
import type { UsableThermometer } from './thermometer';

const UNITS: readonly { readonly value: TemperatureUnit; readonly label: string }[] = [
  { value: 'F', label: '°F' },
  { value: 'C', label: '°C' },
];

/** A reading as it is entered, with everything that goes into the record beside it. */
export interface Entered {
  readonly reading: Reading;
  readonly heldS: number | null;
  readonly pan: number | null;
  readonly thermometer: UsableThermometer | null;
  /** What was asked about it; null when nothing was odd. */
  readonly doubt: string | null;
  readonly minutesAgo: number;
  readonly lateReason: string | null;
}

interface Props {
  readonly name: string;
  readonly kitchenUnit: TemperatureUnit;
  /** Where the probe has to be. */
  readonly point: 'coldest' | 'warmest';
  /** What is known of the food; the pad adds when it was read. */
  readonly context: EntryContext;
  readonly now: number;
  readonly thermometers: readonly UsableThermometer[];
  readonly pans?: number | null;
  /** Seconds the reading has to stay, where the rule says so. */
  readonly holdS?: number;
  readonly batchName?: (id: string) => string;
  readonly onLog: (entered: Entered) => void;
}

interface Question {
  readonly says: string;
  readonly doubt: ReadingDoubt;
  readonly reading: Reading;
  readonly heldS: number | null;
}

/** What else it may have been, as the digits would then read. */
function otherwise({ doubt, reading }: Question): Reading | null {
  if ('otherUnit' in doubt) return { ...reading, unit: doubt.otherUnit };
  return 'likely' in doubt ? { ...reading, value: doubt.likely } : null;
}

const LATE_MIN = 15;

/** The digits, the unit in plain sight, and one tap. What is odd is asked about, never changed; what cannot be is not sent, and stays typed. */
export function ReadingPad({ name, kitchenUnit, point, context, now, thermometers, pans = null, holdS = 0, batchName = (id) => id, onLog }: Props) {
  const [text, setText] = useState('');
  const [thermometerId, setThermometerId] = useState(thermometers[0]?.id ?? '');
  const thermometer = thermometers.find((one) => one.id === thermometerId) ?? thermometers[0] ?? null;
  const [picked, setUnit] = useState<TemperatureUnit | null>(null);
  const unit = picked ?? thermometer?.unit ?? kitchenUnit;
  const [pan, setPan] = useState<number | null>(null);
  const [minutesAgo, setMinutesAgo] = useState(0);
  const [lateReason, setLateReason] = useState('');
  const [more, setMore] = useState(false);
  const [question, setQuestion] = useState<Question | null>(null);
  const value = parseTemperature(text);
  const shown = value === null ? '' : `${words.number(value)} °${unit}`;
  const otherUnit = unit === 'F' ? 'C' : 'F';
  const inOther = value === null ? '' : words.degrees(unit === 'F' ? celsiusFromFahrenheit(value) : fahrenheitFromCelsius(value), otherUnit);
  const isLate = minutesAgo > LATE_MIN;

  const type = (next: string): void => {
    setText(next);
    setQuestion(null);
  };
  const send = (reading: Reading, heldS: number | null, doubt: string | null): void => {
    onLog({ reading, heldS, pan, thermometer, doubt, minutesAgo, lateReason: isLate ? lateReason.trim() : null });
    setText('');
    setQuestion(null);
    setMinutesAgo(0);
    setLateReason('');
    setMore(false);
  };
  const log = (heldS: number | null): void => {
    if (value === null) return;
    const reading: Reading = { value, unit, rawText: text };
    // That it is entered late is asked by the field for it.
    const doubts = doubtReading(reading, { ...context, at: now - minutesAgo * 60_000, enteredAt: now }).filter((doubt) => doubt.code !== 'backdated');
    const [doubt] = doubts;
    if (doubt === undefined) send(reading, heldS, null);
    else setQuestion({ says: advice.doubt(doubt, value, unit, batchName), doubt, reading, heldS });
  };

  // On a wide screen the digits come from the keyboard as well.
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement || event.target instanceof HTMLSelectElement || event.metaKey || event.ctrlKey)
        return;
      if (/^[0-9.]$/.test(event.key)) setText((before) => typed(before, event.key));
      else if (event.key === ',') setText((before) => typed(before, '.'));
      else if (event.key === '-') setText((before) => typed(before, 'sign'));
      else if (event.key === 'Backspace') setText((before) => typed(before, 'delete'));
    };
    window.addEventListener('keydown', press);
    return () => {
      window.removeEventListener('keydown', press);
    };
  }, []);

  const other = question === null ? null : otherwise(question);
  const mayKeep = question !== null && !REFUSED.includes(question.doubt.code) && question.doubt.code !== 'decimalSlip';
  return (
    <View role="group" aria-label="Log a reading" style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
        <View role="status" aria-live="polite" style={{ flex: 1 }}>
          <Figure style={{ fontSize: 40, lineHeight: 44 }}>{text === '' ? `– °${unit}` : `${text} °${unit}`}</Figure>
          <Note>{inOther === '' ? `read at the ${point} point` : `is ${inOther}`}</Note>
        </View>
        <Choice
          label="Unit on the probe"
          value={unit}
          options={UNITS}
          onPick={(next) => {
            setUnit(next);
            setQuestion(null);
          }}
        />
      </View>
      {pans === null || pans < 2 ? null : (
        <Choice
          label="Which pan"
          value={String(pan)}
          options={[{ value: 'null', label: 'Warmest' }, ...Array.from({ length: pans }, (_, index) => ({ value: String(index + 1), label: `Pan ${String(index + 1)}` }))]}
          onPick={(next) => {
            setPan(next === 'null' ? null : Number(next));
          }}
        />
      )}
      <View role="alert">
        {question === null ? null : (
          <View style={{ gap: 8 }}>
            <View style={{ flexDirection: 'row', gap: 8 }}>
              <StateMark mark={mayKeep ? 'soon' : 'stop'} />
              <Body style={{ flex: 1 }}>{question.says}</Body>
            </View>
            <View style={{ flexDirection: 'row', gap: 8 }}>
              {other === null ? null : (
                <Action
                  style={{ flex: 1 }}
                  label={`It is ${words.degrees(other.value, other.unit)}`}
                  onPress={() => {
                    send(other, question.heldS, question.doubt.code);
                  }}
                />
              )}
              {mayKeep ? (
                <Action
                  style={{ flex: 1 }}
                  label={`It is ${words.degrees(question.reading.value, question.reading.unit)}`}
                  onPress={() => {
                    send(question.reading, question.heldS, question.doubt.code);
                  }}
                />
              ) : null}
            </View>
          </View>
        )}
      </View>
      <Keypad text={text} onType={type}>
        <Action
          kind="main"
          style={{ flex: 1 }}
          disabled={value === null || (isLate && lateReason.trim() === '')}
          label="Log"
          hint={value === null ? `Log ${name}: type the digits first` : `Log ${shown} for ${name}`}
          onPress={() => {
            log(null);
          }}
        />
        {holdS > 0 ? (
          <Action
            style={{ flex: 1 }}
            disabled={value === null}
            label={`Held ${String(holdS)} s`}
            hint={`Log ${shown}, held for ${String(holdS)} s`}
            onPress={() => {
              log(holdS);
            }}
          />
        ) : null}
      </Keypad>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-end' }}>
        {thermometers.length === 0 ? (
          <Note style={{ flex: 1 }}>No thermometer may be used: none is registered, or each failed its check. The record cannot say which one it was.</Note>
        ) : (
          <Pick label="Thermometer" value={thermometer?.id ?? ''} options={thermometers.map((one) => ({ value: one.id, label: one.label }))} onPick={setThermometerId} />
        )}
        <Action
          label={minutesAgo === 0 ? 'Read earlier' : `${words.duration(minutesAgo)} ago`}
          hint="It was read earlier than now"
          onPress={() => {
            setMore(!more);
          }}
        />
      </View>
      {more ? (
        <View style={{ gap: 8 }}>
          <MinutesStepper label="ago" durationMin={minutesAgo} stepMin={5} mostMin={720} onChange={setMinutesAgo} />
          {isLate ? <Field label="Why it is entered only now" value={lateReason} onChange={setLateReason} /> : null}
        </View>
      ) : null}
    </View>
  );
}
