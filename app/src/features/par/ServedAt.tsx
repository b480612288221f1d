import { words } from '@broth/contract';
import { useId, useState } from 'react';
import { Pressable, View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';
import { Choice } from '../../ui/Action';
import { Note } from '../../ui/Type';
import { WhatIsWrong } from '../../ui/WhatIsWrong';

interface Props {
  readonly day: OpenDay;
  readonly soupId: string;
  readonly soupName: string;
  readonly serviceId: string;
}

/** At which service a soup is wanted, and another if it is to be. */
export function ServedAt({ day, soupId, soupName, serviceId }: Props) {
  const { services } = day.book.station;
  const changeBook = useKitchen((state) => state.changeBook);
  const wrongId = useId();
  const [open, setOpen] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const service = services.find(({ id }) => id === serviceId);
  const pick = async (picked: string): Promise<void> => {
    const says = picked === serviceId ? null : await changeBook((server, kitchenId) => server.putServedAt(kitchenId, soupId, picked));
    setWrong(says);
    if (says === null) setOpen(false);
  };
  const at = service === undefined ? '' : `${service.name}, ${words.clock(service.startMin)}`;
  if (services.length < 2) return <Note>{at}</Note>;
  if (!open)
    return (
      <Pressable
        role="button"
        aria-label={`${at}. Serve ${soupName} at another service`}
        onPress={() => {
          setOpen(true);
        }}
        style={{ minHeight: 44, justifyContent: 'center', alignSelf: 'flex-start' }}
      >
        <Note style={{ textDecorationLine: 'underline' }}>{at}</Note>
      </Pressable>
    );
  return (
    <View style={{ gap: 8, paddingTop: 6 }}>
      <Choice
        label={`When ${soupName} is served`}
        value={serviceId}
        options={services.map(({ id, name }) => ({ value: id, label: name }))}
        onPick={(picked) => void pick(picked)}
      />
      <Note>From now on, every day.</Note>
      <WhatIsWrong id={wrongId} says={wrong} />
    </View>
  );
}
