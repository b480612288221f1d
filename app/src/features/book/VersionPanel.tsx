import * as soupWords from '@broth/contract/soupWords';
import { compareSoups } from '@broth/core';
import type { Soup } from '@broth/core';
import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { api } from '../../state/api';
import { useKitchen } from '../../state/kitchen';
import type { OpenBook } from '../../state/useBook';
import { Action } from '../../ui/Action';
import { Pick } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Strong, Title } from '../../ui/Type';

interface Version {
  readonly version: number;
  readonly savedAt: number | null;
  readonly savedBy: string | null;
  readonly soup: Soup;
}

/** Every version of a soup and what two of them differ in; and the way out of the book. */
export function VersionPanel({ open, soup }: { readonly open: OpenBook; readonly soup: Soup }) {
  const router = useRouter();
  const changeBook = useKitchen((state) => state.changeBook);
  const [versions, setVersions] = useState<readonly Version[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [older, setOlder] = useState<number | null>(null);
  const [asked, setAsked] = useState(false);
  useEffect(() => {
    api
      .soupVersions(open.book.kitchen.id, soup.id)
      .then((answer) => {
        setVersions(answer.versions);
        setOlder(answer.versions[1]?.version ?? null);
      })
      .catch((error: unknown) => {
        setTrouble(error instanceof Error ? error.message : String(error));
      });
  }, [open.book.kitchen.id, soup.id, soup.version]);
  const when = (at: number | null): string =>
    at === null
      ? 'came with the kitchen'
      : new Intl.DateTimeFormat('en-GB', { timeZone: open.book.kitchen.timeZone, day: 'numeric', month: 'short', hour: 'numeric', minute: '2-digit' }).format(at);
  const before = versions?.find((one) => one.version === older);
  const differences = before === undefined ? [] : compareSoups(before.soup, soup);
  return (
    <>
      <Sheet label="Versions">
        <Title level={2}>Versions</Title>
        <Body>A batch keeps the version it was begun with. A later edit does not change a pot that is on.</Body>
        {trouble === null ? null : <Body>{trouble}</Body>}
        {versions?.map((one) => (
          <View key={one.version} style={{ flexDirection: 'row', gap: 8 }}>
            <Strong style={{ width: 28, textAlign: 'right' }}>{String(one.version)}</Strong>
            <Body style={{ flex: 1 }}>{`${when(one.savedAt)}${one.savedBy === null ? '' : `, ${one.savedBy}`}`}</Body>
          </View>
        ))}
      </Sheet>
      {versions === null || versions.length < 2 || older === null ? null : (
        <Sheet label="Compare">
          <Title level={2}>{`What version ${String(soup.version)} changed`}</Title>
          <Pick
            label="Against version"
            value={String(older)}
            options={versions.filter((one) => one.version !== soup.version).map((one) => ({ value: String(one.version), label: `${String(one.version)}, ${when(one.savedAt)}` }))}
            onPick={(value) => {
              setOlder(Number(value));
            }}
          />
          {differences.length === 0 ? <Body>Nothing.</Body> : differences.map((found) => <Body key={JSON.stringify(found)}>{soupWords.difference(found)}</Body>)}
        </Sheet>
      )}
      <Sheet label="Out of the book">
        <Title level={2}>Out of the book</Title>
        <Note>It leaves the book and the list of pars. Its versions stay for the batches made from them.</Note>
        {asked ? (
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <Action
              label="Keep it"
              onPress={() => {
                setAsked(false);
              }}
            />
            <Action
              kind="stop"
              label={`Take ${soup.shortName} out`}
              onPress={() => {
                void changeBook((server, kitchenId) => server.retireSoup(kitchenId, soup.id)).then((refused) => {
                  if (refused === null) router.replace('/book');
                  else setTrouble(refused);
                  setAsked(false);
                });
              }}
            />
          </View>
        ) : (
          <Action
            label="Take it out of the book"
            onPress={() => {
              setAsked(true);
            }}
          />
        )}
      </Sheet>
    </>
  );
}
