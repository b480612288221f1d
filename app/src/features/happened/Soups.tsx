import { words } from '@broth/contract';
import { TASTE_RESULTS, TEXTURE_RESULTS } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';
import { Action, Choice } from '../../ui/Action';
import { Field, Pick } from '../../ui/Field';
import { CountStepper } from '../../ui/Stepper';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { Line } from './line';
import type { Do } from './line';

const GUESTS_STEP = 10;

/** A party that was not expected: its portions go onto the par, and the day is planned anew. */
export function MoreGuests({ day }: { readonly day: OpenDay }) {
  const [soupId, setSoupId] = useState('');
  const [portions, setPortions] = useState(60);
  const [says, setSays] = useState<string | null>(null);
  const putPar = useKitchen((state) => state.putPar);
  const pars = day.view.pars.filter((par) => day.soupById.get(par.soupId)?.role === 'soup');
  const par = pars.find((one) => one.soupId === soupId);
  const moreL = (portions * (day.soupById.get(soupId)?.portionMl ?? 0)) / 1000;
  return (
    <Sheet label="More guests">
      <Title level={2}>More guests</Title>
      <Pick
        label="Of which soup"
        value={soupId}
        options={[{ value: '', label: 'pick one' }, ...pars.map((one) => ({ value: one.soupId, label: day.names.soup(one.soupId) }))]}
        onPick={setSoupId}
      />
      <CountStepper label="portions more" count={portions} step={GUESTS_STEP} most={500} onChange={setPortions} />
      {par === undefined ? null : <Body>{`${words.litres(moreL)} more: the par goes from ${words.litres(par.parL)} to ${words.litres(par.parL + moreL)}.`}</Body>}
      <Action
        kind="main"
        label="Raise the par"
        disabled={par === undefined || portions === 0}
        onPress={() => {
          if (par !== undefined)
            void putPar(par.soupId, Math.round((par.parL + moreL) * 10) / 10).then((wrong) => {
              setSays(wrong ?? 'Raised. Now says what it does to the day.');
            });
        }}
      />
      {says === null ? null : <Note>{says}</Note>}
    </Sheet>
  );
}

/** A batch that is lost: it is thrown away with its litres and the reason, and what it was for is planned anew. */
export function Lost({ day, onDo }: { readonly day: OpenDay; readonly onDo: Do }) {
  const [losing, setLosing] = useState<string | null>(null);
  const running = Object.values(day.state.batches).filter((batch) => batch.stage.kind !== 'discarded');
  if (running.length === 0) return null;
  return (
    <Sheet label="A batch is lost">
      <Title level={2}>A batch is lost</Title>
      <Note>It goes into the bin and the record; what it was for is planned anew.</Note>
      {running.map((batch) => (
        <View key={batch.batchId} style={{ gap: 6 }}>
          <Line head={batch.name} note={words.litres(batch.volumeOutL ?? batch.volumeL)}>
            <Action
              label="Lost"
              hint={`${batch.name} is lost`}
              onPress={() => {
                setLosing(losing === batch.batchId ? null : batch.batchId);
              }}
            />
          </Line>
          {losing === batch.batchId ? (
            <Choice
              label={`What happened to ${batch.name}`}
              value={null}
              options={words.LOST_REASONS.map((reason) => ({ value: reason, label: reason }))}
              onPick={(note) => {
                setLosing(null);
                onDo([
                  {
                    kind: 'corrective.taken/1',
                    data: { batchId: batch.batchId, ruleId: words.LOST_RULE, action: 'discard', note, volumeL: batch.volumeOutL ?? batch.volumeL },
                  },
                ]);
              }}
            />
          ) : null}
        </View>
      ))}
    </Sheet>
  );
}

/** How a batch came out, and why where it went wrong. */
export function Result({ day, onDo }: { readonly day: OpenDay; readonly onDo: Do }) {
  const batches = Object.values(day.state.batches);
  const [picked, setPicked] = useState('');
  const [cause, setCause] = useState('');
  const batch = batches.find((one) => one.batchId === picked);
  if (batches.length === 0) return null;
  const last = batch?.results.at(-1);
  return (
    <Sheet label="How it came out">
      <Title level={2}>How it came out</Title>
      <Pick label="Batch" value={picked} options={[{ value: '', label: 'pick one' }, ...batches.map((one) => ({ value: one.batchId, label: one.name }))]} onPick={setPicked} />
      {batch === undefined ? null : (
        <>
          <Field label="Cause, where it went wrong" value={cause} onChange={setCause} />
          <Strong>Texture</Strong>
          <Choice
            label="Texture"
            value={last?.texture ?? null}
            options={TEXTURE_RESULTS.map((value) => ({ value, label: words.TEXTURE_RESULT[value] }))}
            onPick={(texture) => {
              onDo([{ kind: 'result.noted/1', data: { batchId: batch.batchId, texture, taste: last?.taste ?? null, cause } }]);
            }}
          />
          <Strong>Taste</Strong>
          <Choice
            label="Taste"
            value={last?.taste ?? null}
            options={TASTE_RESULTS.map((value) => ({ value, label: words.TASTE_RESULT[value] }))}
            onPick={(taste) => {
              onDo([{ kind: 'result.noted/1', data: { batchId: batch.batchId, texture: last?.texture ?? null, taste, cause } }]);
            }}
          />
        </>
      )}
    </Sheet>
  );
}
