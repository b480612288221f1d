import type { Thermometer } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import { recordApi, whyNot } from '../../state/recordApi';
import { usePalette } from '../../theme/theme';
import { Action } from '../../ui/Action';
import { Pick } from '../../ui/Field';
import { StateMark } from '../../ui/StateMark';
import { Body, Note } from '../../ui/Type';

const MOST_MB = 16;
type Dates = 'ymd' | 'dmy' | 'mdy';

/** The line that names the columns: loggers write some lines about themselves first. */
function namesIn(text: string): readonly string[] {
  const lines = text.split(/\r?\n/, 40);
  const head = lines.find((line) => /time|date/i.test(line) && /[,;\t]/.test(line)) ?? lines[0] ?? '';
  return head.split(/[,;\t]/).map((name) => name.replaceAll('"', '').trim());
}

/** A data logger's file with its columns picked by hand. */
export function LoggerFile({ kitchenId, thermometer }: { readonly kitchenId: string; readonly thermometer: Thermometer }) {
  const palette = usePalette();
  const [text, setText] = useState<string | null>(null);
  const [time, setTime] = useState('');
  const [value, setValue] = useState('');
  const [unit, setUnit] = useState<'C' | 'F'>(thermometer.unit);
  const [dates, setDates] = useState<Dates>('ymd');
  const [said, setSaid] = useState<{ readonly mark: 'fine' | 'stop'; readonly word: string } | null>(null);
  const names = text === null ? [] : namesIn(text);
  const open = async (file: File): Promise<void> => {
    if (file.size > MOST_MB * 1_000_000) {
      setSaid({ mark: 'stop', word: `That file has ${String(Math.round(file.size / 1_000_000))} MB: send it in parts of less than ${String(MOST_MB)}.` });
      return;
    }
    const read = await file.text();
    const found = namesIn(read);
    setText(read);
    setSaid(null);
    setTime(found.find((name) => /time|date/i.test(name)) ?? '');
    setValue(found.find((name) => /temp|value|°/i.test(name)) ?? '');
    setDates(/\d{4}-\d/.test(read) ? 'ymd' : 'dmy');
  };
  const send = (): void => {
    if (text === null) return;
    recordApi
      .putSamplesCsv(kitchenId, text, { thermometerId: thermometer.id, time, value, unit, dates })
      .then((answer) => {
        setSaid({ mark: 'fine', word: `${String(answer.new)} readings taken in${answer.taken > answer.new ? `, ${String(answer.taken - answer.new)} were there already` : ''}.` });
        setText(null);
      })
      .catch((error: unknown) => {
        setSaid({ mark: 'stop', word: whyNot(error) });
      });
  };
  const columns = names.map((name) => ({ value: name, label: name }));
  return (
    <View style={{ gap: 8 }}>
      <Note>CSV as the logger writes it. All of it or nothing: a line that cannot be read is named, and what came before is not taken twice.</Note>
      <input
        type="file"
        accept=".csv,.txt,text/csv,text/plain"
        aria-label={`File of ${thermometer.name}`}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file !== undefined) void open(file);
          event.target.value = '';
        }}
        style={{ color: palette.ink, fontSize: 16, minHeight: 48, maxWidth: '100%' }}
      />
      {text === null ? null : (
        <>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            <Pick label="Time" value={time} options={[{ value: '', label: 'pick a column' }, ...columns]} onPick={setTime} />
            <Pick label="Temperature" value={value} options={[{ value: '', label: 'pick a column' }, ...columns]} onPick={setValue} />
            <Pick
              label="It is in"
              value={unit}
              options={[
                { value: 'F', label: '°F' },
                { value: 'C', label: '°C' },
              ]}
              onPick={setUnit}
            />
            <Pick
              label="Days are written"
              value={dates}
              options={[
                { value: 'ymd', label: '2026-11-25' },
                { value: 'dmy', label: '25/11/2026' },
                { value: 'mdy', label: '11/25/2026' },
              ]}
              onPick={setDates}
            />
          </View>
          <Action kind="main" label="Take it in" disabled={time === '' || value === ''} onPress={send} />
        </>
      )}
      <View role="status">
        {said === null ? null : (
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <StateMark mark={said.mark} />
            <Body style={{ flex: 1 }}>{said.word}</Body>
          </View>
        )}
      </View>
    </View>
  );
}
