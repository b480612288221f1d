import * as soupWords from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { TEXTURES, thicken, thin } from '@broth/core';
import type { BatchSheet, Soup, Texture } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import type { OpenBook } from '../../state/useBook';
import { Action } from '../../ui/Action';
import { Pick } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Strong, Title } from '../../ui/Type';

export interface Addition {
  readonly name: string;
  readonly ingredientId: string | null;
  readonly amount: number;
  readonly unit: 'g' | 'mL';
  readonly for: 'salt' | 'liquid' | 'thicken' | 'thin';
}

interface Props {
  readonly open: OpenBook;
  readonly soup: Soup;
  readonly volumeL: number;
  readonly sheet: BatchSheet;
  /** Enters what went in; null when there is no batch to enter it for. */
  readonly onAdd: ((addition: Addition) => void) | null;
}

const TEXTURE_OPTIONS = TEXTURES.map((value) => ({ value, label: soupWords.TEXTURE[value] }));

/** Too thin, too thick, not salted enough: how much of what, for these litres and this soup's own diet, a step at a time. */
export function PutRight({ open, soup, volumeL, sheet, onAdd }: Props) {
  const [now, setNow] = useState<Texture>('light');
  const [wanted, setWanted] = useState<Texture>(soup.texture);
  const at = (texture: Texture): number => TEXTURES.indexOf(texture);
  const foodName = (id: string): string => open.pantry.find((food) => food.id === id)?.name ?? id;
  const thickening = thicken(soup, open.soupById, volumeL, now, wanted);
  const thinning = thin(volumeL, now, wanted);
  const liquid = soup.ingredients.find((line) => line.part === 'liquid')?.name.toLowerCase() ?? 'stock';
  const add = (addition: Addition, label: string) =>
    onAdd === null ? null : (
      <Action
        label={label}
        onPress={() => {
          onAdd(addition);
        }}
      />
    );
  return (
    <>
      <Sheet label="Texture">
        <Title level={2}>Too thin, too thick?</Title>
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <Pick label="It is now" value={now} options={TEXTURE_OPTIONS} onPick={setNow} />
          <Pick label="It should be" value={wanted} options={TEXTURE_OPTIONS} onPick={setWanted} />
        </View>
        {now === wanted ? <Body>Then it is right.</Body> : null}
        {at(wanted) > at(now)
          ? thickening.ways.map((way) => (
              <View key={JSON.stringify(way)} style={{ gap: 6 }}>
                <Body>{soupWords.thickening(way, foodName)}</Body>
                {way.way === 'slurry' && way === thickening.ways[0]
                  ? add(
                      { name: foodName(way.foodId), ingredientId: null, amount: Math.round(way.firstG), unit: 'g', for: 'thicken' },
                      `Added ${words.amountText(Math.round(way.firstG), 'g')} of ${foodName(way.foodId).toLowerCase()}`,
                    )
                  : null}
              </View>
            ))
          : null}
        {at(wanted) < at(now) ? (
          <>
            <Body>{`Stir in ${words.litres(thinning.firstL)} of hot ${liquid}, look, then up to ${words.litres(thinning.addL)} in all. Salt falls to ${soupWords.percent(thinning.saltFactor, 0)} of what it was: taste and salt again. Boil it again.`}</Body>
            {add({ name: liquid, ingredientId: null, amount: Math.round(thinning.firstL * 1000), unit: 'mL', for: 'thin' }, `Added ${words.litres(thinning.firstL)} of ${liquid}`)}
          </>
        ) : null}
        <Note>Starch thickens only after a real boil: boil first, look again, then add. Soup thickens as it stands.</Note>
      </Sheet>
      {sheet.salt === null ? null : (
        <Sheet label="Salt">
          <Title level={2}>Salt</Title>
          <Body>
            {sheet.salt.doses.length === 0
              ? `What is salty already brings ${soupWords.percent(sheet.salt.nowShare, 2)}; the aim is ${soupWords.percent(sheet.salt.target, 2)}. Taste before any salt.`
              : `From ${soupWords.percent(sheet.salt.nowShare, 2)} to ${soupWords.percent(sheet.salt.target, 2)}: ${words.amountText(Math.round(sheet.salt.doses.reduce((sum, dose) => sum + dose, 0)), 'g')} in all, a tenth of a percent at a time. Taste with a clean spoon after each.`}
          </Body>
          {sheet.salt.doses[0] === undefined ? null : (
            <>
              <Strong>{sheet.salt.doses.map((dose) => words.amountText(Math.round(dose), 'g')).join(' + ')}</Strong>
              {add(
                { name: 'Salt', ingredientId: null, amount: Math.round(sheet.salt.doses[0]), unit: 'g', for: 'salt' },
                `Added ${words.amountText(Math.round(sheet.salt.doses[0]), 'g')} of salt`,
              )}
            </>
          )}
        </Sheet>
      )}
    </>
  );
}
