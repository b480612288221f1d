import * as soupWords from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { backKey, batchSheet, jarOf } from '@broth/core';
import type { BatchSheet, SheetLine, SheetStep, Soup, Vessel as VesselThing } from '@broth/core';
import { useMemo, useState } from 'react';
import { Pressable, View } from 'react-native';
import type { OpenBook } from '../../state/useBook';
import { usePalette } from '../../theme/theme';
import { Action } from '../../ui/Action';
import { Tick } from '../../ui/Field';
import { LitresStepper } from '../../ui/Stepper';
import { PhaseMark } from '../../ui/PhaseMark';
import { useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Figure, Note, Strong, Title } from '../../ui/Type';
import { Vessel } from '../../ui/Vessel';
import type { Addition } from './PutRight';
import { PutRight } from './PutRight';
import { amountOf } from './SoupScreen';
import { useSoupHistory } from './useHistory';

/** Off by more than this, rounding is said. */
const ROUNDING_SAID = 0.02;

interface Props {
  readonly open: OpenBook;
  readonly soup: Soup;
  readonly volumeL: number;
  readonly vessel: VesselThing | null;
  /** Which step is large. */
  readonly at: number;
  readonly onGo: (index: number) => void;
  readonly ticked: ReadonlySet<string>;
  readonly onTick: (line: SheetLine) => void;
  readonly onAdd: ((addition: Addition) => void) | null;
  /** How warm the pot begins; what it is when nothing is said, is cold. */
  readonly startC?: number;
  /** What an unwashed blender would bring. */
  readonly carried?: readonly soupWords.CarriedOver[];
}

function LineTick({
  line,
  back,
  done,
  us,
  onTick,
}: {
  readonly line: SheetLine;
  readonly back: boolean;
  readonly done: boolean;
  readonly us: boolean;
  readonly onTick: () => void;
}) {
  const amount = amountOf(line);
  const also = line.spoons !== null ? soupWords.spoonText(line.spoons) : us && line.amount !== null ? soupWords.usText(line.amount, line.unit) : '';
  const notes = [
    line.firstAmount === null || back ? '' : `first ${words.amountText(line.firstAmount, line.unit)}, taste, then the rest`,
    line.purchasedG === null || back ? '' : `take ${words.amountText(line.purchasedG, 'g')}`,
    line.fixed ? 'not scaled' : '',
    line.returnsAtStepId !== null && !back ? 'kept aside' : '',
    Math.abs(line.roundingError) > ROUNDING_SAID ? `rounded ${soupWords.percent(line.roundingError)}` : '',
  ].filter((one) => one !== '');
  return (
    <Tick label={`${line.name}, ${amount}`} done={done} onPress={onTick}>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'baseline' }}>
        <Strong style={{ fontSize: 19, minWidth: 84, fontVariant: ['tabular-nums'] }}>{amount}</Strong>
        <Body style={{ flex: 1 }}>{back ? `${line.name}, back in` : [line.name, line.cut].filter(Boolean).join(', ')}</Body>
      </View>
      {also === '' && notes.length === 0 ? null : <Note>{[also, ...notes].filter((one) => one !== '').join(' · ')}</Note>}
    </Tick>
  );
}

/** How much was really poured: the next batch begins from it. */
function Poured({ firstL, name, onAdd }: { readonly firstL: number; readonly name: string; readonly onAdd: (addition: Addition) => void }) {
  const [volumeL, setVolumeL] = useState(firstL);
  return (
    <View style={{ gap: 6 }}>
      <LitresStepper label={`litres of ${name.toLowerCase()} poured`} volumeL={volumeL} onChange={setVolumeL} />
      <Action
        label={`Enter ${words.litres(volumeL)} poured`}
        onPress={() => {
          onAdd({ name, ingredientId: null, amount: Math.round(volumeL * 1000), unit: 'mL', for: 'liquid' });
        }}
      />
    </View>
  );
}

