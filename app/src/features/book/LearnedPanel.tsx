import * as soupWords from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { timeOffers } from '@broth/core';
import type { Soup, TimeOffer } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import type { OpenBook } from '../../state/useBook';
import { Action } from '../../ui/Action';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Title } from '../../ui/Type';
import { useSoupHistory } from './useHistory';

/** Where past batches took other times than the card says: the card is offered theirs, a step at a time. */
export function LearnedPanel({ open, soup }: { readonly open: OpenBook; readonly soup: Soup }) {
  const history = useSoupHistory(open.book.kitchen.id, soup.id);
  const saveSoup = useKitchen((state) => state.saveSoup);
  const [says, setSays] = useState<string | null>(null);
  const offers = history === null ? [] : timeOffers(soup, history.stepTimes);
  if (offers.length === 0 && says === null) return null;
  const take = ({ step, duration }: TimeOffer): void => {
    void saveSoup({ ...soup, steps: soup.steps.map((one) => (one.id === step.id ? { ...one, duration } : one)) }, soup.version).then((saved) => {
      setSays(saved.kind === 'saved' ? `Saved as version ${String(saved.soup.version)}. Batches under way keep theirs.` : saved.says);
    });
  };
  return (
    <Sheet label="What past batches took">
      <Title level={2}>What past batches took</Title>
      {offers.map((offer) => {
        const { step, learned, duration } = offer;
        const more = duration.perLitreMin * soup.makesL;
        return (
          <View key={step.id} style={{ gap: 6 }}>
            <Body>{`${step.name}: the last ${String(learned.count)} took ${soupWords.range(learned.low, learned.high)}, ${words.duration(learned.median)} in the middle. The card says ${soupWords.range(step.duration.lowMin + more, step.duration.highMin + more)}.`}</Body>
            <Action
              style={{ alignSelf: 'flex-start' }}
              label={`Put ${soupWords.range(duration.lowMin + more, duration.highMin + more)} on the card`}
              onPress={() => {
                take(offer);
              }}
            />
          </View>
        );
      })}
      {says === null ? null : <Note>{says}</Note>}
    </Sheet>
  );
}
