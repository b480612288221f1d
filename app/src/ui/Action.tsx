import { Pressable, Text, View } from 'react-native';
import type { StyleProp, ViewStyle } from 'react-native';
import { BOLD, TOUCH, usePalette } from '../theme/theme';

/** A button a wet hand can hit: 56 px high. `main` is the one thing to do here; `stop` is for what ends in the bin. */
export function Action({
  label,
  onPress,
  kind = 'plain',
  disabled = false,
  style,
  hint,
}: {
  readonly label: string;
  readonly onPress: () => void;
  readonly kind?: 'main' | 'plain' | 'stop';
  readonly disabled?: boolean;
  readonly style?: StyleProp<ViewStyle>;
  /** What a screen reader says instead of the label, when the label alone does not say which. */
  readonly hint?: string;
}) {
  const palette = usePalette();
  const ground = disabled ? palette.hairline : kind === 'main' ? palette.action : kind === 'stop' ? palette.stop : palette.sheet;
  const ink = disabled ? palette.ink : kind === 'main' ? palette.onAction : kind === 'stop' ? palette.onState : palette.ink;
  return (
    <Pressable
      role="button"
      aria-label={hint ?? label}
      disabled={disabled}
      onPress={onPress}
      style={({ pressed }) => [
        {
          minHeight: TOUCH,
          paddingHorizontal: 16,
          borderRadius: 6,
          borderWidth: 2,
          borderColor: kind === 'plain' && !disabled ? palette.action : ground,
          justifyContent: 'center',
          alignItems: 'center',
          backgroundColor: ground,
          opacity: pressed ? 0.75 : 1,
        },
        style,
      ]}
    >
      <Text style={{ fontFamily: BOLD, fontSize: 17, color: ink, textAlign: 'center' }}>{label}</Text>
    </Pressable>
  );
}

/** One choice of several, all in sight. */
export function Choice<Value extends string>({
  label,
  options,
  value,
  onPick,
}: {
  readonly label: string;
  readonly options: readonly { readonly value: Value; readonly label: string }[];
  readonly value: Value | null;
  readonly onPick: (value: Value) => void;
}) {
  const palette = usePalette();
  return (
    <View role="radiogroup" aria-label={label} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
      {options.map((option) => {
        const picked = option.value === value;
        return (
          <Pressable
            key={option.value}
            role="radio"
            aria-checked={picked}
            onPress={() => {
              onPick(option.value);
            }}
            style={{
              minHeight: TOUCH,
              paddingHorizontal: 16,
              justifyContent: 'center',
              borderRadius: 6,
              borderWidth: 2,
              borderColor: palette.action,
              backgroundColor: picked ? palette.action : palette.sheet,
            }}
          >
            <Text style={{ fontFamily: BOLD, fontSize: 16, color: picked ? palette.onAction : palette.ink }}>{option.label}</Text>
          </Pressable>
        );
      })}
    </View>
  );
}
