import * as soupWords from '@broth/contract/soupWords';
import { zodResolver } from '@hookform/resolvers/zod';
import { soup as soupSchema, words } from '@broth/contract';
import { readIngredientLine, slugOf, usualStep } from '@broth/contract/formats';
import type { Kitchen } from '@broth/contract/formats';
import { PHASES, SCHOOLS, TEXTURES, checkSoup } from '@broth/core';
import type { Ingredient, Phase, School, Soup, Step } from '@broth/core';
import { del, get as load, set as keep } from 'idb-keyval';
import { useDeferredValue, useEffect, useState } from 'react';
import { FormProvider, useFieldArray, useForm, useWatch } from 'react-hook-form';
import type { FieldErrors } from 'react-hook-form';
import { Pressable, View } from 'react-native';
import { useKitchen } from '../../../state/kitchen';
import type { OpenBook } from '../../../state/useBook';
import { usePalette } from '../../../theme/theme';
import { Action } from '../../../ui/Action';
import { Field, Pick } from '../../../ui/Field';
import { PhaseMark } from '../../../ui/PhaseMark';
import { Screen, useIsWide } from '../../../ui/Screen';
import { Sheet } from '../../../ui/Sheet';
import { StateMark } from '../../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../../ui/Type';
import { LineEditor } from './LineEditor';
import { StepEditor } from './StepEditor';
import { StepOrder } from './StepOrder';
import { NumberOf, PickOf, TextOf, amountShown } from './form';
import type { SoupForm } from './form';
import { VariantEditor } from './VariantEditor';
import { useUndo } from './useUndo';

interface Draft {
  readonly baseVersion: number | null;
  readonly soup: SoupForm;
}
const draftKey = (id: string): string => `soup draft ${id}`;

interface Props {
  readonly title: string;
  readonly back: () => void;
  readonly note?: string | null;
  readonly open: OpenBook;
  readonly initial: Soup;
  /** The version this is written on; null = it is new. */
  readonly baseVersion: number | null;
  readonly onSaved: (soup: Soup) => void;
  /** What reading a card left in doubt. */
  readonly doubts?: readonly string[];
}

/** First messages of everything that is wrong, with where it stands. */
function problemsOf(errors: FieldErrors<SoupForm>, values: SoupForm): readonly string[] {
  const found: string[] = [];
  const walk = (value: unknown, path: readonly string[]): void => {
    if (typeof value !== 'object' || value === null || found.length >= 12) return;
    if ('message' in value && typeof value.message === 'string') {
      const [list, index] = path;
      const name = list === 'ingredients' || list === 'steps' ? values[list][Number(index)]?.name : undefined;
      found.push(name === undefined || name === '' ? value.message : `${name}: ${value.message}`);
      return;
    }
    for (const [key, inner] of Object.entries(value)) if (key !== 'ref' && key !== 'root') walk(inner, [...path, key]);
    if ('root' in value) walk(value.root, path);
  };
  walk(errors, []);
  return [...new Set(found)];
}

function lineSummary(line: Ingredient, steps: readonly Step[]): string {
  const step = steps.find((one) => one.id === line.stepId);
  const amount =
    line.amount === null ? 'not measured' : `${amountShown(line.amount)} ${line.amount.unit === 'each' && line.amount.high === 1 ? 'piece' : soupWords.UNIT[line.amount.unit]}`;
  return `${amount}${line.cut === null ? '' : `, ${line.cut}`} → ${step === undefined ? 'nowhere yet' : words.PHASE[step.phase].toLowerCase()}`;
}

