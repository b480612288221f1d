import { putService as serviceShape, words } from '@broth/contract';
import type { KitchenBook } from '@broth/contract';
import { useId, useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import { Action } from '../../ui/Action';
import { Field } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';
import { Note, Strong, Title } from '../../ui/Type';
import { WhatIsWrong } from '../../ui/WhatIsWrong';
import { Days, onDays, picked, sent } from './Days';
import { OpenList } from './OpenList';
import { NOTHING, Times, stretchOf, typed } from './Times';

type Service = KitchenBook['station']['services'][number];

/** `service` null = a new one. */
function ServiceEditor({ service, onDone }: { readonly service: Service | null; readonly onDone: () => void }) {
  const changeBook = useKitchen((state) => state.changeBook);
  const removalId = useId();
  const [name, setName] = useState(service?.name ?? '');
  const [times, setTimes] = useState(service === null ? NOTHING : typed({ fromMin: service.startMin, toMin: service.endMin }));
  const [days, setDays] = useState(picked(service?.days));
  const [wrong, setWrong] = useState<{ readonly at: string; readonly says: string } | null>(null);
  const wrongAt = (at: string): string | null => (wrong?.at === at ? wrong.says : null);
  const of = service?.name ?? 'a new service';
  const id = service?.id ?? null;
  const settle = (at: string, says: string | null): void => {
    setWrong(says === null ? null : { at, says });
    if (says === null) onDone();
  };
  const save = async (): Promise<void> => {
    const { fromMin, toMin } = stretchOf(times);
    const given = serviceShape.safeParse({ name, startMin: fromMin, endMin: toMin, days: sent(days) });
    if (!given.success) {
      const [issue] = given.error.issues;
      setWrong({ at: String(issue?.path[0] ?? 'name'), says: issue?.message ?? '' });
      return;
    }
    settle('name', await changeBook((server, kitchenId) => server.putService(kitchenId, id, given.data)));
  };
  const remove = async (gone: string): Promise<void> => {
    settle('remove', await changeBook((server, kitchenId) => server.removeService(kitchenId, gone)));
  };
  return (
    <View role="group" aria-label={`Times of ${of}`} style={{ gap: 8, paddingBottom: 8 }}>
      <Field label="Name" name={`Name of ${of}`} value={name} message={wrongAt('name')} onChange={setName} />
      <Times label="Open" of={of} value={times} wrongFrom={wrongAt('startMin')} wrongTo={wrongAt('endMin')} onChange={setTimes} />
      <Days value={days} wrong={wrongAt('days')} onChange={setDays} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Action kind="main" label="Save" hint={`Save ${of}`} onPress={() => void save()} />
        <Action label="Leave as it was" hint={`Leave ${of} as it was`} onPress={onDone} />
        {id === null ? null : <Action label="Remove" hint={`Remove ${of}`} onPress={() => void remove(id)} />}
      </View>
      <WhatIsWrong id={removalId} says={wrongAt('remove')} />
    </View>
  );
}

/** When soups are wanted: plans have them ready before. */
export function Services({ services }: { readonly services: readonly Service[] }) {
  return (
    <Sheet>
      <Title level={2}>Services</Title>
      <Note>Soups are ready before their service opens, and not made on days it is not held. At which of them each is served is said on Par.</Note>
      <OpenList
        items={services}
        about={({ name, startMin, endMin, days }) => (
          <>
            <Strong>{name}</Strong>
            <Note>{`${words.clock(startMin)} to ${words.clock(endMin)}${onDays(days)}`}</Note>
          </>
        )}
        changeHint={({ name }) => `Change the times of ${name}`}
        addLabel="Another service"
        editor={(service, onDone) => <ServiceEditor service={service} onDone={onDone} />}
      />
    </Sheet>
  );
}
