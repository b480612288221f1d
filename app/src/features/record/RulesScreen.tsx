import { words } from '@broth/contract';
import * as advice from '@broth/contract/advice';
import { parseTemperature } from '@broth/core';
import type { KitchenRules, Rule, RuleChange, RuleStanding, TemperatureUnit } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import { recordApi, useAsked, whyNot } from '../../state/recordApi';
import { useDay } from '../../state/useDay';
import type { OpenDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { Field, Pick } from '../../ui/Field';
import { Screen, Waiting } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { useBack } from '../book/useBack';
import { figuresOf, ownLimit, withFigures } from './ruleFigures';

const STEPS: readonly { readonly step: Rule['step'] | readonly Rule['step'][]; readonly title: string }[] = [
  { step: 'cool', title: 'Cooling' },
  { step: ['hotHold', 'coldHold', 'frozenHold'], title: 'Holding' },
  { step: 'cook', title: 'Cooking' },
  { step: 'reheat', title: 'Reheating' },
  { step: 'timeControl', title: 'Time as control' },
  { step: 'dateMark', title: 'Date marks' },
  { step: 'thermometer', title: 'Thermometers' },
  { step: 'text', title: 'To be known' },
];

const MINUTES_NAME: Readonly<Partial<Record<Rule['step'], string>>> = {
  cool: 'Within, minutes',
  hotHold: 'Read every, minutes',
  coldHold: 'Read every, minutes',
  frozenHold: 'Read every, minutes',
  reheat: 'Within, minutes',
  timeControl: 'Within, minutes',
};

function Edit({
  standing,
  unit,
  onChange,
  onClose,
}: {
  readonly standing: RuleStanding;
  readonly unit: TemperatureUnit;
  readonly onChange: (change: RuleChange) => void;
  readonly onClose: () => void;
}) {
  const { rule, original, on } = standing;
  const was = figuresOf(rule, unit);
  const [temperature, setTemperature] = useState(was.temperature === null ? '' : String(was.temperature));
  const [minutes, setMinutes] = useState(was.minutes === null ? '' : String(was.minutes));
  const [days, setDays] = useState(was.days === null ? '' : String(was.days));
  const [reason, setReason] = useState('');
  const typed = (text: string, had: number | null): number | null => (had === null ? null : parseTemperature(text));
  const next = { temperature: typed(temperature, was.temperature), minutes: typed(minutes, was.minutes), days: typed(days, was.days) };
  const wrong = (text: string, had: number | null): string | null => (had !== null && parseTemperature(text) === null ? 'Type a number.' : null);
  const bad = wrong(temperature, was.temperature) ?? wrong(minutes, was.minutes) ?? wrong(days, was.days);
  const save = (isOn: boolean): void => {
    onChange({ ruleId: rule.id, on: isOn, instead: withFigures(rule, original, next, unit), reason: reason.trim() });
  };
  const hasFigures = was.temperature !== null || was.minutes !== null || was.days !== null;
  return (
    <View style={{ gap: 8 }}>
      {hasFigures ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          {was.temperature === null ? null : (
            <Field label={`Temperature, °${unit}`} value={temperature} onChange={setTemperature} numeric message={wrong(temperature, was.temperature)} />
          )}
          {was.minutes === null ? null : <Field label={MINUTES_NAME[rule.step] ?? 'Minutes'} value={minutes} onChange={setMinutes} numeric message={wrong(minutes, was.minutes)} />}
          {was.days === null ? null : <Field label="Last day" value={days} onChange={setDays} numeric message={wrong(days, was.days)} />}
        </View>
      ) : null}
      <Field label="Why" value={reason} onChange={setReason} hint="It stands beside the rule, for whoever inspects." />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Action label="Leave it" onPress={onClose} />
        {hasFigures ? (
          <Action
            kind="main"
            label="Use these figures"
            disabled={bad !== null || reason.trim() === ''}
            onPress={() => {
              save(true);
            }}
          />
        ) : null}
        <Action
          label={on ? 'Switch it off' : 'Switch it on'}
          disabled={reason.trim() === ''}
          onPress={() => {
            onChange({ ruleId: rule.id, on: !on, instead: original === null || rule === original ? null : rule, reason: reason.trim() });
          }}
        />
        {original !== null && advice.ruleLine(rule, unit) !== advice.ruleLine(original, unit) ? (
          <Action
            label="As the source has it"
            onPress={() => {
              onChange({ ruleId: rule.id, on: true, instead: null, reason: reason.trim() === '' ? 'As the source has it' : reason.trim() });
            }}
          />
        ) : null}
      </View>
    </View>
  );
}

