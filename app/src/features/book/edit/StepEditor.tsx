import * as soupWords from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { usualStep } from '@broth/contract/formats';
import { CLOCKS, HEATS, LIDS, PHASES } from '@broth/core';
import type { Place, Step } from '@broth/core';
import { useFormContext, useWatch } from 'react-hook-form';
import { View } from 'react-native';
import { Action } from '../../../ui/Action';
import { Pick, Toggles } from '../../../ui/Field';
import { NumberOf, PickOf, TextOf } from './form';
import type { SoupForm } from './form';

const PLACES: readonly { readonly value: string; readonly label: string; readonly place: Place }[] = [
  { value: 'bench', label: 'at the bench', place: { kind: 'bench' } },
  { value: 'vessel', label: 'in the kettle or pot', place: { kind: 'vessel' } },
  { value: 'oven', label: 'in the oven', place: { kind: 'oven', temperatureC: 220 } },
  { value: 'jar', label: 'in the jar blender', place: { kind: 'blender', tool: 'jar' } },
  { value: 'immersion', label: 'immersion blender', place: { kind: 'blender', tool: 'immersion' } },
];

/** One step of the way, opened: what hands do, where, how long, when it is done, what to beware of and why. */
export function StepEditor({
  index,
  last,
  onMove,
  onRemove,
  onClose,
}: {
  readonly index: number;
  readonly last: number;
  readonly onMove: (to: number) => void;
  readonly onRemove: () => void;
  readonly onClose: () => void;
}) {
  const form = useFormContext<SoupForm>();
  const at = `steps.${String(index)}` as `steps.${number}`;
  const step = useWatch({ control: form.control, name: at }) as Step;
  const set = (values: Partial<Step>): void => {
    form.setValue(at, { ...form.getValues(at), ...values }, { shouldDirty: true, shouldValidate: form.formState.isSubmitted });
  };
  const row = { flexDirection: 'row', flexWrap: 'wrap', gap: 8 } as const;
  const placeKey = step.place.kind === 'blender' ? step.place.tool : step.place.kind;
  return (
    <View style={{ gap: 10, paddingVertical: 8 }}>
      <View style={row}>
        <TextOf path={`${at}.name`} label="What hands do" lines={2} />
      </View>
      <View style={row}>
        <Pick
          label="Phase"
          value={step.phase}
          options={PHASES.map((value) => ({ value, label: words.PHASE[value] }))}
          onPick={(phase) => {
            // What is usual at the new phase, but what was written stays.
            const usual = usualStep(phase, step.id, step.name);
            set({ ...usual, check: step.check ?? usual.check, duration: step.duration });
          }}
        />
        <Pick
          label="Where"
          value={placeKey}
          options={PLACES}
          onPick={(picked) => {
            const found = PLACES.find((one) => one.value === picked);
            if (found !== undefined) set({ place: found.place });
          }}
        />
        <PickOf
          path={`${at}.attention`}
          label="Needs"
          options={[
            { value: 'hands', label: 'hands on it' },
            { value: 'looks', label: 'a look now and then' },
            { value: 'none', label: 'nobody' },
          ]}
        />
      </View>
      <View style={row}>
        <NumberOf path={`${at}.duration.lowMin`} label="Minutes, from" width={108} />
        <NumberOf path={`${at}.duration.highMin`} label="to" width={108} />
        <NumberOf path={`${at}.duration.perLitreMin`} label="and a litre" width={108} />
        <PickOf path={`${at}.clockFrom`} label="The clock runs" options={CLOCKS.map((value) => ({ value, label: soupWords.CLOCK_FROM[value] }))} />
      </View>
      <View style={row}>
        <PickOf path={`${at}.heat`} label="Heat" width={108} options={HEATS.map((value) => ({ value, label: soupWords.HEAT[value] }))} />
        <PickOf path={`${at}.lid`} label="Lid" width={108} options={LIDS.map((value) => ({ value, label: soupWords.LID[value] }))} />
        <NumberOf path={`${at}.lookEveryMin`} label="Look every, min" orNull width={120} />
        <NumberOf path={`${at}.maxWaitMin`} label="May wait after, min" orNull />
        {step.phase === 'blend' ? <NumberOf path={`${at}.blendShare`} label="Of the pot, %" factor={100} width={120} /> : null}
        {step.place.kind === 'oven' ? <NumberOf path={`${at}.place.temperatureC`} label="Oven, °C" orNull width={120} /> : null}
      </View>
      <View style={row}>
        <TextOf path={`${at}.check`} label="Done when" orNull />
        <TextOf path={`${at}.caution`} label="Beware" orNull />
      </View>
      <View style={row}>
        <TextOf path={`${at}.why`} label="Why, in one line" />
      </View>
      <Toggles
        label="Once done"
        options={[{ value: 'irreversible', label: 'cannot be undone' }]}
        value={step.irreversible ? ['irreversible'] : []}
        onChange={(on) => {
          set({ irreversible: on.length > 0 });
        }}
      />
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Action
          style={{ flex: 1 }}
          label="Earlier"
          disabled={index === 0}
          onPress={() => {
            onMove(index - 1);
          }}
        />
        <Action
          style={{ flex: 1 }}
          label="Later"
          disabled={index === last}
          onPress={() => {
            onMove(index + 1);
          }}
        />
      </View>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Action label="Take the step away" onPress={onRemove} />
        <Action kind="main" style={{ flex: 1 }} label="Close the step" onPress={onClose} />
      </View>
    </View>
  );
}
