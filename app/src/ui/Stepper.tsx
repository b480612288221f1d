import { words } from '@broth/contract';
import { Pressable, Text, View } from 'react-native';
import { BOLD, TOUCH, usePalette } from '../theme/theme';
import { Figure, Note } from './Type';

interface Props {
  readonly label: string;
  readonly shown: string;
  readonly less: string;
  readonly more: string;
  readonly onStep: (direction: 1 | -1) => void;
}

function Stepper({ label, shown, less, more, onStep }: Props) {
  const palette = usePalette();
  const step = (name: string, face: string, direction: 1 | -1) => (
    <Pressable
      role="button"
      aria-label={`${name}, ${label}`}
      onPress={() => {
        onStep(direction);
      }}
      style={{ width: TOUCH, height: TOUCH, borderRadius: 6, borderWidth: 2, borderColor: palette.action, alignItems: 'center', justifyContent: 'center' }}
    >
      <Text style={{ fontFamily: BOLD, fontSize: 24, color: palette.ink }}>{face}</Text>
    </Pressable>
  );
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
      {step(less, '−', -1)}
      <View style={{ alignItems: 'center', minWidth: 128 }}>
        <Figure>{shown}</Figure>
        <Note>{label}</Note>
      </View>
      {step(more, '+', 1)}
    </View>
  );
}

const STEP_L = 0.5;

/** Litres by half-litre taps: what a kettle's scale shows. */
export function LitresStepper({ label, volumeL, onChange }: { readonly label: string; readonly volumeL: number; readonly onChange: (volumeL: number) => void }) {
  return (
    <Stepper
      label={label}
      shown={words.litres(volumeL)}
      less="Half a litre less"
      more="Half a litre more"
      onStep={(direction) => {
        onChange(Math.max(0, volumeL + direction * STEP_L));
      }}
    />
  );
}

/** Ice by half a kilogram. */
export function KilogramsStepper({ label, massKg, onChange }: { readonly label: string; readonly massKg: number; readonly onChange: (massKg: number) => void }) {
  return (
    <Stepper
      label={label}
      shown={`${words.number(massKg)} kg`}
      less="Half a kilogram less"
      more="Half a kilogram more"
      onStep={(direction) => {
        onChange(Math.max(0.5, massKg + direction * 0.5));
      }}
    />
  );
}

interface MinutesProps {
  readonly label: string;
  readonly durationMin: number;
  readonly stepMin: number;
  readonly mostMin: number;
  readonly onChange: (durationMin: number) => void;
}

export function MinutesStepper({ label, durationMin, stepMin, mostMin, onChange }: MinutesProps) {
  return (
    <Stepper
      label={label}
      shown={words.duration(durationMin)}
      less={`${words.duration(stepMin)} less`}
      more={`${words.duration(stepMin)} more`}
      onStep={(direction) => {
        onChange(Math.min(mostMin, Math.max(0, durationMin + direction * stepMin)));
      }}
    />
  );
}

interface CountProps {
  readonly label: string;
  readonly count: number;
  readonly step: number;
  readonly most: number;
  readonly onChange: (count: number) => void;
}

export function CountStepper({ label, count, step, most, onChange }: CountProps) {
  return (
    <Stepper
      label={label}
      shown={String(count)}
      less={`${String(step)} fewer`}
      more={`${String(step)} more`}
      onStep={(direction) => {
        onChange(Math.min(most, Math.max(0, count + direction * step)));
      }}
    />
  );
}
