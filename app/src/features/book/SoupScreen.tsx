import * as soupWords from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { ALLERGEN_LISTS, DIETS, allergensOf, checkSoup, dietOf, ingredientStatement, saltShareOf, sheetLines, soupCost, stepRangeMin, yieldL, SOUP_KG_PER_L } from '@broth/core';
import type { School, SheetLine, Soup } from '@broth/core';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useBook } from '../../state/useBook';
import type { OpenBook } from '../../state/useBook';
import { usePalette } from '../../theme/theme';
import { Action, Choice } from '../../ui/Action';
import { PhaseMark } from '../../ui/PhaseMark';
import { Screen, Waiting, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Figure, Note, Strong, Title } from '../../ui/Type';
import { LearnedPanel } from './LearnedPanel';
import { SwapPanel } from './SwapPanel';
import { VersionPanel } from './VersionPanel';
import { useBack } from './useBack';

export function amountOf(line: SheetLine): string {
  if (line.amount === null) return 'by eye';
  const low = words.amountText(line.amount, line.unit);
  return line.upTo === null ? low : `${low} to ${words.amountText(line.upTo, line.unit)}`;
}

/** What was found wrong with a soup, each with what to do. */
function Findings({ open, soup }: { readonly open: OpenBook; readonly soup: Soup }) {
  const findings = checkSoup(soup, open.soupById, open.pantry);
  if (findings.length === 0) return null;
  return (
    <Sheet label="To look at">
      {findings.map((found) => (
        <View key={JSON.stringify(found)} style={{ flexDirection: 'row', gap: 8 }}>
          <StateMark mark={soupWords.isGrave(found) ? 'stop' : 'soon'} />
          <Body style={{ flex: 1, fontSize: 15 }}>{soupWords.soupFinding(found)}</Body>
        </View>
      ))}
    </Sheet>
  );
}

function CardPart({ open, soup }: { readonly open: OpenBook; readonly soup: Soup }) {
  const palette = usePalette();
  const lines = sheetLines(soup, soup.makesL);
  const worked = yieldL(soup);
  const salt = saltShareOf(soup, open.soupById, SOUP_KG_PER_L);
  return (
    <>
      <Findings open={open} soup={soup} />
      <LearnedPanel open={open} soup={soup} />
      <Sheet rim={soup.toneHex}>
        <Figure>{words.litres(soup.makesL)}</Figure>
        <Body>
          {`${String(Math.floor((soup.makesL * 1000) / soup.portionMl))} portions of ${words.number(soup.portionMl)} mL · ${soupWords.TEXTURE[soup.texture].toLowerCase()}${soup.role === 'soup' ? ` · salt ${soupWords.percent(salt, 2)}, aimed at ${soupWords.percent(soup.saltTarget, 2)}` : ''}`}
        </Body>
        <Note>{worked === null ? 'No yield is claimed: an amount is not measured yet.' : `What goes in makes ${words.number(worked.low)} to ${words.litres(worked.high)}.`}</Note>
      </Sheet>
      {soup.steps.map((step, index) => {
        const { lowMin, highMin } = stepRangeMin(step, soup.makesL, null);
        return (
          <Sheet key={step.id} label={`Step ${String(index + 1)}: ${step.name}`}>
            <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
              <PhaseMark phase={step.phase} color={palette.ink} size={28} />
              <View style={{ flex: 1 }}>
                <Strong>{step.name}</Strong>
                <Note>
                  {`${soupWords.range(lowMin, highMin)}, ${soupWords.CLOCK_FROM[step.clockFrom]}${step.heat === 'off' ? '' : `, heat ${soupWords.HEAT[step.heat]}, ${soupWords.LID[step.lid]}`}${step.lookEveryMin === null ? '' : `, look every ${String(step.lookEveryMin)} min`}`}
                </Note>
              </View>
            </View>
            {lines
              .filter((line) => line.stepId === step.id || line.returnsAtStepId === step.id)
              .map((line) => (
                <View key={line.ingredientId} style={{ flexDirection: 'row', gap: 8 }}>
                  <Strong style={{ width: 92, textAlign: 'right', fontVariant: ['tabular-nums'] }}>{amountOf(line)}</Strong>
                  <Body style={{ flex: 1 }}>{line.returnsAtStepId === step.id ? `${line.name}, back in` : [line.name, line.cut].filter(Boolean).join(', ')}</Body>
                </View>
              ))}
            {step.check === null ? null : <Body style={{ fontSize: 15 }}>{`Done when: ${step.check}.`}</Body>}
            {step.caution === null ? null : (
              <View style={{ flexDirection: 'row', gap: 8 }}>
                <StateMark mark="soon" />
                <Body style={{ flex: 1, fontSize: 15 }}>{step.caution}</Body>
              </View>
            )}
            {step.why === '' ? null : <Note>{step.why}</Note>}
          </Sheet>
        );
      })}
      <Sheet>
        <Title level={2}>How it is made</Title>
        {(Object.keys(soup.schools) as School[]).map((name) => {
          const { school, choice, consequence } = soupWords.schoolChoice(name, soup.schools[name]);
          return choice === 'None' ? null : (
            <View key={name} style={{ flexDirection: 'row', gap: 8 }}>
              <Note style={{ width: 92 }}>{school}</Note>
              <View style={{ flex: 1 }}>
                <Strong>{choice}</Strong>
                {consequence === '' ? null : <Note>{consequence}</Note>}
              </View>
            </View>
          );
        })}
        {soup.variants.map((variant) => (
          <Body key={variant.id}>{`Also ${variant.name}${variant.adds.length > 0 ? `: with ${words.list(variant.adds.map((line) => line.name.toLowerCase()))}` : ''}.`}</Body>
        ))}
      </Sheet>
    </>
  );
}

