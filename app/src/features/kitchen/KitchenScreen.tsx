import { words } from '@broth/contract';
import { boilingPointC } from '@broth/core';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import type { Look } from '../../state/preferences';
import { Action, Choice } from '../../ui/Action';
import { Alerts } from './Alerts';
import { EquipmentList } from './EquipmentList';
import { People } from './People';
import { Services } from './Services';
import { Screen, Waiting } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { CountStepper, MinutesStepper } from '../../ui/Stepper';
import { Note, Strong, Title } from '../../ui/Type';

const LOOKS: readonly { readonly value: Look; readonly label: string }[] = [
  { value: 'system', label: 'As the phone' },
  { value: 'enamel', label: 'Enamel' },
  { value: 'iron', label: 'Iron' },
];

const AIMS = [
  { value: 'null', label: 'On the dot' },
  { value: '0.8', label: '8 days in 10' },
  { value: '0.9', label: '9 in 10' },
  { value: '0.95', label: '19 in 20' },
];

const LATER = [
  { value: 'false', label: 'Both before the doors open' },
  { value: 'true', label: 'The second later' },
];

const CUTTING = [
  { value: 'false', label: 'In one go' },
  { value: 'true', label: 'May be put down' },
];

const TIMES = [
  { name: 'readyLeadMin', label: 'ready before service', stepMin: 5, mostMin: 240 },
  { name: 'rinseMin', label: 'a rinse', stepMin: 1, mostMin: 60 },
  { name: 'fullWashMin', label: 'a full wash', stepMin: 1, mostMin: 120 },
] as const;

/** Behind the head of every page: who holds this phone, what stands at the station, how it looks. */
export function KitchenScreen() {
  const router = useRouter();
  const book = useKitchen((state) => state.book);
  const patchStation = useKitchen((state) => state.patchStation);
  const { who, look, device, pickWho, pickLook } = usePreferences();
  const back = (): void => {
    if (router.canGoBack()) router.back();
    else router.replace('/par');
  };
  if (book === null) {
    return (
      <Screen title="Kitchen" day={false} back={back}>
        <Waiting />
      </Screen>
    );
  }
  const rules = book.rules.at(-1)?.set;
  return (
    <Screen title={book.kitchen.name} day={false} back={back}>
      <Note>{`${book.kitchen.place}${book.kitchen.invented ? '. An invented demo kitchen: nothing in it is real.' : ''}`}</Note>
      <Sheet>
        <Title level={2}>Who holds this phone?</Title>
        <Choice
          label="Who holds this phone"
          value={who}
          options={book.station.people.map((person) => ({ value: person.id, label: `${person.name}${person.role === 'lead' ? ', lead' : ''}` }))}
          onPick={(picked) => {
            pickWho(picked);
          }}
        />
        <Note>{`Entries carry this name and "${device}".`}</Note>
      </Sheet>
      <Sheet>
        <Title level={2}>Look</Title>
        <Choice label="Look" value={look} options={LOOKS} onPick={pickLook} />
      </Sheet>
      <Alerts />
      <Sheet>
        <Title level={2}>What plans go by</Title>
        <Strong>Each soup in time</Strong>
        <Choice
          label="Each soup in time"
          value={String(book.station.aimChance)}
          options={AIMS}
          onPick={(picked) => {
            void patchStation({ aimChance: picked === 'null' ? null : Number(picked) });
          }}
        />
        <Note>Steps take longer than planned more often than not. The surer a soup is to be in time, the sooner it is planned, and the longer it stands.</Note>
        <Strong>A soup in two batches</Strong>
        <Choice
          label="A soup in two batches"
          value={String(book.station.laterBatches)}
          options={LATER}
          onPick={(picked) => {
            void patchStation({ laterBatches: picked === 'true' });
          }}
        />
        <Note>Later: the second is fresh when the first may run out, reckoned as if guests came twice as fast as evenly.</Note>
        <Strong>Cutting</Strong>
        <Choice
          label="Cutting"
          value={String(book.station.interruptsCutting ?? false)}
          options={CUTTING}
          onPick={(picked) => {
            void patchStation({ interruptsCutting: picked === 'true' });
          }}
        />
        <Note>May be put down: for what is wanted sooner, and taken up again, at least ten minutes at a time. It helps most where there are few hands.</Note>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 24 }}>
          {TIMES.map(({ name, ...rest }) => (
            <MinutesStepper
              key={name}
              {...rest}
              durationMin={book.station[name]}
              onChange={(durationMin) => {
                void patchStation({ [name]: durationMin });
              }}
            />
          ))}
        </View>
      </Sheet>
      <Services services={book.station.services} />
      <People people={book.station.people} />
      <EquipmentList equipment={book.station.equipment} />
      <Sheet>
        <Title level={2}>Rules in force</Title>
        <Strong>{rules === undefined ? '' : words.authority(rules)}</Strong>
        <CountStepper
          label="m above the sea"
          count={book.station.altitudeM}
          step={50}
          most={6000}
          onChange={(altitudeM) => {
            void patchStation({ altitudeM });
          }}
        />
        <Note>{`Water boils at ${words.degrees(boilingPointC(book.station.altitudeM), 'C')} there: readings above it are asked about, and thermometers checked against it.`}</Note>
        <Action
          label="Rules, one by one"
          onPress={() => {
            router.push('/rules');
          }}
        />
      </Sheet>
    </Screen>
  );
}
