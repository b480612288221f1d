import { words } from '@broth/contract';
import type { SalesColumns, SalesView } from '@broth/contract';
import { addDays, backtest } from '@broth/core';
import type { Soup } from '@broth/core';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { api } from '../../state/api';
import { useKitchen } from '../../state/kitchen';
import { useSoldDrafts } from '../../state/soldDrafts';
import { historyFor, salesChanged, useSales } from '../../state/useSales';
import { usePalette } from '../../theme/theme';
import { Action } from '../../ui/Action';
import { Field, Pick } from '../../ui/Field';
import { Screen, Waiting, dayName, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { useBack } from '../book/useBack';

/** Days of the backtest. */
const TESTED = 28;

/** `13:05` as minutes; null when it is empty, NaN when it is no time. */
function minuteOf(text: string): number | null {
  if (text.trim() === '') return null;
  const minute = words.readClock(text);
  return minute < 1440 ? minute : Number.NaN;
}

interface RowProps {
  readonly soup: Soup;
  readonly serviceId: string;
  readonly day: string;
  readonly view: SalesView;
}

function SoldRow({ soup, serviceId, day, view }: RowProps) {
  const kitchenId = useKitchen((state) => state.book?.kitchen.id ?? '');
  const known = view.sales.find((one) => one.day === day && one.soupId === soup.id && one.serviceId === serviceId);
  const key = `${day} ${soup.id} ${serviceId}`;
  const draft = useSoldDrafts((state) => state.byKey[key]);
  const { write, clear } = useSoldDrafts.getState();
  const { sold, gone } = draft ?? { sold: known === undefined ? '' : String(known.sold), gone: known?.soldOutMin == null ? '' : words.clock(known.soldOutMin) };
  const [message, setMessage] = useState<string | null>(null);
  const [saved, setSaved] = useState(false);
  const isKnown = draft !== undefined && known !== undefined && sold.trim() !== '' && Number(sold) === known.sold && minuteOf(gone) === known.soldOutMin;
  useEffect(() => {
    if (isKnown) clear(key);
  }, [isKnown, key, clear]);
  const save = (): void => {
    const portions = Number(sold);
    const soldOutMin = minuteOf(gone);
    if (sold.trim() === '' || !Number.isInteger(portions) || portions < 0) {
      setMessage('Sold is a whole number of portions, 0 or more.');
      return;
    }
    if (Number.isNaN(soldOutMin)) {
      setMessage('Write the time like 13:05, or leave it empty when some was left.');
      return;
    }
    api
      .putSale(kitchenId, day, soup.id, { serviceId, sold: portions, soldOutMin })
      .then(() => {
        setMessage(null);
        setSaved(true);
        salesChanged();
      })
      .catch((error: unknown) => {
        setMessage(error instanceof Error ? error.message : String(error));
      });
  };
  return (
    <View role="group" aria-label={soup.name} style={{ gap: 4 }}>
      <Strong>{soup.name}</Strong>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-end' }}>
        <Field
          label="Sold, portions"
          name={`Sold, ${soup.name}`}
          numeric
          value={sold}
          onChange={(text) => {
            write(key, { sold: text, gone });
            setSaved(false);
          }}
        />
        <Field
          label="Ran out at"
          name={`Ran out at, ${soup.name}`}
          value={gone}
          onChange={(text) => {
            write(key, { sold, gone: text });
            setSaved(false);
          }}
          width={110}
        />
        <Action label={saved ? 'Saved' : 'Save'} kind={draft === undefined || saved ? 'plain' : 'main'} hint={`Save ${soup.name}`} onPress={save} />
      </View>
      {message === null ? null : <StateMark mark="stop" word={message} />}
    </View>
  );
}

/** A list of sales with its columns picked by hand: whatever a till writes. */
function ListIn() {
  const palette = usePalette();
  const kitchenId = useKitchen((state) => state.book?.kitchen.id ?? '');
  const [text, setText] = useState<string | null>(null);
  const [columns, setColumns] = useState<SalesColumns>({ day: '', soup: '', sold: '', dates: 'ymd' });
  const [said, setSaid] = useState<{ readonly mark: 'fine' | 'stop'; readonly word: string } | null>(null);
  const head = (text ?? '').split(/\r?\n/, 1)[0] ?? '';
  const names = head.split(/[,;\t]/).map((name) => name.replaceAll('"', '').trim());
  const open = async (file: File): Promise<void> => {
    if (file.size > 2_000_000) {
      setSaid({ mark: 'stop', word: `That file has ${words.number(file.size / 1_000_000)} MB: send it in parts of less than 2.` });
      return;
    }
    const read = await file.text();
    const found = (read.split(/\r?\n/, 1)[0] ?? '').split(/[,;\t]/).map((name) => name.replaceAll('"', '').trim());
    const guess = (pattern: RegExp): string => found.find((name) => pattern.test(name)) ?? '';
    setText(read);
    setSaid(null);
    setColumns({
      day: guess(/date|day/i),
      soup: guess(/soup|item|product|name/i),
      sold: guess(/sold|qty|quantity|portions|count/i),
      soldOut: guess(/out|gone/i),
      service: guess(/service|meal|shift/i),
      dates: /\d{4}-\d/.test(read) ? 'ymd' : 'dmy',
    });
  };
  const send = (): void => {
    if (text === null) return;
    const { soldOut, service, ...always } = columns;
    api
      .putSalesCsv(kitchenId, text, { ...always, ...(soldOut === undefined || soldOut === '' ? {} : { soldOut }), ...(service === undefined || service === '' ? {} : { service }) })
      .then(({ taken }) => {
        setSaid({ mark: 'fine', word: taken === 1 ? 'One line taken in.' : `${String(taken)} lines taken in.` });
        setText(null);
        salesChanged();
      })
      .catch((error: unknown) => {
        setSaid({ mark: 'stop', word: error instanceof Error ? error.message : String(error) });
      });
  };
  const column = (label: string, key: 'day' | 'soup' | 'sold' | 'soldOut' | 'service', may: boolean) => (
    <Pick
      label={label}
      value={columns[key] ?? ''}
      options={[{ value: '', label: may ? 'not in it' : 'pick a column' }, ...names.map((name) => ({ value: name, label: name }))]}
      onPick={(picked) => {
        setColumns({ ...columns, [key]: picked });
      }}
    />
  );
  return (
    <Sheet label="A list of sales">
      <Title level={2}>Or take in a list</Title>
      <Note>CSV from a till or a spreadsheet. All of it or nothing: a wrong line is named.</Note>
      <input
        type="file"
        accept=".csv,text/csv,text/plain"
        aria-label="List of sales"
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
            {column('Day', 'day', false)}
            {column('Soup', 'soup', false)}
            {column('Sold', 'sold', false)}
            {column('Ran out at', 'soldOut', true)}
            {column('Service', 'service', true)}
            <Pick
              label="Days are written"
              value={columns.dates}
              options={[
                { value: 'ymd', label: '2026-11-25' },
                { value: 'dmy', label: '25.11.2026' },
                { value: 'mdy', label: '11/25/2026' },
              ]}
              onPick={(dates) => {
                setColumns({ ...columns, dates });
              }}
            />
          </View>
          <Action kind="main" label="Take it in" disabled={columns.day === '' || columns.soup === '' || columns.sold === ''} onPress={send} />
        </>
      )}
      <View role="status">{said === null ? null : <StateMark mark={said.mark} word={said.word} />}</View>
    </Sheet>
  );
}