function StepCard({ sheet, one, index, props }: { readonly sheet: BatchSheet; readonly one: SheetStep; readonly index: number; readonly props: Props }) {
  const palette = usePalette();
  const { step, lowMin, highMin, basis, fills, blendL, learned } = one;
  const { soup, volumeL, vessel, open, ticked, onTick } = props;
  const lines = sheet.lines.filter((line) => line.stepId === step.id || line.returnsAtStepId === step.id);
  const us = open.book.kitchen.temperatureUnit === 'F';
  const hasLiquid = lines.some((line) => line.part === 'liquid');
  const place =
    step.place.kind === 'oven'
      ? `oven${step.place.temperatureC === null ? '' : ` ${words.ovenHeat(step.place.temperatureC, open.book.kitchen.temperatureUnit)}`}`
      : step.place.kind === 'blender'
        ? step.place.tool === 'jar'
          ? 'jar blender'
          : 'immersion blender'
        : step.place.kind === 'bench'
          ? 'bench'
          : (vessel?.name ?? 'kettle');
  return (
    <Sheet rim={soup.toneHex} label={`Step ${String(index + 1)} of ${String(sheet.steps.length)}: ${step.name}`}>
      <View style={{ flexDirection: 'row', gap: 12 }}>
        {vessel !== null && step.place.kind === 'vessel' ? (
          <Vessel name={vessel.name} capacityL={vessel.capacityL} fillL={volumeL} minFillL={vessel.minFillL} workingMaxL={vessel.workingMaxL} toneHex={soup.toneHex} scale={22} />
        ) : (
          <PhaseMark phase={step.phase} color={palette.ink} size={40} />
        )}
        <View style={{ flex: 1 }}>
          <Note>{`Step ${String(index + 1)} of ${String(sheet.steps.length)} · ${place}${step.heat === 'off' ? '' : ` · heat ${soupWords.HEAT[step.heat]}, ${soupWords.LID[step.lid]}`}`}</Note>
          <Title level={2}>{step.name}</Title>
          <Figure style={{ fontSize: 28 }}>{soupWords.range(lowMin, highMin)}</Figure>
          <Note>
            {`${soupWords.CLOCK_FROM[step.clockFrom]}${basis === 'measured' && learned !== null ? `; the last ${String(learned.count)} took ${soupWords.range(learned.low, learned.high)}` : basis === 'power' ? '; from litres and power' : ''}${step.lookEveryMin === null ? '' : `; look every ${String(step.lookEveryMin)} min`}`}
          </Note>
        </View>
      </View>
      {fills !== null ? (
        <Strong>{`${String(fills)} fills of the jar, to the hot-fill line${step.blendShare < 1 ? ` (${words.litres(blendL ?? 0)} of the pot)` : ''}.`}</Strong>
      ) : blendL !== null && step.blendShare < 1 ? (
        <Strong>{`${words.litres(blendL)} of the pot.`}</Strong>
      ) : null}
      {lines.map((line) => {
        const back = line.returnsAtStepId === step.id;
        const key = back ? backKey(line.ingredientId) : line.ingredientId;
        return (
          <LineTick
            key={key}
            line={line}
            back={back}
            us={us}
            done={ticked.has(key)}
            onTick={() => {
              onTick(back ? { ...line, ingredientId: key } : line);
            }}
          />
        );
      })}
      {hasLiquid && sheet.liquid !== null ? <Strong>{soupWords.liquid(sheet.liquid)}</Strong> : null}
      {hasLiquid && sheet.liquid !== null && props.onAdd !== null ? (
        <Poured key={step.id} firstL={sheet.liquid.firstL} name={lines.find((line) => line.part === 'liquid')?.name ?? 'Liquid'} onAdd={props.onAdd} />
      ) : null}
      {step.place.kind === 'blender'
        ? (props.carried ?? []).map((found) => (
            <View key={found.tool} style={{ flexDirection: 'row', gap: 8 }}>
              <StateMark mark="stop" />
              <Body style={{ flex: 1 }}>{soupWords.carried(found)}</Body>
            </View>
          ))
        : null}
      {step.check === null ? null : <Body>{`Done when: ${step.check}.`}</Body>}
      {step.caution === null ? null : (
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <StateMark mark="soon" />
          <Body style={{ flex: 1 }}>{step.caution}</Body>
        </View>
      )}
      {step.irreversible ? <Strong>This cannot be undone in the pot.</Strong> : null}
      {step.why === '' ? null : <Note>{step.why}</Note>}
    </Sheet>
  );
}