function OneRule({
  standing,
  unit,
  open,
  onOpen,
  onChange,
}: {
  readonly standing: RuleStanding;
  readonly unit: TemperatureUnit;
  readonly open: boolean;
  readonly onOpen: (id: string | null) => void;
  readonly onChange: (change: RuleChange) => void;
}) {
  const { rule, original, on, reason, kinder } = standing;
  const line = advice.ruleLine(rule, unit);
  const was = original === null ? line : advice.ruleLine(original, unit);
  return (
    <View style={{ gap: 4, paddingVertical: 6 }}>
      <View style={{ flexDirection: 'row', gap: 10, alignItems: 'flex-start' }}>
        <View style={{ paddingTop: 2 }}>
          <StateMark mark={on ? (kinder ? 'soon' : 'fine') : 'open'} size={18} />
        </View>
        <View style={{ flex: 1 }}>
          {rule.step === 'text' ? null : <Note>{rule.appliesTo}</Note>}
          <Body style={{ opacity: on ? 1 : 0.6 }}>{rule.step === 'text' ? `${rule.appliesTo}: ${line}` : line}</Body>
          {line === was ? null : <Note>{`The source says: ${was}`}</Note>}
          {reason === '' ? null : <Note>{`Why: ${reason}`}</Note>}
          <Note>{`${on ? '' : 'Off. '}${advice.source(rule)}`}</Note>
        </View>
        <Action
          label="Change"
          hint={`Change: ${rule.appliesTo}`}
          onPress={() => {
            onOpen(open ? null : rule.id);
          }}
        />
      </View>
      {kinder ? (
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <StateMark mark="soon" />
          <Body style={{ flex: 1 }}>This asks for less than the source. Only with the agreement of your authority, in writing.</Body>
        </View>
      ) : null}
      {open ? (
        <Edit
          standing={standing}
          unit={unit}
          onChange={onChange}
          onClose={() => {
            onOpen(null);
          }}
        />
      ) : null}
    </View>
  );
}

const OWN = [
  { value: 'hotHold', label: 'Hot hold, at least' },
  { value: 'coldHold', label: 'Cold hold, at most' },
  { value: 'dateMark', label: 'Date mark, last day' },
] as const;

/** A rule of the kitchen's own: it can only ask for more, for of several the strictest judges. */
function OwnRule({ unit, taken, onAdd }: { readonly unit: TemperatureUnit; readonly taken: number; readonly onAdd: (rule: Rule) => void }) {
  const [kind, setKind] = useState<(typeof OWN)[number]['value']>('hotHold');
  const [figure, setFigure] = useState('');
  const [reason, setReason] = useState('');
  const value = parseTemperature(figure);
  const add = (): void => {
    if (value === null) return;
    const base = {
      id: `kitchen.${kind}.${String(taken + 1)}`,
      appliesTo: 'This kitchen',
      citation: 'House rule',
      authority: 'kitchen',
      confidence: 'high',
      note: reason.trim(),
      corrective: [],
      optional: false,
    } as const;
    if (kind === 'dateMark') onAdd({ ...base, step: 'dateMark', food: 'made', lastDay: Math.max(1, Math.round(value)), corrective: ['relabel', 'discard'] });
    else {
      const side = kind === 'hotHold' ? 'atLeast' : 'atMost';
      onAdd({
        ...base,
        step: kind,
        limit: ownLimit(value, unit),
        side,
        checkEveryMin: kind === 'hotHold' ? 120 : 240,
        allowance: null,
        corrective: kind === 'hotHold' ? ['reheatHot', 'discard'] : ['moveCold', 'discard'],
      });
    }
  };
  return (
    <Sheet label="A rule of our own">
      <Title level={2}>A rule of our own</Title>
      <Note>It stands beside the others. Of several of a kind the one that asks for most judges.</Note>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Pick label="What" value={kind} options={OWN} onPick={setKind} />
        <Field label={kind === 'dateMark' ? 'Day' : `°${unit}`} value={figure} onChange={setFigure} numeric message={figure !== '' && value === null ? 'Type a number.' : null} />
      </View>
      <Field label="Why we have it" value={reason} onChange={setReason} />
      <Action kind="main" label="Add it" disabled={value === null || reason.trim() === ''} onPress={add} />
    </Sheet>
  );
}

