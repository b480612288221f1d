import * as soupWords from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { IMPORT_LIMIT_BYTES, importText, readCard, readNumber, slugOf } from '@broth/contract/formats';
import { makeSoup, makeStep } from '@broth/core';
import type { Soup } from '@broth/core';
import { useRouter } from 'expo-router';
import { useRef, useState } from 'react';
import { View } from 'react-native';
import { useBook } from '../../state/useBook';
import type { OpenBook } from '../../state/useBook';
import { usePalette } from '../../theme/theme';
import { Action } from '../../ui/Action';
import { Field, Pick } from '../../ui/Field';
import { Screen, Waiting, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Title } from '../../ui/Type';
import { SoupEditor } from './edit/SoupEditor';
import { useBack } from './useBack';

const UNITS = [
  { value: 'L', label: 'litres', perL: 1 },
  { value: 'qt', label: 'quarts', perL: 0.946352946 },
  { value: 'gal', label: 'gallons', perL: 3.785411784 },
  { value: 'cup', label: 'cups', perL: 0.2365882365 },
] as const;

interface Made {
  readonly soup: Soup;
  readonly doubts: readonly string[];
}

/** Three ways to a new card: read it as it is written, take in a file, or begin with an empty one. */
function Ways({ open, onMade }: { readonly open: OpenBook; readonly onMade: (made: Made) => void }) {
  const palette = usePalette();
  const us = open.book.kitchen.temperatureUnit === 'F';
  const [name, setName] = useState('');
  const [makes, setMakes] = useState('');
  const [unit, setUnit] = useState<(typeof UNITS)[number]['value']>(us ? 'qt' : 'L');
  const [measures, setMeasures] = useState<'us' | 'metric' | 'imperial'>(us ? 'us' : 'metric');
  const [ingredients, setIngredients] = useState('');
  const [method, setMethod] = useState('');
  const [tried, setTried] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const input = useRef<HTMLInputElement | null>(null);
  const ids = new Set(open.soups.map((soup) => soup.id));
  const kitchen = { pantry: open.pantry, made: open.soups.filter((soup) => soup.role === 'component'), measures };
  const litres = readNumber(makes);
  const nameMessage = tried && name.trim() === '' ? 'Give it a name.' : null;
  const makesMessage = tried && (litres === null || litres <= 0) ? 'Say what it makes: a number above 0. A guess will do, it is checked against what goes in.' : null;
  const linesMessage = tried && ingredients.trim() === '' ? 'Type at least one line.' : null;
  const read = (): void => {
    setTried(true);
    if (name.trim() === '' || litres === null || litres <= 0 || ingredients.trim() === '') return;
    const perL = UNITS.find((one) => one.value === unit)?.perL ?? 1;
    const made = readCard({ name: name.slice(0, 80), makesL: Number((litres * perL).toFixed(2)), ingredients, method }, kitchen, slugOf(name, ids));
    onMade({ soup: made.soup, doubts: made.doubts.map(({ line, doubt }) => `${line}: ${soupWords.lineDoubt(doubt)}`) });
  };
  const empty = (): void => {
    onMade({
      soup: makeSoup({
        id: slugOf(name.trim() === '' ? 'soup' : name, ids),
        name: name.trim(),
        shortName: name.trim().slice(0, 24),
        makesL: 10,
        steps: [makeStep({ id: 'prep', phase: 'prep', name: 'Wash and cut', place: { kind: 'bench' } })],
      }),
      doubts: [],
    });
  };
  const takeIn = async (file: File): Promise<void> => {
    if (file.size > IMPORT_LIMIT_BYTES) {
      setTrouble(soupWords.importTrouble({ code: 'tooLarge', mb: file.size / 1_000_000 }));
      return;
    }
    const imported = importText(await file.text(), kitchen, slugOf(file.name.replace(/\..*$/, ''), ids));
    if (imported.kind === 'trouble') {
      setTrouble(soupWords.importTrouble(imported.trouble));
      return;
    }
    setTrouble(null);
    if (imported.kind === 'recipe') {
      const lost = imported.notCarried.length === 0 ? [] : [`Not carried over, there is no place for it here: ${imported.notCarried.join(', ')}.`];
      onMade({ soup: imported.soup, doubts: [...lost, ...imported.doubts.map(({ line, doubt }) => `${line}: ${soupWords.lineDoubt(doubt)}`)] });
      return;
    }
    const { soup, components } = imported.document;
    const missing = components.filter((one) => !open.soupById.has(one.id)).map((one) => one.name);
    const taken = open.soups.some((one) => one.name.toLowerCase() === soup.name.toLowerCase());
    onMade({
      soup: { ...soup, version: 1, ...(taken ? { name: `${soup.name} (taken in)`.slice(0, 80) } : {}) },
      doubts: missing.length === 0 ? ['Taken in whole.'] : [`Made with ${words.list(missing)}, which the book does not have. Take those files in too, or buy it ready.`],
    });
  };
  return (
    <>
      <Sheet label="A card">
        <Title level={2}>Type the card</Title>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <Field label="Name" value={name} onChange={setName} message={nameMessage} />
        </View>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <Field label="It makes" numeric width={100} value={makes} onChange={setMakes} message={makesMessage} />
          <Pick label="of" width={110} value={unit} options={UNITS} onPick={setUnit} />
          <Pick
            label="Cups and spoons are"
            value={measures}
            options={[
              { value: 'us', label: 'US' },
              { value: 'metric', label: 'metric' },
              { value: 'imperial', label: 'imperial' },
            ]}
            onPick={setMeasures}
          />
        </View>
        <Field
          label="What goes in, one a line"
          name="What goes in, one a line"
          lines={6}
          value={ingredients}
          onChange={setIngredients}
          message={linesMessage}
          hint="2 lb carrots, peeled and diced"
        />
        <Field label="How, one step a line" name="How, one step a line" lines={5} value={method} onChange={setMethod} hint="Simmer 20-30 min until a knife goes through" />
        <Action kind="main" label="Read the card" onPress={read} />
        <Note>It becomes lines and steps with what the pantry knows: yield, label, density. You look it over before it is saved.</Note>
      </Sheet>
      <Sheet label="A file">
        <Title level={2}>Or take in a file</Title>
        <Note>A recipe of schema.org as JSON-LD, or a soup saved here.</Note>
        {trouble === null ? null : (
          <View role="alert">
            <StateMark mark="stop" word={trouble} />
          </View>
        )}
        <input
          ref={input}
          type="file"
          accept=".json,.jsonld,application/ld+json,application/json"
          aria-label="Recipe file"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            if (file !== undefined)
              takeIn(file).catch((error: unknown) => {
                setTrouble(`The file could not be read: ${String(error)}`);
              });
            event.target.value = '';
          }}
          style={{ color: palette.ink, fontSize: 16, minHeight: 48 }}
        />
      </Sheet>
      <Action label="Or begin with an empty card" onPress={empty} />
      {open.soups.length === 0 ? <Body>The book is empty.</Body> : null}
    </>
  );
}

export function NewScreen() {
  const open = useBook();
  const wide = useIsWide();
  const router = useRouter();
  const back = useBack('/book');
  const [made, setMade] = useState<Made | null>(null);
  if (open !== null && made !== null)
    return (
      <SoupEditor
        title={made.soup.name === '' ? 'New card' : made.soup.name}
        back={() => {
          setMade(null);
        }}
        open={open}
        initial={made.soup}
        baseVersion={null}
        doubts={made.doubts}
        onSaved={(soup) => {
          router.replace(`/book/${soup.id}`);
        }}
      />
    );
  return (
    <Screen title="New soup" day={false} back={back}>
      {open === null ? (
        <Waiting />
      ) : (
        <View style={wide ? { maxWidth: 900, gap: 12 } : { gap: 12 }}>
          <Ways open={open} onMade={setMade} />
        </View>
      )}
    </Screen>
  );
}
