import { words } from '@broth/contract';
import type { SheetLine } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import type { NewEvent } from '../../state/kitchen';
import { Action, Choice } from '../../ui/Action';
import { Body, Note, Strong } from '../../ui/Type';
import { tickEvent } from './taskEvents';

interface Props {
  readonly batchId: string;
  readonly name: string;
  readonly lines: readonly SheetLine[];
  readonly onDo: (events: readonly NewEvent[], says: string) => void;
}

function amountOf(line: SheetLine): string {
  return line.amount === null ? 'by eye' : words.amountText(line.amount, line.unit);
}

/** The serve gate: what of the card nobody has ticked. It went in, or it is left out with a reason; then the batch may go. */
export function OpenLines({ batchId, name, lines, onDo }: Props) {
  const [leaving, setLeaving] = useState<string | null>(null);
  const [each, setEach] = useState(false);
  const many = lines.length > 1 && !each;
  return (
    <View role="group" aria-label={`Open lines of ${name}`} style={{ gap: 8 }}>
      <Strong>{`Before it goes out. Not ticked: ${words.list(lines.map((line) => line.name))}.`}</Strong>
      {many ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <Action
            label="One by one"
            onPress={() => {
              setEach(true);
            }}
          />
          <Action
            style={{ flexGrow: 1 }}
            kind="main"
            label={`All ${String(lines.length)} went in`}
            hint={`All ${String(lines.length)} open lines of ${name} went in`}
            onPress={() => {
              onDo(
                lines.map((line) => tickEvent(batchId, line)),
                `${String(lines.length)} lines of ${name} are in.`,
              );
            }}
          />
        </View>
      ) : null}
      {(many ? [] : lines).map((line) => (
        <View key={line.ingredientId} style={{ gap: 6 }}>
          <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
            <Body style={{ flex: 1 }}>{`${amountOf(line)} ${line.name}`}</Body>
            <Action
              label="It is in"
              hint={`${line.name} is in`}
              onPress={() => {
                onDo([tickEvent(batchId, line)], `${line.name} is in.`);
              }}
            />
            <Action
              label="Left out"
              hint={`${line.name} was left out`}
              onPress={() => {
                setLeaving(leaving === line.ingredientId ? null : line.ingredientId);
              }}
            />
          </View>
          {leaving === line.ingredientId ? (
            <Choice
              label={`Why ${line.name} was left out`}
              value={null}
              options={words.WAIVE_REASONS.map((reason) => ({ value: reason, label: reason }))}
              onPick={(reason) => {
                setLeaving(null);
                onDo([{ kind: 'ingredient.waived/1', data: { batchId, ingredientId: line.ingredientId, reason } }], `${line.name} left out.`);
              }}
            />
          ) : null}
        </View>
      ))}
      <Note>A line that nobody ticks is what the guest misses.</Note>
    </View>
  );
}
