import { useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { Linking, ScrollView, View } from 'react-native';
import { recordApi, useAsked } from '../../state/recordApi';
import { usePalette } from '../../theme/theme';
import { Action } from '../../ui/Action';
import { Pick } from '../../ui/Field';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { RecordSheet } from './RecordSheet';

/** What an inspector sees who was given a link: the days it reads, and nothing else of the app. */
export function InspectScreen() {
  const palette = usePalette();
  const { token } = useLocalSearchParams<{ token: string }>();
  const { answer, trouble } = useAsked(() => recordApi.inspect(token), token);
  const [picked, setPicked] = useState<string | null>(null);
  const date = picked ?? answer?.days.at(-1) ?? null;
  const day = useAsked(() => (date === null ? Promise.resolve(null) : recordApi.inspectDay(token, date)), `${token} ${date ?? ''}`);
  return (
    <ScrollView role="main" tabIndex={0} style={{ flex: 1, backgroundColor: palette.ground }} contentContainerStyle={{ padding: 16, gap: 12, maxWidth: 900 }}>
      <Title>Temperature record</Title>
      {answer === null ? (
        <Body>{trouble ?? 'Opening…'}</Body>
      ) : (
        <>
          <Strong>{`${answer.kitchen.name}, ${answer.kitchen.place}${answer.kitchen.invented ? ' (invented)' : ''}`}</Strong>
          <Note>{`This link only reads, and ends on ${new Date(answer.expiresAt).toISOString().slice(0, 10)}.`}</Note>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, alignItems: 'flex-end' }}>
            <Pick label="Day" value={date ?? ''} options={[...answer.days].reverse().map((one) => ({ value: one, label: one }))} onPick={setPicked} />
            {['pdf', 'csv', 'json'].map((kind) => (
              <Action
                key={kind}
                label={kind.toUpperCase()}
                hint={`The day as ${kind.toUpperCase()}`}
                onPress={() => {
                  void Linking.openURL(`/api/inspect/${token}/${date ?? ''}/record.${kind}`);
                }}
              />
            ))}
          </View>
          {day.answer === null ? <Body>{day.trouble ?? 'Opening the day…'}</Body> : <RecordSheet record={day.answer} />}
        </>
      )}
    </ScrollView>
  );
}