/** Writes the card of a soup: lines, steps, schools; checked while it is typed, undone step by step, kept as a draft until it is saved. */
export function SoupEditor({ title, back, note = null, open, initial, baseVersion, onSaved, doubts = [] }: Props) {
  const palette = usePalette();
  const wide = useIsWide();
  const form = useForm<SoupForm, unknown, Soup>({ resolver: zodResolver(soupSchema), defaultValues: initial, mode: 'onBlur', reValidateMode: 'onChange' });
  const lines = useFieldArray({ control: form.control, name: 'ingredients', keyName: 'key' });
  const steps = useFieldArray({ control: form.control, name: 'steps', keyName: 'key' });
  const values = useWatch({ control: form.control }) as Soup;
  const checked = useDeferredValue(values);
  const saveSoup = useKitchen((state) => state.saveSoup);
  const [base, setBase] = useState(baseVersion);
  const [openLine, setOpenLine] = useState<string | null>(null);
  const [openStep, setOpenStep] = useState<string | null>(null);
  const [quickLine, setQuickLine] = useState('');
  const [quickStep, setQuickStep] = useState('');
  const [quickPhase, setQuickPhase] = useState<Phase>('simmer');
  const [problems, setProblems] = useState<readonly string[]>([]);
  const [refused, setRefused] = useState<{ readonly says: string; readonly code: string | null } | null>(null);
  const [saving, setSaving] = useState(false);
  const [taken, setTaken] = useState(false);
  const key = draftKey(baseVersion === null ? 'new' : initial.id);
  const history = useUndo(form, (now) => {
    // A draft that says what the saved card says is none: kept, it would come back over a newer card one day.
    const same = JSON.stringify(now) === JSON.stringify(initial);
    void (same ? del(key) : keep(key, { baseVersion: base, soup: now } satisfies Draft)).catch(() => undefined);
  });
  useEffect(() => {
    // A draft of an earlier visit is taken up; a card that was just read is newer than any.
    if (doubts.length > 0 || (baseVersion === null && initial.ingredients.length > 0)) return;
    void load<Draft>(key)
      .then((draft) => {
        if (draft === undefined || JSON.stringify(draft.soup) === JSON.stringify(initial)) return;
        form.reset(draft.soup, { keepDefaultValues: true });
        setBase(draft.baseVersion);
        setTaken(true);
      })
      .catch(() => undefined);
  }, []);
  const startOver = (): void => {
    form.reset(initial);
    setBase(baseVersion);
    setTaken(false);
    setRefused(null);
    void del(key).catch(() => undefined);
  };
  const store = async (soup: Soup, on: number | null): Promise<void> => {
    setSaving(true);
    const answer = await saveSoup(soup, on);
    setSaving(false);
    if (answer.kind === 'refused') {
      setRefused({ says: answer.says, code: answer.code });
      return;
    }
    setRefused(null);
    await del(key).catch(() => undefined);
    onSaved(answer.soup);
  };
  const save = (): void => {
    setProblems([]);
    void form.handleSubmit(
      (soup) => store(soup, base),
      (errors) => {
        setProblems(problemsOf(errors, form.getValues()));
      },
    )();
  };
  const saveOnTop = (): void => {
    const newest = open.soupById.get(initial.id)?.version ?? base;
    setBase(newest);
    void form.handleSubmit((soup) => store(soup, newest))();
  };
  const kitchen: Kitchen = {
    pantry: open.pantry,
    made: open.soups.filter((soup) => soup.role === 'component' && soup.id !== values.id),
    measures: open.book.kitchen.temperatureUnit === 'F' ? 'us' : 'metric',
  };
  const addLine = (): void => {
    if (quickLine.trim() === '') return;
    const prep = values.steps.find((step) => step.phase === 'prep') ?? values.steps[0];
    const read = readIngredientLine(quickLine, kitchen, new Set(values.ingredients.map((line) => line.id)), prep?.id ?? '');
    lines.append(read.line);
    setQuickLine('');
  };
  const addStep = (): void => {
    const name = quickStep.trim() === '' ? words.PHASE[quickPhase] : quickStep.trim();
    steps.append(usualStep(quickPhase, slugOf(quickPhase, new Set(values.steps.map((step) => step.id))), name));
    setQuickStep('');
  };
  const findings = checkSoup(checked, open.soupById, open.pantry);
  const row = { flexDirection: 'row', flexWrap: 'wrap', gap: 8 } as const;
  const foot = (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      <Action label="Undo" disabled={!history.canUndo} onPress={history.undo} />
      <Action label="Redo" disabled={!history.canRedo} onPress={history.redo} />
      <Action
        kind="main"
        style={{ flex: 1 }}
        label={saving ? 'Saving…' : base === null ? 'Put it into the book' : `Save as version ${String(base + 1)}`}
        disabled={saving}
        onPress={save}
      />
    </View>
  );
  return (
    <FormProvider {...form}>
      <Screen title={title} day={false} back={back} foot={foot}>
        <View style={wide ? { maxWidth: 900, gap: 12 } : { gap: 12 }}>
          {note === null ? null : <Note>{note}</Note>}
          {taken ? (
            <Sheet label="Draft">
              <Body>Your draft from before was taken up. It is not saved yet.</Body>
              <Action label="Start from the saved card" onPress={startOver} />
            </Sheet>
          ) : null}
          {doubts.length === 0 ? null : (
            <Sheet label="Read from the card">
              <Title level={2}>Look at these</Title>
              {doubts.map((doubt) => (
                <View key={doubt} style={{ flexDirection: 'row', gap: 8 }}>
                  <StateMark mark="soon" />
                  <Body style={{ flex: 1, fontSize: 15 }}>{doubt}</Body>
                </View>
              ))}
            </Sheet>
          )}
          <View role="alert">
            {problems.length === 0 && refused === null ? null : (
              <Sheet label="Not saved">
                <StateMark mark="stop" word="Not saved. Your draft is kept." />
                {problems.map((problem) => (
                  <Body key={problem}>{problem}</Body>
                ))}
                {refused === null ? null : <Body>{refused.says}</Body>}
                {refused?.code === 'soup.conflict' ? (
                  <View style={row}>
                    <Action label="Take theirs" onPress={startOver} />
                    <Action kind="main" label="Save mine on top" onPress={saveOnTop} />
                  </View>
                ) : null}
              </Sheet>
            )}
          </View>
          <Sheet rim={values.toneHex} label="The soup">
            <View style={row}>
              <TextOf path="name" label="Name" />
              <TextOf path="shortName" label="Short name" width={150} />
            </View>
            <View style={row}>
              <NumberOf path="makesL" label="Card makes, L" width={120} />
              <NumberOf path="portionMl" label="Portion, mL" width={120} />
              <PickOf
                path="role"
                label="It is"
                options={[
                  { value: 'soup', label: 'a soup' },
                  { value: 'component', label: 'made for soups' },
                ]}
              />
              <PickOf
                path="served"
                label="Served"
                width={110}
                options={[
                  { value: 'hot', label: 'hot' },
                  { value: 'cold', label: 'cold' },
                ]}
              />
            </View>
            <View style={row}>
              <PickOf path="texture" label="Runs off the ladle" options={TEXTURES.map((value) => ({ value, label: soupWords.TEXTURE[value] }))} />
              <NumberOf path="saltTarget" label="Salt, %" factor={100} width={96} />
              <NumberOf path="salesPrice" label="Sold at" orNull width={96} />
              <View style={{ width: 96, gap: 2 }}>
                <Note>Colour</Note>
                <input
                  type="color"
                  aria-label="Colour of the soup"
                  value={values.toneHex}
                  onChange={(event) => {
                    form.setValue('toneHex', event.target.value.toUpperCase(), { shouldDirty: true });
                  }}
                  style={{ width: '100%', height: 48, border: `2px solid ${palette.hairline}`, borderRadius: 6, background: palette.sheet }}
                />
              </View>
            </View>
          </Sheet>
          <Sheet label="Lines">
            <Title level={2}>{`What goes in, for ${words.litres(Number.isNaN(values.makesL) ? 0 : values.makesL)}`}</Title>
            {lines.fields.map((field, index) => {
              const line = values.ingredients[index];
              if (line === undefined) return null;
              const isOpen = openLine === field.key;
              return (
                <View key={field.key} style={{ borderTopWidth: 1, borderTopColor: palette.hairline }}>
                  <Pressable
                    role="button"
                    aria-expanded={isOpen}
                    aria-label={`${line.name === '' ? 'New line' : line.name}: ${lineSummary(line, values.steps)}`}
                    onPress={() => {
                      setOpenLine(isOpen ? null : field.key);
                    }}
                    style={{ minHeight: 48, justifyContent: 'center' }}
                  >
                    <Strong>{line.name === '' ? 'New line' : line.name}</Strong>
                    <Note>{lineSummary(line, values.steps)}</Note>
                  </Pressable>
                  {isOpen ? (
                    <LineEditor
                      open={open}
                      index={index}
                      steps={values.steps}
                      onRemove={() => {
                        lines.remove(index);
                        setOpenLine(null);
                      }}
                      onClose={() => {
                        setOpenLine(null);
                      }}
                    />
                  ) : null}
                </View>
              );
            })}
            <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-end' }}>
              <Field label="Add a line, as on a card" value={quickLine} onChange={setQuickLine} onSubmit={addLine} />
              <Action label="Add" hint="Add the line" onPress={addLine} />
            </View>
            <Note>Like "2 lb carrots, peeled and diced". What the pantry knows of carrots comes along.</Note>
          </Sheet>
          <Sheet label="Steps">
            <Title level={2}>The way, in order</Title>
            <StepOrder
              onMove={(from, to) => {
                steps.move(from, to);
              }}
              items={steps.fields.flatMap((field, index) => {
                const step = values.steps[index];
                if (step === undefined) return [];
                const isOpen = openStep === field.key;
                return [
                  {
                    id: field.key,
                    name: step.name,
                    content: (
                      <View>
                        <Pressable
                          role="button"
                          aria-expanded={isOpen}
                          aria-label={`Step ${String(index + 1)}: ${step.name}`}
                          onPress={() => {
                            setOpenStep(isOpen ? null : field.key);
                          }}
                          style={{ minHeight: 48, flexDirection: 'row', alignItems: 'center', gap: 8 }}
                        >
                          <PhaseMark phase={step.phase} color={palette.ink} size={22} />
                          <View style={{ flex: 1 }}>
                            <Strong>{step.name}</Strong>
                            <Note>{`${words.PHASE[step.phase]}, ${soupWords.range(step.duration.lowMin, step.duration.highMin)}${step.duration.perLitreMin > 0 ? ` + ${words.number(step.duration.perLitreMin)} a litre` : ''}`}</Note>
                          </View>
                        </Pressable>
                        {isOpen ? (
                          <StepEditor
                            index={index}
                            last={steps.fields.length - 1}
                            onMove={(to) => {
                              steps.move(index, to);
                            }}
                            onRemove={() => {
                              steps.remove(index);
                              setOpenStep(null);
                            }}
                            onClose={() => {
                              setOpenStep(null);
                            }}
                          />
                        ) : null}
                      </View>
                    ),
                  },
                ];
              })}
            />
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, alignItems: 'flex-end' }}>
              <Pick label="Add a step" width={130} value={quickPhase} options={PHASES.map((value) => ({ value, label: words.PHASE[value] }))} onPick={setQuickPhase} />
              <Field label="What hands do" name="What hands do in the new step" value={quickStep} onChange={setQuickStep} onSubmit={addStep} />
              <Action label="Add" hint="Add the step" onPress={addStep} />
            </View>
          </Sheet>
          <Sheet label="Schools">
            <Title level={2}>How it is made</Title>
            {(Object.keys(SCHOOLS) as School[]).map((name) => {
              const { school, consequence } = soupWords.schoolChoice(name, values.schools[name]);
              return (
                <View key={name} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, alignItems: 'flex-end' }}>
                  <PickOf
                    path={`schools.${name}`}
                    label={school}
                    width={210}
                    options={SCHOOLS[name].map((value) => ({ value, label: soupWords.schoolChoice(name, value).choice }))}
                  />
                  <Note style={{ flex: 1, minWidth: 180, paddingBottom: 12 }}>{consequence}</Note>
                </View>
              );
            })}
          </Sheet>
          <Sheet label="Variants">
            <Title level={2}>Variants</Title>
            <VariantEditor values={values} kitchen={kitchen} />
          </Sheet>
          <Sheet label="Checks">
            <Title level={2}>{findings.length === 0 ? 'The checks find nothing' : 'To look at'}</Title>
            {findings.map((found) => (
              <View key={JSON.stringify(found)} style={{ flexDirection: 'row', gap: 8 }}>
                <StateMark mark={soupWords.isGrave(found) ? 'stop' : 'soon'} />
                <Body style={{ flex: 1, fontSize: 15 }}>{soupWords.soupFinding(found)}</Body>
              </View>
            ))}
          </Sheet>
        </View>
      </Screen>
    </FormProvider>
  );
}
