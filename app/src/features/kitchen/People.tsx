import { putPerson as personShape, words } from '@broth/contract';
import type { KitchenBook } from '@broth/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { Switch } from 'react-native-paper';
import { useKitchen } from '../../state/kitchen';
import { Action } from '../../ui/Action';
import { Field } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Strong, Title } from '../../ui/Type';

type Person = KitchenBook['station']['people'][number];

/** What stands in the fields. */
interface Draft {
  readonly name: string;
  readonly shift: Typed;
  readonly breaks: readonly Typed[];
  readonly off: boolean;
}
interface Typed {
  readonly from: string;
  readonly to: string;
}

/** What is wrong, and where: the name, the shift or a break by its row, and which end of it. */
interface Wrong {
  readonly at: 'name' | 'shift' | number;
  readonly end: string;
  readonly says: string;
}

const MOST_BREAKS = 4;
const NOTHING: Typed = { from: '', to: '' };
const NOBODY: Draft = { name: '', shift: NOTHING, breaks: [], off: false };

function typed({ fromMin, toMin }: Person['shift']): Typed {
  return { from: words.clock(fromMin), to: words.clock(toMin) };
}
function draftOf({ name, shift, breaks = [], off = false }: Person): Draft {
  return { name, shift: typed(shift), breaks: breaks.map(typed), off };
}
function stretchOf({ from, to }: Typed): Person['shift'] {
  return { fromMin: words.readClock(from), toMin: words.readClock(to) };
}
function isEmpty({ from, to }: Typed): boolean {
  return from.trim() === '' && to.trim() === '';
}

function timesOf({ shift, breaks = [], off = false }: Person): string {
  if (off) return 'does not come in';
  const free = breaks.map(({ fromMin, toMin }) => `${words.clock(fromMin)} to ${words.clock(toMin)}`);
  return `${words.clock(shift.fromMin)} to ${words.clock(shift.toMin)}${free.length === 0 ? '' : `, off the floor ${words.list(free)}`}`;
}

interface TimesProps {
  readonly label: string;
  readonly of: string;
  readonly value: Typed;
  readonly wrong: Wrong | null;
  readonly onChange: (value: Typed) => void;
}

function Times({ label, of, value, wrong, onChange }: TimesProps) {
  return (
    <View style={{ flexDirection: 'row', gap: 8 }}>
      <Field
        label={`${label} from`}
        name={`${label} from, ${of}`}
        value={value.from}
        message={wrong?.end === 'fromMin' ? wrong.says : null}
        onChange={(from) => {
          onChange({ ...value, from });
        }}
      />
      <Field
        label="to"
        name={`${label} to, ${of}`}
        value={value.to}
        message={wrong !== null && wrong.end !== 'fromMin' ? wrong.says : null}
        onChange={(to) => {
          onChange({ ...value, to });
        }}
      />
    </View>
  );
}

/** `person` null = somebody new. */
function PersonEditor({ person, onDone }: { readonly person: Person | null; readonly onDone: () => void }) {
  const putPerson = useKitchen((state) => state.putPerson);
  const [draft, setDraft] = useState<Draft>(person === null ? NOBODY : draftOf(person));
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const wrongAt = (at: Wrong['at']): Wrong | null => (wrong?.at === at ? wrong : null);
  const of = person?.name ?? 'somebody new';
  const rows = draft.breaks.length < MOST_BREAKS ? [...draft.breaks, NOTHING] : draft.breaks;
  const save = async (): Promise<void> => {
    const written = draft.breaks.flatMap((one, row) => (isEmpty(one) ? [] : [row]));
    const breaks = written.map((row) => stretchOf(draft.breaks[row] ?? NOTHING));
    const given = personShape.safeParse({ name: draft.name, shift: stretchOf(draft.shift), breaks, off: draft.off });
    if (!given.success) {
      const [issue] = given.error.issues;
      const [what, ...rest] = issue?.path ?? [];
      setWrong({ at: what === 'breaks' ? (written[Number(rest[0])] ?? 0) : what === 'shift' ? 'shift' : 'name', end: String(rest.at(-1) ?? ''), says: issue?.message ?? '' });
      return;
    }
    const says = await putPerson(person?.id ?? null, given.data);
    setWrong(says === null ? null : { at: 'name', end: '', says });
    if (says === null) onDone();
  };
  return (
    <View role="group" aria-label={`Hours of ${of}`} style={{ gap: 8, paddingBottom: 8 }}>
      <Field
        label="Name"
        name={`Name of ${of}`}
        value={draft.name}
        message={wrongAt('name')?.says ?? null}
        onChange={(name) => {
          setDraft({ ...draft, name });
        }}
      />
      <Times
        label="There"
        of={of}
        value={draft.shift}
        wrong={wrongAt('shift')}
        onChange={(shift) => {
          setDraft({ ...draft, shift });
        }}
      />
      {rows.map((value, index) => (
        <Times
          key={index}
          label={index === 0 ? 'Break' : `Break ${String(index + 1)}`}
          of={of}
          value={value}
          wrong={wrongAt(index)}
          onChange={(changed) => {
            setDraft({ ...draft, breaks: rows.map((one, at) => (at === index ? changed : one)).filter((one, at) => at < draft.breaks.length || !isEmpty(one)) });
          }}
        />
      ))}
      <View style={{ flexDirection: 'row', alignItems: 'center', minHeight: 48, gap: 12 }}>
        <Body style={{ flex: 1 }}>Comes in</Body>
        <Switch
          aria-label={`${of} comes in`}
          value={!draft.off}
          onValueChange={(comes) => {
            setDraft({ ...draft, off: !comes });
          }}
        />
      </View>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Action kind="main" label="Save" hint={`Save the hours of ${of}`} onPress={() => void save()} />
        <Action label="Leave as it was" hint={`Leave the hours of ${of} as they were`} onPress={onDone} />
      </View>
    </View>
  );
}

/** Who works at the station and when: what plans have hands for. */
export function People({ people }: { readonly people: readonly Person[] }) {
  /** Whose hours are open: an id, '' = somebody new. */
  const [open, setOpen] = useState<string | null>(null);
  const close = (): void => {
    setOpen(null);
  };
  return (
    <Sheet>
      <Title level={2}>Hands</Title>
      <Note>
        Plans have hands for what is to be done while somebody is there. These hours hold for every day until they are changed; who leaves today is told under "What happened".
      </Note>
      {people.map((person) => (
        <View key={person.id}>
          <View style={{ flexDirection: 'row', alignItems: 'center', minHeight: 56, gap: 12 }}>
            <View style={{ flex: 1 }}>
              <Strong>{`${person.name}${person.role === 'lead' ? ', lead' : ''}`}</Strong>
              <Note>{timesOf(person)}</Note>
            </View>
            {open === person.id ? null : (
              <Action
                label="Change"
                hint={`Change the hours of ${person.name}`}
                onPress={() => {
                  setOpen(person.id);
                }}
              />
            )}
          </View>
          {open === person.id ? <PersonEditor person={person} onDone={close} /> : null}
        </View>
      ))}
      {open === '' ? (
        <PersonEditor person={null} onDone={close} />
      ) : (
        <Action
          label="Somebody new"
          onPress={() => {
            setOpen('');
          }}
        />
      )}
    </Sheet>
  );
}
