import { putEquipment as thingShape, words } from '@broth/contract';
import type { KitchenBook } from '@broth/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { Switch } from 'react-native-paper';
import { useKitchen } from '../../state/kitchen';
import { Action, Choice } from '../../ui/Action';
import { Field } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { OpenList } from './OpenList';

type Thing = KitchenBook['station']['equipment'][number];
type Kind = Thing['kind'];

const KINDS: readonly { readonly value: Kind; readonly label: string }[] = [
  { value: 'vessel', label: 'Kettle or pot' },
  { value: 'jar', label: 'Jar blender' },
  { value: 'immersion', label: 'Immersion blender' },
  { value: 'oven', label: 'Oven' },
  { value: 'cooling', label: 'Place to cool' },
  { value: 'well', label: 'Hot well' },
];

/** What is asked of each kind: the key of the wire and its label; `may` = may be left empty. */
const FIELDS: Readonly<Record<Kind, readonly { readonly key: string; readonly label: string; readonly may?: boolean }[]>> = {
  vessel: [
    { key: 'capacityL', label: 'Holds, L' },
    { key: 'minFillL', label: 'Works from, L' },
    { key: 'workingMaxL', label: 'Works up to, L' },
    { key: 'powerKw', label: 'Power, kW', may: true },
    { key: 'diameterCm', label: 'Inside diameter, cm', may: true },
  ],
  jar: [
    { key: 'capacityL', label: 'Holds, L' },
    { key: 'hotFillL', label: 'Hot-fill line, L' },
    { key: 'cycleMin', label: 'A fill takes, min' },
  ],
  immersion: [],
  oven: [{ key: 'trays', label: 'Trays' }],
  cooling: [
    { key: 'capacityL', label: 'Holds, L' },
    { key: 'ambientC', label: 'Around what cools, °C' },
  ],
  well: [{ key: 'capacityL', label: 'Holds, L' }],
};

function sizeOf(thing: Thing): string {
  switch (thing.kind) {
    case 'vessel':
      return `${words.litres(thing.capacityL)}, works from ${words.litres(thing.minFillL)} to ${words.litres(thing.workingMaxL)}`;
    case 'jar':
      return `${words.litres(thing.hotFillL)} hot, ${words.number(thing.cycleMin)} min a fill`;
    case 'immersion':
      return 'in the kettle';
    case 'oven':
      return `${String(thing.trays)} trays, at one heat at a time`;
    case 'cooling':
      return `${words.litres(thing.capacityL)} to cool, at ${words.degrees(thing.ambientC, 'C')}`;
    case 'well':
      return `${words.litres(thing.capacityL)} held hot`;
  }
}

function numberOf(typed: string): number | undefined {
  return typed.trim() === '' ? undefined : Number(typed.trim().replace(',', '.').replace('−', '-'));
}

/** `thing` null = something new. */
function ThingEditor({ thing, onDone }: { readonly thing: Thing | null; readonly onDone: () => void }) {
  const changeBook = useKitchen((state) => state.changeBook);
  const [kind, setKind] = useState<Kind>(thing?.kind ?? 'vessel');
  const [name, setName] = useState(thing?.name ?? '');
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>(
    Object.fromEntries(Object.entries(thing ?? {}).flatMap(([key, value]) => (typeof value === 'number' ? [[key, String(value)]] : []))),
  );
  const [wrong, setWrong] = useState<{ readonly key: string; readonly says: string } | null>(null);
  const of = thing?.name ?? 'something new';
  const save = async (): Promise<void> => {
    // What no field asks for stays as it was.
    const given = thingShape.safeParse({ ...thing, kind, name, ...Object.fromEntries(FIELDS[kind].map(({ key }) => [key, numberOf(typed[key] ?? '')])) });
    if (!given.success) {
      const [issue] = given.error.issues;
      setWrong({ key: String(issue?.path[0] ?? 'name'), says: issue?.message ?? '' });
      return;
    }
    const says = await changeBook((server, kitchenId) => server.putEquipment(kitchenId, thing?.id ?? null, given.data));
    setWrong(says === null ? null : { key: 'name', says });
    if (says === null) onDone();
  };
  return (
    <View role="group" aria-label={`Measures of ${of}`} style={{ gap: 8, paddingBottom: 8 }}>
      {thing === null ? <Choice label="What it is" value={kind} options={KINDS} onPick={setKind} /> : null}
      <Field label="Name" name={`Name of ${of}`} value={name} message={wrong?.key === 'name' ? wrong.says : null} onChange={setName} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {FIELDS[kind].map(({ key, label, may = false }) => (
          <Field
            key={key}
            numeric
            label={may ? `${label}, if known` : label}
            name={`${label}, ${of}`}
            value={typed[key] ?? ''}
            message={wrong?.key === key ? wrong.says : null}
            onChange={(text) => {
              setTyped({ ...typed, [key]: text });
            }}
          />
        ))}
      </View>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Action kind="main" label="Save" hint={`Save ${of}`} onPress={() => void save()} />
        <Action label="Leave as it was" hint={`Leave ${of} as it was`} onPress={onDone} />
      </View>
    </View>
  );
}

/** What stands at the station, how much it takes, and what of it is in use. */
export function EquipmentList({ equipment }: { readonly equipment: readonly Thing[] }) {
  const changeBook = useKitchen((state) => state.changeBook);
  const say = useKitchen((state) => state.say);
  const setInUse = async (id: string, inUse: boolean): Promise<void> => {
    const says = await changeBook((server, kitchenId) => server.setInUse(kitchenId, id, inUse));
    if (says !== null) say(says);
  };
  return (
    <Sheet>
      <Title level={2}>Equipment</Title>
      <Note>What is out of use is left out of every plan.</Note>
      <OpenList
        items={equipment}
        about={(thing) => (
          <>
            <Strong>{thing.name}</Strong>
            <Note>{sizeOf(thing)}</Note>
            {thing.inUse ? null : <Body>out of use</Body>}
          </>
        )}
        aside={({ id, name, inUse }) => (
          <Switch
            aria-label={`${name} in use`}
            value={inUse}
            onValueChange={(on) => {
              void setInUse(id, on);
            }}
          />
        )}
        changeHint={({ name }) => `Change ${name}`}
        addLabel="Something new"
        editor={(thing, onDone) => <ThingEditor thing={thing} onDone={onDone} />}
      />
    </Sheet>
  );
}