/** The batch sheet at the pot: one step large with what goes in, the others small; how to put the pot right; what the batch will give. */
export function SheetView(props: Props) {
  const palette = usePalette();
  const { open, soup, volumeL, vessel, at, onGo, startC } = props;
  const history = useSoupHistory(open.book.kitchen.id, soup.id);
  const sheet = useMemo(
    () =>
      batchSheet(soup, volumeL, {
        vessel,
        jar: jarOf(open.book.station),
        soupById: open.soupById,
        ...(startC === undefined ? {} : { startC }),
        ...(history === null ? {} : { stepTimes: history.stepTimes, liquidPerLitre: history.liquidPerLitre }),
      }),
    [soup, volumeL, vessel, open, history, startC],
  );
  const one = sheet.steps[at];
  const wide = useIsWide();
  const head = (
    <>
      <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: 10 }}>
        <Figure>{words.litres(volumeL)}</Figure>
        <Strong>{`×${String(Number(sheet.factor.toFixed(2)))} of the card`}</Strong>
        <Note style={{ flex: 1 }}>
          {sheet.yieldL === null
            ? 'no yield claimed'
            : `gives ${words.number(sheet.yieldL.low)} to ${words.litres(sheet.yieldL.high)}${sheet.portions === null || soup.role === 'component' ? '' : `, ${String(sheet.portions.low)} to ${String(sheet.portions.high)} portions`}`}
        </Note>
      </View>
      {vessel !== null && volumeL > vessel.workingMaxL ? (
        <StateMark mark="stop" word={`${vessel.name} works up to ${words.litres(vessel.workingMaxL)}. Make less, or in two.`} />
      ) : vessel !== null && volumeL < vessel.minFillL ? (
        <StateMark mark="soon" word={`${vessel.name} needs ${words.litres(vessel.minFillL)} to cover the blades. Take a smaller pot.`} />
      ) : null}
      {sheet.unmeasured.length === 0 ? null : <StateMark mark="soon" word={`Not measured yet: ${words.list(sheet.unmeasured)}. Weigh it and write it on the card.`} />}
    </>
  );
  const now = (
    <>
      {one === undefined ? <Body>This soup has no steps yet. Write them on its card.</Body> : <StepCard sheet={sheet} one={one} index={at} props={props} />}
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Action
          label="Step before"
          disabled={at === 0}
          onPress={() => {
            onGo(at - 1);
          }}
        />
        <Action
          kind="main"
          style={{ flex: 1 }}
          label={at >= sheet.steps.length - 1 ? 'Last step' : 'Next step'}
          disabled={at >= sheet.steps.length - 1}
          onPress={() => {
            onGo(at + 1);
          }}
        />
      </View>
    </>
  );
  const all = (
    <View role="group" aria-label="All steps" style={{ gap: 2 }}>
      {sheet.steps.map(({ step, lowMin, highMin }, index) => (
        <Pressable
          key={step.id}
          role="button"
          aria-label={`Step ${String(index + 1)}: ${step.name}`}
          aria-current={index === at ? 'step' : undefined}
          onPress={() => {
            onGo(index);
          }}
          style={{
            minHeight: 44,
            flexDirection: 'row',
            alignItems: 'center',
            gap: 10,
            borderLeftWidth: 5,
            borderLeftColor: index === at ? soup.toneHex : 'transparent',
            paddingLeft: 8,
          }}
        >
          <PhaseMark phase={step.phase} color={index < at ? palette.muted : palette.ink} size={22} />
          <Body style={{ flex: 1, fontSize: 15, color: index < at ? palette.muted : palette.ink }} lines={1}>
            {step.name}
          </Body>
          <Note>{soupWords.range(lowMin, highMin)}</Note>
        </Pressable>
      ))}
    </View>
  );
  // A stock is neither too thin nor salted: that is done where it is used.
  const right = soup.role === 'component' ? null : <PutRight open={open} soup={soup} volumeL={volumeL} sheet={sheet} onAdd={props.onAdd} />;
  if (!wide)
    return (
      <>
        {head}
        {now}
        {all}
        {right}
      </>
    );
  return (
    <>
      {head}
      <View style={{ flexDirection: 'row', gap: 20 }}>
        <View style={{ flex: 3, gap: 12 }}>{now}</View>
        <View style={{ flex: 2, gap: 12 }}>
          {all}
          {right}
        </View>
      </View>
    </>
  );
}
