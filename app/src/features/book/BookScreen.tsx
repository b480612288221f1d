import * as soupWords from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { allergensOf, checkSoup } from '@broth/core';
import type { Soup } from '@broth/core';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { useBook } from '../../state/useBook';
import type { OpenBook } from '../../state/useBook';
import { Action } from '../../ui/Action';
import { Field } from '../../ui/Field';
import { Screen, Waiting, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Title } from '../../ui/Type';
import { useBack } from './useBack';

function SoupRow({ open, soup }: { readonly open: OpenBook; readonly soup: Soup }) {
  const router = useRouter();
  const findings = checkSoup(soup, open.soupById, open.pantry);
  const grave = findings.filter(soupWords.isGrave).length;
  const { contains, unknownLines } = allergensOf(soup, open.soupById);
  const users = open.soups.filter((other) => other.ingredients.some((line) => line.componentId === soup.id));
  return (
    <Pressable
      role="link"
      aria-label={soup.name}
      onPress={() => {
        router.push(`/book/${soup.id}`);
      }}
    >
      <Sheet rim={soup.toneHex}>
        <Title level={3}>{soup.name}</Title>
        <Body style={{ fontSize: 15 }}>
          {`Card for ${words.litres(soup.makesL)}, ${String(soup.ingredients.length)} lines, ${String(soup.steps.length)} steps, version ${String(soup.version)}`}
        </Body>
        <Note>
          {contains.length === 0 ? 'No listed allergen in the lines that were read' : words.list(contains.map((allergen) => words.ALLERGEN[allergen]))}
          {unknownLines.length > 0 ? '; labels unread' : ''}
          {users.length > 0 ? ` · goes into ${words.list(users.map((user) => user.shortName))}` : ''}
        </Note>
        {findings.length === 0 ? null : (
          <StateMark mark={grave > 0 ? 'stop' : 'soon'} word={findings.length === 1 ? 'One thing to look at' : `${String(findings.length)} things to look at`} />
        )}
      </Sheet>
    </Pressable>
  );
}

/** Every soup and what soups share; behind each its card, its sheet and its history. */
export function BookScreen() {
  const open = useBook();
  const router = useRouter();
  const wide = useIsWide();
  const back = useBack('/par');
  const [search, setSearch] = useState('');
  if (open === null) {
    return (
      <Screen title="Soup book" day={false} back={back}>
        <Waiting />
      </Screen>
    );
  }
  const wanted = search.trim().toLowerCase();
  const found = open.soups.filter((soup) => wanted === '' || [soup.name, ...soup.ingredients.map((line) => line.name)].some((text) => text.toLowerCase().includes(wanted)));
  const groups = [
    { role: 'soup', title: 'Soups' },
    { role: 'component', title: 'Made here for soups' },
  ] as const;
  const foot = (
    <View style={{ flexDirection: 'row', gap: 8 }}>
      <Action
        label="Pantry"
        onPress={() => {
          router.push('/pantry');
        }}
      />
      <Action
        kind="main"
        style={{ flex: 1 }}
        label="New soup"
        onPress={() => {
          router.push('/book/new');
        }}
      />
    </View>
  );
  return (
    <Screen title="Soup book" day={false} back={back} foot={foot}>
      <View style={{ flexDirection: 'row' }}>
        <Field label="Find a soup or an ingredient" value={search} onChange={setSearch} />
      </View>
      {groups.map(({ role, title }) => {
        const soups = found.filter((soup) => soup.role === role);
        return soups.length === 0 ? null : (
          <View key={role} style={{ gap: 8 }}>
            <Title level={2}>{title}</Title>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
              {soups.map((soup) => (
                <View key={soup.id} style={wide ? { flexGrow: 1, flexBasis: 340, maxWidth: 460 } : { width: '100%' }}>
                  <SoupRow open={open} soup={soup} />
                </View>
              ))}
            </View>
          </View>
        );
      })}
      {found.length === 0 ? (
        <Body>{wanted === '' ? 'The book is empty. Write the first card.' : `Nothing in the book has "${search.trim()}". Try another word, or write its card.`}</Body>
      ) : null}
    </Screen>
  );
}
