import { words } from '@broth/contract';
import type { Gate } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import type { OpenDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { Tick } from '../../ui/Field';
import { Body, Strong } from '../../ui/Type';

interface Props {
  readonly day: OpenDay;
  readonly gates: readonly Gate[];
  /** What the last tap does: `Start Beetroot 1`. */
  readonly then: string;
  readonly onPass: () => void;
  readonly onBack: () => void;
}

/** What is asked before a tap does what it says: one line each, ticked as it is seen; with one line a single tap is enough. */
export function GateList({ day, gates, then, onPass, onBack }: Props) {
  const [seen, setSeen] = useState<ReadonlySet<number>>(new Set());
  const single = gates.length === 1;
  return (
    <View role="group" aria-label={`Before: ${then}`} style={{ gap: 8 }}>
      <Strong>First:</Strong>
      {gates.map((gate, index) =>
        single ? (
          <Body key={gate.kind}>{words.gate(gate, day.names)}</Body>
        ) : (
          <Tick
            key={`${gate.kind} ${String(index)}`}
            label={words.gate(gate, day.names)}
            done={seen.has(index)}
            onPress={() => {
              setSeen((was) => new Set(was.has(index) ? [...was].filter((one) => one !== index) : [...was, index]));
            }}
          >
            <Body>{words.gate(gate, day.names)}</Body>
          </Tick>
        ),
      )}
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Action label="Not yet" onPress={onBack} />
        <Action
          style={{ flex: 1 }}
          kind="main"
          label={single ? `Yes: ${then.charAt(0).toLowerCase()}${then.slice(1)}` : then}
          disabled={!single && seen.size < gates.length}
          onPress={onPass}
        />
      </View>
    </View>
  );
}
