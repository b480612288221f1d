import * as soupWords from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { allergensOf, batchSheet, dietOf, ingredientStatement } from '@broth/core';
import type { BatchSheet, Jar, SheetContext, SheetLine, Soup, Vessel } from '@broth/core';

/** One step of the printed sheet with what goes in at it. */
interface PrintedStep {
  readonly head: string;
  readonly minutes: string;
  readonly lines: readonly { readonly amount: string; readonly also: string; readonly what: string }[];
  readonly check: string | null;
  readonly caution: string | null;
  readonly why: string;
}

/** The batch sheet as it is printed: what to say, before where to put it. */
export interface SheetBlocks {
  readonly title: string;
  readonly subtitle: string;
  readonly facts: readonly string[];
  readonly steps: readonly PrintedStep[];
  readonly notes: readonly string[];
  readonly foot: string;
}

function amountOf(line: SheetLine): string {
  if (line.amount === null) return 'by eye';
  const low = words.amountText(line.amount, line.unit);
  return line.upTo === null ? low : `${low} to ${words.amountText(line.upTo, line.unit)}`;
}

function lineText(line: SheetLine): { amount: string; also: string; what: string } {
  const also = line.spoons !== null ? soupWords.spoonText(line.spoons) : line.amount === null ? '' : soupWords.usText(line.amount, line.unit);
  const what = [
    line.name,
    line.cut ?? '',
    line.firstAmount === null ? '' : `first ${words.amountText(line.firstAmount, line.unit)}, taste, then the rest`,
    line.purchasedG === null ? '' : `take ${words.amountText(line.purchasedG, 'g')}`,
    line.fixed ? 'NOT SCALED' : '',
    line.returnsAtStepId === null ? '' : 'kept aside',
  ];
  return { amount: amountOf(line), also, what: what.filter((one) => one !== '').join(', ') };
}

function notesOf(sheet: BatchSheet, soup: Soup): readonly string[] {
  const off = sheet.lines.filter((line) => Math.abs(line.roundingError) > 0.02).map((line) => `${line.name} ${soupWords.percent(line.roundingError)}`);
  return [
    ...(sheet.liquid === null ? [] : [`Liquid: ${soupWords.liquid(sheet.liquid)}`]),
    ...(sheet.salt === null
      ? []
      : [
          `Salt: aim at ${soupWords.percent(sheet.salt.target, 2)}. ${sheet.salt.doses.length === 0 ? 'What is in it already salts it: taste first.' : `${sheet.salt.doses.map((dose) => words.amountText(Math.round(dose), 'g')).join(' + ')}, tasted in between.`}`,
        ]),
    `Steam takes ${words.number(sheet.evaporationL.low)} to ${words.litres(sheet.evaporationL.high)}.`,
    ...(sheet.unmeasured.length === 0 ? [] : [`Not measured yet: ${words.list(sheet.unmeasured)}. Write down what goes in.`]),
    ...(off.length === 0 ? [] : [`Rounded by more than 2 %: ${off.join('; ')}.`]),
    `Blend: ${soupWords.schoolChoice('texture', soup.schools.texture).choice}. Texture aimed at: ${soupWords.TEXTURE[soup.texture].toLowerCase()}.`,
  ];
}

interface Basis {
  readonly soup: Soup;
  readonly volumeL: number;
  readonly vessel: Vessel | null;
  readonly jar: Jar | null;
  readonly soupById: ReadonlyMap<string, Soup>;
  readonly history: Pick<SheetContext, 'stepTimes' | 'liquidPerLitre'>;
  readonly kitchen: string;
}

/** Everything the sheet says, for these litres in this vessel. */
export function sheetBlocks({ soup, volumeL, vessel, jar, soupById, history, kitchen }: Basis): SheetBlocks {
  const sheet = batchSheet(soup, volumeL, { vessel, jar, soupById, ...history });
  const { contains, unknownLines } = allergensOf(soup, soupById);
  const statement = ingredientStatement(soup, soupById).map((line) => `${line.name}${line.share === null ? ' (not measured)' : ''}`);
  const diets = (['vegan', 'vegetarian', 'glutenFree'] as const).map((diet) => soupWords.dietLine(diet, dietOf(soup, soupById, diet)));
  const over = vessel !== null && volumeL > vessel.workingMaxL ? [`${vessel.name} works up to ${words.litres(vessel.workingMaxL)}: this is too much for it.`] : [];
  return {
    title: soup.name,
    subtitle: `${words.litres(volumeL)} · x${String(Number(sheet.factor.toFixed(2)))} of the card for ${words.litres(soup.makesL)}${vessel === null ? '' : ` · ${vessel.name}`} · version ${String(soup.version)}`,
    facts: [
      ...over,
      sheet.yieldL === null
        ? 'No yield is claimed: an amount is not measured yet.'
        : `Yield ${words.number(sheet.yieldL.low)} to ${words.litres(sheet.yieldL.high)}${sheet.portions === null ? '' : `, ${String(sheet.portions.low)} to ${String(sheet.portions.high)} portions of ${words.number(soup.portionMl)} mL`}.`,
      contains.length === 0 ? 'No listed allergen in the lines that were read.' : `Contains ${words.list(contains.map((one) => words.ALLERGEN[one]))}.`,
      ...(unknownLines.length === 0 ? [] : [`Label not read, so unknown: ${words.list(unknownLines)}.`]),
      ...diets,
    ],
    steps: sheet.steps.map(({ step, lowMin, highMin, basis, fills, blendL }, index) => {
      const goesIn = sheet.lines.filter((line) => line.stepId === step.id);
      const returns = sheet.lines.filter((line) => line.returnsAtStepId === step.id).map((line) => ({ amount: amountOf(line), also: '', what: `${line.name}, back in` }));
      const blend = fills !== null ? ` ${String(fills)} fills of the jar.` : blendL !== null && blendL < volumeL ? ` ${words.litres(blendL)} of it.` : '';
      return {
        head: `${String(index + 1)}. ${step.name}.${blend}`,
        minutes: `${soupWords.range(lowMin, highMin)}${basis === 'measured' ? ' (measured)' : ''}, ${soupWords.CLOCK_FROM[step.clockFrom]}`,
        lines: [...goesIn.map(lineText), ...returns],
        check: step.check,
        caution: [step.caution, step.irreversible ? 'Cannot be undone.' : null].filter((one) => one !== null).join(' ') || null,
        why: step.why,
      };
    }),
    notes: [...notesOf(sheet, soup), `Ingredients by weight: ${statement.join(', ')}.`, soupWords.FREE_FROM],
    foot: kitchen,
  };
}