/** What was sold, by hand or as a list; and how well it would have been foretold. */
export function SalesScreen() {
  const book = useKitchen((state) => state.book);
  const view = useKitchen((state) => state.day);
  const wide = useIsWide();
  const back = useBack('/par');
  const [before, setBefore] = useState(1);
  const sales = useSales(view?.date ?? null);
  if (book === null || view === null || sales === null) {
    return (
      <Screen title="Sales" day={false} back={back}>
        <Waiting />
      </Screen>
    );
  }
  const day = addDays(view.date, -before);
  const rows = view.pars.flatMap((par) => {
    const soup = book.soups.find((one) => one.id === par.soupId);
    return soup === undefined ? [] : [{ soup, serviceId: par.serviceId }];
  });
  const totals = rows.map(({ soup, serviceId }) => ({ soup, lines: backtest(historyFor(sales, soup.id, serviceId), TESTED) }));
  return (
    <Screen title="Sales" day={false} back={back}>
      <View style={wide ? { maxWidth: 860, gap: 12 } : { gap: 12 }}>
        <Sheet label={`Sold on ${dayName(day)}`}>
          <Title level={2}>{`Sold on ${dayName(day)}`}</Title>
          <Note>A soup that ran out sold less than was wanted: the time it ran out keeps that from being taken for demand.</Note>
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <Action
              label="Day before"
              onPress={() => {
                setBefore(before + 1);
              }}
            />
            <Action
              label="Day after"
              disabled={before <= 1}
              onPress={() => {
                setBefore(before - 1);
              }}
            />
          </View>
          {rows.map(({ soup, serviceId }) => (
            <SoldRow key={`${day} ${soup.id}`} soup={soup} serviceId={serviceId} day={day} view={sales} />
          ))}
        </Sheet>
        <ListIn />
        <Sheet label="How well it is foretold">
          <Title level={2}>{`The last ${String(TESTED)} days, foretold`}</Title>
          <Note>Each day from the days before it, beside three plain ways. Days that ran out count only as run-outs.</Note>
          {totals.map(({ soup, lines }) => (
            <View key={soup.id} style={{ gap: 2 }}>
              <Strong>{soup.name}</Strong>
              {lines.map((line) => (
                <Body key={line.method} style={{ fontSize: 15 }}>{`${words.METHOD[line.method]}: ${words.backtestLine(line)}.`}</Body>
              ))}
            </View>
          ))}
        </Sheet>
      </View>
    </Screen>
  );
}