function Loaded({ day }: { readonly day: OpenDay }) {
  const who = usePreferences((state) => state.who);
  const kitchenId = day.book.kitchen.id;
  const unit = day.book.kitchen.temperatureUnit;
  const { answer: packs, trouble: packTrouble } = useAsked(() => recordApi.packs(), kitchenId);
  const { answer, trouble } = useAsked(() => recordApi.rules(kitchenId), `${kitchenId} ${String(day.rulesNow.version)}`);
  const [open, setOpen] = useState<string | null>(null);
  const [packId, setPackId] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const isLead = day.book.station.people.find((person) => person.id === who)?.role === 'lead';
  const put = (rules: KitchenRules): void => {
    if (answer === null) return;
    recordApi
      .putRules(kitchenId, { by: who ?? '', baseVersion: answer.version, rules })
      .then(async () => {
        setOpen(null);
        setPackId(null);
        setSaid('In force from now on. What was begun before is judged by what stood then.');
        await useKitchen.getState().open();
      })
      .catch((error: unknown) => {
        setSaid(whyNot(error));
      });
  };
  const rules = answer?.rules;
  const change = (next: RuleChange): void => {
    if (rules === undefined) return;
    put({ ...rules, changes: [...rules.changes.filter((one) => one.ruleId !== next.ruleId), next] });
  };
  const { standings } = day.rulesNow;
  const picked = packs?.find((pack) => pack.id === packId);
  return (
    <View style={{ maxWidth: 760, gap: 12 }}>
      <Sheet label="Rule pack">
        <Strong>{words.authority(day.rulesNow)}</Strong>
        <Note>{`Version ${String(day.rulesNow.packVersion)} of the pack; ${day.rulesNow.version === 1 ? 'this kitchen has changed nothing yet' : `changed here ${String(day.rulesNow.version - 1)} times`}.`}</Note>
        {packs === null ? (
          <Note>{packTrouble ?? 'Fetching the packs…'}</Note>
        ) : (
          <Pick
            label="Rule pack"
            value={packId ?? day.rulesNow.packId}
            options={packs.map((pack) => ({ value: pack.id, label: `${pack.place}: ${pack.name}` }))}
            onPick={setPackId}
          />
        )}
        {picked === undefined || picked.id === day.rulesNow.packId || rules === undefined ? null : (
          <View style={{ gap: 8 }}>
            <Body>{`${picked.name} from now on: ${String(picked.rules)} rules. What was begun before is judged by what stood then, and the record keeps both.`}</Body>
            <Action
              kind="main"
              disabled={!isLead}
              label={`Judge by ${picked.place}`}
              onPress={() => {
                put({ ...rules, packId: picked.id, changes: [] });
              }}
            />
          </View>
        )}
        {isLead ? null : <Note>Rules are changed by the lead.</Note>}
        <View role="status" aria-live="polite">
          {said === null && trouble === null ? null : <Body>{said ?? trouble}</Body>}
        </View>
      </Sheet>
      {STEPS.map(({ step, title }) => {
        const rows = standings.filter(({ rule }) => (typeof step === 'string' ? rule.step === step : step.includes(rule.step)));
        return rows.length === 0 ? null : (
          <Sheet key={title} label={title}>
            <Title level={2}>{title}</Title>
            {rows.map((standing) => (
              <OneRule key={standing.rule.id} standing={standing} unit={unit} open={isLead && open === standing.rule.id} onOpen={setOpen} onChange={change} />
            ))}
          </Sheet>
        );
      })}
      {rules === undefined || !isLead ? null : (
        <OwnRule
          key={day.rulesNow.version}
          unit={unit}
          taken={rules.added.length}
          onAdd={(rule) => {
            put({ ...rules, added: [...rules.added, rule] });
          }}
        />
      )}
    </View>
  );
}

/** The rules in force: each with its source, how sure it is, and what the kitchen made of it. */
export function RulesScreen() {
  const back = useBack('/log');
  const day = useDay();
  return (
    <Screen title="Rules" day={false} back={back}>
      {day === null ? <Waiting /> : <Loaded day={day} />}
    </Screen>
  );
}