function LabelPart({ open, soup }: { readonly open: OpenBook; readonly soup: Soup }) {
  const { contains, from, unknownLines } = allergensOf(soup, open.soupById);
  const statement = ingredientStatement(soup, open.soupById);
  const cost = soupCost(soup, open.soupById, open.pantry);
  const lists = Object.keys(ALLERGEN_LISTS) as (keyof typeof ALLERGEN_LISTS)[];
  return (
    <>
      <Sheet label="Allergens">
        <Title level={2}>Allergens</Title>
        {unknownLines.length === 0 ? null : <StateMark mark="stop" word={`Label not read: ${words.list(unknownLines)}. Nothing is free from anything.`} />}
        {lists.map((list) => {
          const named = contains.filter((allergen) => ALLERGEN_LISTS[list].includes(allergen));
          return (
            <View key={list}>
              <Note>{soupWords.ALLERGEN_LIST[list]}</Note>
              <Strong>{named.length === 0 ? 'None in the lines that were read' : words.list(named.map((allergen) => words.ALLERGEN[allergen]))}</Strong>
            </View>
          );
        })}
        {from.map(({ allergen, path }) => (
          <Note key={`${allergen} ${path.join('/')}`}>{`${words.ALLERGEN[allergen]}: ${path.join(' → ')}`}</Note>
        ))}
      </Sheet>
      <Sheet label="Diets">
        <Title level={2}>Diets</Title>
        {DIETS.map((diet) => {
          const verdict = dietOf(soup, open.soupById, diet);
          return (
            <View key={diet} style={{ flexDirection: 'row', gap: 8 }}>
              {verdict.kind === 'unknown' ? <StateMark mark="soon" /> : null}
              <Body style={{ flex: 1, fontSize: 15 }}>{soupWords.dietLine(diet, verdict)}</Body>
            </View>
          );
        })}
        <Note>{soupWords.FREE_FROM}</Note>
        <Note>Your local code and its licensed authority decide what a menu may say.</Note>
      </Sheet>
      <Sheet label="Ingredients by weight">
        <Title level={2}>Ingredients by weight</Title>
        <Body>{`${statement.map((line) => `${line.name}${line.allergens.length > 0 ? ` (${line.allergens.map((allergen) => words.ALLERGEN[allergen]).join(', ')})` : ''}${line.unread ? ' (label not read)' : ''}${line.share === null ? ' (not measured)' : ''}`).join(', ')}.`}</Body>
      </Sheet>
      <Sheet label="Cost">
        <Title level={2}>Cost</Title>
        <Figure>{cost.perPortion.toFixed(2)}</Figure>
        <Body>{`a portion of ${words.number(soup.portionMl)} mL, ${cost.perLitre.toFixed(2)} a litre${cost.shareOfPrice === null ? '' : `; ${soupWords.percent(cost.shareOfPrice)} of ${words.number(soup.salesPrice ?? 0)}`}.`}</Body>
        {cost.missing.length === 0 ? null : <Note>{`At least: no price or no amount for ${words.list(cost.missing)}.`}</Note>}
      </Sheet>
    </>
  );
}

const PARTS = [
  { value: 'card', label: 'Card' },
  { value: 'label', label: 'Label' },
  { value: 'swaps', label: 'Swaps' },
  { value: 'versions', label: 'Versions' },
] as const;

/** One soup: its card, its label, what swapping changes, what it was before. */
export function SoupScreen() {
  const { soupId } = useLocalSearchParams<{ soupId: string }>();
  const open = useBook();
  const router = useRouter();
  const wide = useIsWide();
  const back = useBack('/book');
  const [part, setPart] = useState<(typeof PARTS)[number]['value']>('card');
  const soup = open?.soupById.get(soupId);
  if (open === null || soup === undefined) {
    return (
      <Screen title="Soup" day={false} back={back}>
        {open === null ? <Waiting /> : <Body>This soup is not in the book. It may have been taken out; its versions are kept for the batches made from it.</Body>}
      </Screen>
    );
  }
  const file = (name: string): void => {
    window.open(`/api/kitchens/${open.book.kitchen.id}/soups/${soup.id}/${name}`, '_blank');
  };
  const foot = (
    <View style={{ flexDirection: 'row', gap: 8 }}>
      <Action
        label="Edit"
        onPress={() => {
          router.push(`/book/${soup.id}/edit`);
        }}
      />
      <Action
        kind="main"
        style={{ flex: 1 }}
        label="Batch sheet"
        onPress={() => {
          router.push(`/book/${soup.id}/sheet`);
        }}
      />
    </View>
  );
  return (
    <Screen title={soup.name} day={false} back={back} foot={foot}>
      <Choice label="Part" options={PARTS} value={part} onPick={setPart} />
      <View style={wide ? { maxWidth: 820, gap: 12 } : { gap: 12 }}>
        {part === 'card' ? <CardPart open={open} soup={soup} /> : null}
        {part === 'label' ? <LabelPart open={open} soup={soup} /> : null}
        {part === 'swaps' ? <SwapPanel open={open} soup={soup} /> : null}
        {part === 'versions' ? <VersionPanel open={open} soup={soup} /> : null}
        <Sheet label="Files">
          <Title level={2}>Take it elsewhere</Title>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            <Action
              label="Recipe, JSON-LD"
              onPress={() => {
                file('recipe.jsonld');
              }}
            />
            <Action
              label="Soup, JSON"
              onPress={() => {
                file('soup.json');
              }}
            />
          </View>
          <Note>The recipe is schema.org: other programs read it, and this one takes it back whole.</Note>
        </Sheet>
      </View>
    </Screen>
  );
}
