import { words } from '@broth/contract';
import { celsiusFromFahrenheit, doubtReading, fahrenheitFromCelsius, parseTemperature } from '@broth/core';
import type { Purpose, Reading, RulePack, TemperatureUnit } from '@broth/core';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { Action, Choice } from '../../ui/Action';
import { DeleteKey, Keypad, typed } from '../../ui/Keypad';
import { StateMark } from '../../ui/StateMark';
import { Body, Figure, Note } from '../../ui/Type';

const UNITS: readonly { readonly value: TemperatureUnit; readonly label: string }[] = [
  { value: 'F', label: '°F' },
  { value: 'C', label: '°C' },
];

interface Props {
  readonly batchName: string;
  readonly purpose: Purpose;
  readonly kitchenUnit: TemperatureUnit;
  readonly pack: RulePack;
  readonly onLog: (reading: Reading, heldS: number | null) => void;
}

/** The digits, the unit in plain sight, and one tap. What is odd is asked about, never changed; what cannot be is not sent, and stays typed. */
export function ReadingPad({ batchName, purpose, kitchenUnit, pack, onLog }: Props) {
  const [text, setText] = useState('');
  const [unit, setUnit] = useState<TemperatureUnit>(kitchenUnit);
  const [question, setQuestion] = useState<{ readonly says: string; readonly reading: Reading; readonly other: TemperatureUnit | null; readonly heldS: number | null } | null>(
    null,
  );
  const value = parseTemperature(text);
  const shown = value === null ? '' : `${words.number(value)} °${unit}`;
  const otherUnit = unit === 'F' ? 'C' : 'F';
  const inOther = value === null ? '' : words.degrees(unit === 'F' ? celsiusFromFahrenheit(value) : fahrenheitFromCelsius(value), otherUnit);

  const type = (next: string): void => {
    setText(next);
    setQuestion(null);
  };
  const send = (reading: Reading, heldS: number | null): void => {
    onLog(reading, heldS);
    setText('');
    setQuestion(null);
  };
  const log = (heldS: number | null): void => {
    if (value === null) return;
    const reading: Reading = { value, unit, rawText: text };
    const doubt = doubtReading(reading, purpose);
    if (doubt === null) send(reading, heldS);
    else if (doubt.code === 'reading.impossible') {
      setQuestion({
        says: `${words.degrees(value, unit)} cannot be right: soup lies between ${words.degrees(doubt.lowest, unit)} and ${words.degrees(doubt.highest, unit)}. Check the digits and the unit.`,
        reading,
        other: null,
        heldS,
      });
    } else {
      setQuestion({
        says: `${words.degrees(value, unit)} is unusual here. Did the probe say ${words.degrees(value, doubt.otherUnit)}, which is ${words.degrees(fromOther(value, doubt.otherUnit), unit)}?`,
        reading,
        other: doubt.otherUnit,
        heldS,
      });
    }
  };

  // On a wide screen the digits come from the keyboard as well.
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (event.target instanceof HTMLInputElement || event.metaKey || event.ctrlKey) return;
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

  return (
    <View role="group" aria-label="Log a reading" style={{ gap: 8 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
        <View role="status" aria-live="polite" style={{ flex: 1 }}>
          <Figure style={{ fontSize: 40, lineHeight: 44 }}>{text === '' ? `– °${unit}` : `${text} °${unit}`}</Figure>
          <Note>{inOther === '' ? `read at the ${purpose === 'cool' || purpose === 'coldHold' ? 'warmest' : 'coldest'} point` : `is ${inOther}`}</Note>
        </View>
        <DeleteKey text={text} onType={type} />
        <Choice
          label="Unit on the probe"
          value={unit}
          options={UNITS}
          onPick={(picked) => {
            setUnit(picked);
            setQuestion(null);
          }}
        />
      </View>
      <View role="alert">
        {question === null ? null : (
          <View style={{ gap: 8 }}>
            <View style={{ flexDirection: 'row', gap: 8 }}>
              <StateMark mark={question.other === null ? 'stop' : 'soon'} />
              <Body style={{ flex: 1 }}>{question.says}</Body>
            </View>
            {question.other === null ? null : (
              <View style={{ flexDirection: 'row', gap: 8 }}>
                <Action
                  style={{ flex: 1 }}
                  label={`It is ${words.degrees(question.reading.value, question.other)}`}
                  onPress={() => {
                    if (question.other !== null) send({ ...question.reading, unit: question.other }, question.heldS);
                  }}
                />
                <Action
                  style={{ flex: 1 }}
                  label={`It is ${words.degrees(question.reading.value, question.reading.unit)}`}
                  onPress={() => {
                    send(question.reading, question.heldS);
                  }}
                />
              </View>
            )}
          </View>
        )}
      </View>
      <Keypad text={text} onType={type} />
      <Action
        kind="main"
        disabled={value === null}
        label={value === null ? 'Log' : `Log ${shown}`}
        hint={value === null ? `Log ${batchName}: type the digits first` : `Log ${shown} for ${batchName}`}
        onPress={() => {
          log(null);
        }}
      />
      {purpose === 'reheat' ? (
        <Action
          disabled={value === null}
          label={`Log, held for ${String(pack.reheat.holdS)} s`}
          onPress={() => {
            log(pack.reheat.holdS);
          }}
        />
      ) : null}
    </View>
  );
}

function fromOther(value: number, valueUnit: TemperatureUnit): number {
  return valueUnit === 'C' ? fahrenheitFromCelsius(value) : celsiusFromFahrenheit(value);
}
