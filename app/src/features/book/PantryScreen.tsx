import * as soupWords from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { readNumber } from '@broth/contract/formats';
import { ALLERGENS } from '@broth/core';
import type { Food } from '@broth/core';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import { useBook } from '../../state/useBook';
import { usePalette } from '../../theme/theme';
import { Action } from '../../ui/Action';
import { Field, Pick, Toggles } from '../../ui/Field';
import { Screen, Waiting, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { useBack } from './useBack';

function FoodEditor({ food, onClose }: { readonly food: Food; readonly onClose: () => void }) {
  const putFood = useKitchen((state) => state.putFood);
  const percent = food.edibleShare === null ? '' : String(Number((food.edibleShare * 100).toFixed(1)));
  const [edible, setEdible] = useState(percent);
  const [each, setEach] = useState(food.gramsEach === null ? '' : String(food.gramsEach));
  const [price, setPrice] = useState(food.price === null ? '' : String(food.price.amount));
  const [per, setPer] = useState(food.price?.per ?? 'kg');
  const [allergens, setAllergens] = useState(food.allergens);
  const [trouble, setTrouble] = useState<string | null>(null);
  const number = (text: string): number | null => (text.trim() === '' ? null : (readNumber(text) ?? Number.NaN));
  const save = async (): Promise<void> => {
    const [share, grams, amount] = [number(edible), number(each), number(price)];
    if ([share, grams, amount].some((value) => Number.isNaN(value))) {
      setTrouble('One of these is no number. Nothing was saved.');
      return;
    }
    const refused = await putFood({ ...food, edibleShare: share === null ? null : share / 100, gramsEach: grams, price: amount === null ? null : { amount, per }, allergens });
    if (refused === null) onClose();
    else setTrouble(refused);
  };
  return (
    <View style={{ gap: 8, paddingVertical: 8 }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Field label="Left after peeling, %" numeric width={150} value={edible} onChange={setEdible} />
        <Field label="A piece weighs, g" numeric width={130} value={each} onChange={setEach} />
        <Field label="Price" numeric width={100} value={price} onChange={setPrice} />
        <Pick
          label="by"
          width={90}
          value={per}
          options={[
            { value: 'kg', label: 'kg' },
            { value: 'L', label: 'L' },
            { value: 'each', label: 'piece' },
          ]}
          onPick={setPer}
        />
      </View>
      <Pick
        label="Label"
        value={allergens === 'unknown' ? 'unread' : 'read'}
        options={[
          { value: 'unread', label: 'nobody has read it' },
          { value: 'read', label: 'read' },
        ]}
        onPick={(picked) => {
          setAllergens(picked === 'unread' ? 'unknown' : []);
        }}
      />
      {allergens === 'unknown' ? null : (
        <Toggles label="The label says it holds" options={ALLERGENS.map((value) => ({ value, label: words.ALLERGEN[value] }))} value={allergens} onChange={setAllergens} />
      )}
      <Note>{`From: ${food.source}. Soups keep what was on their card: a changed label is entered there as well.`}</Note>
      {trouble === null ? null : <StateMark mark="stop" word={trouble} />}
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Action label="Leave it" onPress={onClose} />
        <Action kind="main" style={{ flex: 1 }} label={`Save ${food.name.toLowerCase()}`} onPress={() => void save()} />
      </View>
    </View>
  );
}

/** What things weigh, what is left of them, what their label says, what they cost; in and out as a list. */
export function PantryScreen() {
  const open = useBook();
  const palette = usePalette();
  const wide = useIsWide();
  const back = useBack('/book');
  const putPantryCsv = useKitchen((state) => state.putPantryCsv);
  const [search, setSearch] = useState('');
  const [edited, setEdited] = useState<string | null>(null);
  const [said, setSaid] = useState<{ readonly mark: 'fine' | 'stop'; readonly word: string } | null>(null);
  if (open === null) {
    return (
      <Screen title="Pantry" day={false} back={back}>
        <Waiting />
      </Screen>
    );
  }
  const takeIn = async (file: File): Promise<void> => {
    if (file.size > 2_000_000) {
      setSaid({ mark: 'stop', word: `That file has ${words.number(file.size / 1_000_000)} MB. A list has a few kB. Nothing was changed.` });
      return;
    }
    const answer = await putPantryCsv(await file.text());
    setSaid('trouble' in answer ? { mark: 'stop', word: answer.trouble } : { mark: 'fine', word: `${String(answer.changed)} things taken in.` });
  };
  const wanted = search.trim().toLowerCase();
  const shown = open.pantry.filter((food) => wanted === '' || [food.name, ...food.aliases].some((name) => name.toLowerCase().includes(wanted)));
  return (
    <Screen title="Pantry" day={false} back={back}>
      <View style={wide ? { maxWidth: 900, gap: 12 } : { gap: 12 }}>
        <Sheet label="As a list">
          <Title level={2}>Prices and yields as a list</Title>
          <Note>CSV, with commas, semicolons or tabs; decimal points or commas. The first line names the columns. A cell left empty changes nothing.</Note>
          <View role="status">{said === null ? null : <StateMark mark={said.mark} word={said.word} />}</View>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, alignItems: 'center' }}>
            <Action
              label="Save it as CSV"
              onPress={() => {
                window.open(`/api/kitchens/${open.book.kitchen.id}/pantry.csv`, '_blank');
              }}
            />
            <input
              type="file"
              accept=".csv,text/csv,text/plain"
              aria-label="List to take in"
              onChange={(event) => {
                const [file] = event.target.files ?? [];
                if (file !== undefined) void takeIn(file);
                event.target.value = '';
              }}
              style={{ color: palette.ink, fontSize: 16, minHeight: 48, maxWidth: '100%' }}
            />
          </View>
        </Sheet>
        <View style={{ flexDirection: 'row' }}>
          <Field label="Find" value={search} onChange={setSearch} />
        </View>
        <Sheet label="Things">
          {shown.map((food) => (
            <View key={food.id} style={{ borderTopWidth: 1, borderTopColor: palette.hairline }}>
              <Pressable
                role="button"
                aria-expanded={edited === food.id}
                aria-label={food.name}
                onPress={() => {
                  setEdited(edited === food.id ? null : food.id);
                }}
                style={{ minHeight: 48, justifyContent: 'center' }}
              >
                <Strong>{food.name}</Strong>
                <Note>
                  {[
                    food.edibleShare !== null && food.edibleShare < 1 ? `${soupWords.percent(food.edibleShare, 0)} left after peeling` : '',
                    food.allergens === 'unknown' ? 'label not read' : words.list(food.allergens.map((allergen) => words.ALLERGEN[allergen])),
                    food.price === null ? 'no price' : `${food.price.amount.toFixed(2)} a ${food.price.per === 'each' ? 'piece' : food.price.per}`,
                  ]
                    .filter((one) => one !== '')
                    .join(' · ')}
                </Note>
              </Pressable>
              {edited === food.id ? (
                <FoodEditor
                  food={food}
                  onClose={() => {
                    setEdited(null);
                  }}
                />
              ) : null}
            </View>
          ))}
          {shown.length === 0 ? <Body>{`Nothing is called "${search.trim()}". A new thing comes with a list, or with a line on a card.`}</Body> : null}
        </Sheet>
      </View>
    </Screen>
  );
}
