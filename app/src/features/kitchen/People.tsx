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
import { Days, onDays, picked, sent } from './Days';
import type { Day } from './Days';
import { OpenList } from './OpenList';
import { NOTHING, Times, stretchOf, typed } from './Times';
import type { Typed } from './Times';

type Person = KitchenBook['station']['people'][number];

/** What stands in the fields. */
interface Draft {
  readonly name: string;
  readonly shift: Typed;
  readonly breaks: readonly Typed[];
  readonly off: boolean;
  readonly days: readonly Day[];
}
/** What is wrong, and where: the name, the shift, the days or a break by its row, and which end of it. */
interface Wrong {
  readonly at: 'name' | 'shift' | 'days' | number;
  readonly end: string;
  readonly says: string;
}

const MOST_BREAKS = 4;
const NOBODY: Draft = { name: '', shift: NOTHING, breaks: [], off: false, days: picked(undefined) };

function draftOf({ name, shift, breaks = [], off = false, days }: Person): Draft {
  return { name, shift: typed(shift), breaks: breaks.map(typed), off, days: picked(days) };
}
function isEmpty({ from, to }: Typed): boolean {
  return from.trim() === '' && to.trim() === '';
}

function timesOf({ shift, breaks = [], off = false, days }: Person): string {
  if (off) return 'does not come in';
  const free = breaks.map(({ fromMin, toMin }) => `${words.clock(fromMin)} to ${words.clock(toMin)}`);
  return `${words.clock(shift.fromMin)} to ${words.clock(shift.toMin)}${onDays(days)}${free.length === 0 ? '' : `, off the floor ${words.list(free)}`}`;
}

/** Which of two fields says what is wrong. */
function endsOf(wrong: Wrong | null): { readonly wrongFrom: string | null; readonly wrongTo: string | null } {
  const isFrom = wrong?.end === 'fromMin';
  return { wrongFrom: isFrom ? wrong.says : null, wrongTo: isFrom ? null : (wrong?.says ?? null) };
}

/** `person` null = somebody new. */
function PersonEditor({ person, onDone }: { readonly person: Person | null; readonly onDone: () => void }) {
  const changeBook = useKitchen((state) => state.changeBook);
  const [draft, setDraft] = useState<Draft>(person === null ? NOBODY : draftOf(person));
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const wrongAt = (at: Wrong['at']): Wrong | null => (wrong?.at === at ? wrong : null);
  const of = person?.name ?? 'somebody new';
  const rows = draft.breaks.length < MOST_BREAKS ? [...draft.breaks, NOTHING] : draft.breaks;
  const save = async (): Promise<void> => {
    const written = draft.breaks.flatMap((one, row) => (isEmpty(one) ? [] : [row]));
    const breaks = written.map((row) => stretchOf(draft.breaks[row] ?? NOTHING));
    const given = personShape.safeParse({
      name: draft.name,
      shift: stretchOf(draft.shift),
      breaks,
      off: draft.off,
      days: sent(draft.days),
    });
    if (!given.success) {
      const [issue] = given.error.issues;
      const [what, ...rest] = issue?.path ?? [];
      setWrong({
        at: what === 'breaks' ? (written[Number(rest[0])] ?? 0) : what === 'shift' || what === 'days' ? what : 'name',
        end: String(rest.at(-1) ?? ''),
        says: issue?.message ?? '',
      });
      return;
    }
    const says = await changeBook((server, kitchenId) => server.putPerson(kitchenId, person?.id ?? null, given.data));
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
        {...endsOf(wrongAt('shift'))}
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
          {...endsOf(wrongAt(index))}
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
      {draft.off ? null : (
        <Days
          value={draft.days}
          wrong={wrongAt('days')?.says ?? null}
          onChange={(days) => {
            setDraft({ ...draft, days });
          }}
        />
      )}
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Action kind="main" label="Save" hint={`Save the hours of ${of}`} onPress={() => void save()} />
        <Action label="Leave as it was" hint={`Leave the hours of ${of} as they were`} onPress={onDone} />
      </View>
    </View>
  );
}

/** Who works at the station and when: what plans have hands for. */
export function People({ people }: { readonly people: readonly Person[] }) {
  return (
    <Sheet>
      <Title level={2}>Hands</Title>
      <Note>
        Plans have hands for what is to be done while somebody is there. These hours hold for every week until they are changed; who leaves today is told under "What happened".
      </Note>
      <OpenList
        items={people}
        about={(person) => (
          <>
            <Strong>{`${person.name}${person.role === 'lead' ? ', lead' : ''}`}</Strong>
            <Note>{timesOf(person)}</Note>
          </>
        )}
        changeHint={({ name }) => `Change the hours of ${name}`}
        addLabel="Somebody new"
        editor={(person, onDone) => <PersonEditor person={person} onDone={onDone} />}
      />
    </Sheet>
  );
}
