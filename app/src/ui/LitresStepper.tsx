import { words } from '@broth/contract';
import { Pressable, Text, View } from 'react-native';
import { BOLD, TOUCH, usePalette } from '../theme/theme';
import { Figure, Note } from './Type';

const STEP_L = 0.5;

/** Litres by half-litre taps: what a kettle's scale shows. */
export function LitresStepper({ label, volumeL, onChange }: { readonly label: string; readonly volumeL: number; readonly onChange: (volumeL: number) => void }) {
  const palette = usePalette();
  const step = (name: string, face: string, by: number) => (
    <Pressable
      role="button"
      aria-label={`${name}, ${label}`}
      onPress={() => {
        onChange(Math.max(0, volumeL + by));
      }}
      style={{ width: TOUCH, height: TOUCH, borderRadius: 6, borderWidth: 2, borderColor: palette.action, alignItems: 'center', justifyContent: 'center' }}
    >
      <Text style={{ fontFamily: BOLD, fontSize: 24, color: palette.ink }}>{face}</Text>
    </Pressable>
  );
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
      {step('Half a litre less', '−', -STEP_L)}
      <View style={{ alignItems: 'center', minWidth: 92 }}>
        <Figure>{words.litres(volumeL)}</Figure>
        <Note>{label}</Note>
      </View>
      {step('Half a litre more', '+', STEP_L)}
    </View>
  );
}
