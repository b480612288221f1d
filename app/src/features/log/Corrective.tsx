import { words } from '@broth/contract';
import type { BatchRecord, CorrectiveAction, Standing } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import { Action } from '../../ui/Action';
import { Field } from '../../ui/Field';
import { LitresStepper } from '../../ui/Stepper';
import { Note, Strong } from '../../ui/Type';

/** What the rule allows, as taps. Each asks for a reason; discarding also asks for the litres, and leaves nothing of the batch on hand. */
export function Corrective({ batch, standing }: { readonly batch: BatchRecord; readonly standing: Standing }) {
  const record = useKitchen((state) => state.record);
  const [picked, setPicked] = useState<CorrectiveAction | null>(null);
  const [note, setNote] = useState('');
  const [volumeL, setVolumeL] = useState(batch.volumeOutL ?? batch.volumeL);
  const { batchId } = batch;
  if (standing.actions.length === 0 || batch.stage.kind === 'discarded') return null;
  const confirm = (): void => {
    if (picked === null) return;
    record([{ kind: 'corrective.taken/1', data: { batchId, ruleId: standing.ruleId, action: picked, note, volumeL: picked === 'discard' ? volumeL : null } }]);
    setPicked(null);
    setNote('');
  };
  return (
    <View style={{ gap: 8 }} role="group" aria-label="Corrective action">
      <Strong>{standing.kind === 'fail' || standing.kind === 'undetermined' ? 'What to do now' : 'If it is behind'}</Strong>
      {standing.actions.map((action) => (
        <View key={action} style={{ gap: 4 }}>
          <Note>{words.ACTION[action].how}</Note>
          {picked === action ? null : (
            <Action
              kind={action === 'discard' ? 'stop' : 'plain'}
              label={words.ACTION[action].name}
              onPress={() => {
                setPicked(action);
              }}
            />
          )}
        </View>
      ))}
      {picked === null ? null : (
        <View style={{ gap: 8 }}>
          <Field label="What happened, and why" value={note} onChange={setNote} />
          {picked === 'discard' ? <LitresStepper label="litres discarded" volumeL={volumeL} onChange={setVolumeL} /> : null}
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <Action
              style={{ flex: 1 }}
              label="Not yet"
              onPress={() => {
                setPicked(null);
              }}
            />
            <Action style={{ flex: 2 }} kind={picked === 'discard' ? 'stop' : 'main'} label={`Record: ${words.ACTION[picked].name.toLowerCase()}`} onPress={confirm} />
          </View>
        </View>
      )}
    </View>
  );
}

/** What the readings do not prove is the lead's to decide, in writing; nothing makes a pass of it. */
export function Decision({ batch, standing, isLead }: { readonly batch: BatchRecord; readonly standing: Standing; readonly isLead: boolean }) {
  const record = useKitchen((state) => state.record);
  const [reason, setReason] = useState('');
  const { batchId } = batch;
  const decide = (keep: boolean): void => {
    const decision = { kind: 'decision.made/1', data: { batchId, ruleId: standing.ruleId, keep, reason } } as const;
    const volumeL = batch.volumeOutL ?? batch.volumeL;
    const discard = { kind: 'corrective.taken/1', data: { batchId, ruleId: standing.ruleId, action: 'discard', note: reason, volumeL } } as const;
    record(keep ? [decision] : [decision, discard]);
    setReason('');
  };
  if (!isLead) return <Note>The lead decides: keep it or not, with a reason. Until then it is not served.</Note>;
  return (
    <View role="group" aria-label="The lead's decision" style={{ gap: 8 }}>
      <Strong>{"The lead's decision"}</Strong>
      <Field label="Why it may be kept, or not" value={reason} onChange={setReason} />
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Action
          style={{ flex: 1 }}
          disabled={reason.trim() === ''}
          label="Keep it"
          onPress={() => {
            decide(true);
          }}
        />
        <Action
          style={{ flex: 1 }}
          kind="stop"
          disabled={reason.trim() === ''}
          label="Discard it"
          onPress={() => {
            decide(false);
          }}
        />
      </View>
    </View>
  );
}
