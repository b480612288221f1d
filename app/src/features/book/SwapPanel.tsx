import * as soupWords from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { DIETS, substitute } from '@broth/core';
import type { Soup, Swap } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import type { OpenBook } from '../../state/useBook';
import { Action } from '../../ui/Action';
import { Pick } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../ui/Type';

/** What would change if some lines were something else: label, diets, yield, and what does not suit. Nothing is saved here. */
export function SwapPanel({ open, soup }: { readonly open: OpenBook; readonly soup: Soup }) {
  const [swaps, setSwaps] = useState<readonly Swap[]>([]);
  const first = soup.ingredients[0]?.id ?? '';
  const [lineId, setLineId] = useState(first);
  const foods = [...open.pantry].sort((left, right) => left.name.localeCompare(right.name));
  const [foodId, setFoodId] = useState(foods[0]?.id ?? '');
  const lineName = (id: string): string => soup.ingredients.find((line) => line.id === id)?.name ?? id;
  const foodName = (id: string): string => foods.find((food) => food.id === id)?.name ?? id;
  const made = substitute(soup, swaps, open.soupById, open.pantry);
  const { before, after } = made.yieldL;
  return (
    <>
      <Sheet label="Swap">
        <Title level={2}>What if it were something else?</Title>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <Pick label="Instead of" value={lineId} options={soup.ingredients.map((line) => ({ value: line.id, label: line.name }))} onPick={setLineId} />
          <Pick label="Take" value={foodId} options={foods.map((food) => ({ value: food.id, label: food.name }))} onPick={setFoodId} />
        </View>
        <Action
          label="Swap"
          kind="main"
          disabled={first === ''}
          onPress={() => {
            setSwaps([...swaps.filter((swap) => swap.lineId !== lineId), { lineId, foodId }]);
          }}
        />
        {swaps.map((swap) => (
          <View key={swap.lineId} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
            <Body style={{ flex: 1 }}>{`${lineName(swap.lineId)} → ${foodName(swap.foodId)}`}</Body>
            <Action
              label="Back"
              hint={`Take ${lineName(swap.lineId)} again`}
              onPress={() => {
                setSwaps(swaps.filter((one) => one.lineId !== swap.lineId));
              }}
            />
          </View>
        ))}
      </Sheet>
      <Sheet label="What it changes">
        <Title level={2}>{swaps.length === 0 ? 'As it is now' : 'What it changes'}</Title>
        {made.findings.map((found) => (
          <View key={JSON.stringify(found)} style={{ flexDirection: 'row', gap: 8 }}>
            <StateMark mark="soon" />
            <Body style={{ flex: 1, fontSize: 15 }}>{soupWords.swapFinding(found)}</Body>
          </View>
        ))}
        {DIETS.map((diet) => (
          <View key={diet} style={{ flexDirection: 'row', gap: 8 }}>
            {made.diets[diet].kind === 'unknown' ? <StateMark mark="soon" /> : null}
            <Body style={{ flex: 1, fontSize: 15 }}>{soupWords.dietLine(diet, made.diets[diet])}</Body>
          </View>
        ))}
        {made.allergens.gone.length === 0 && made.allergens.added.length === 0 ? null : (
          <Strong>
            {[
              made.allergens.added.length > 0 ? `New on the label: ${words.list(made.allergens.added)}.` : '',
              made.allergens.gone.length > 0 ? `No longer on the label: ${words.list(made.allergens.gone)}.` : '',
            ]
              .filter((one) => one !== '')
              .join(' ')}
          </Strong>
        )}
        {before === null || after === null || swaps.length === 0 ? null : (
          <Note>{`Yield ${words.litres(before)} → ${words.litres(after)}. Texture: taste and look before it goes out.`}</Note>
        )}
        <Note>{soupWords.FREE_FROM}</Note>
      </Sheet>
    </>
  );
}
