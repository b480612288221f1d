import { useId } from 'react';
import { Pressable, Text, TextInput, View } from 'react-native';
import { BOLD, SANS, TOUCH, usePalette } from '../theme/theme';
import { Body } from './Type';
import { WhatIsWrong } from './WhatIsWrong';

interface FieldProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly onBlur?: () => void;
  readonly onSubmit?: () => void;
  readonly message?: string | null | undefined;
  readonly hint?: string;
  readonly lines?: number;
  readonly numeric?: boolean;
  readonly width?: number;
  /** What a screen reader says when the label alone does not say which. */
  readonly name?: string;
}

/** A labelled field with its error tied to it and spoken. */
export function Field({ label, value, onChange, onBlur, onSubmit, message = null, hint, lines = 1, numeric = false, width, name }: FieldProps) {
  const palette = usePalette();
  const id = useId();
  const described = message !== null ? `${id}-error` : hint === undefined ? undefined : `${id}-hint`;
  return (
    <View style={width === undefined ? { flex: 1, minWidth: 120, gap: 2 } : { width, gap: 2 }}>
      <Text style={{ fontFamily: BOLD, fontSize: 14, color: palette.muted }}>{label}</Text>
      <TextInput
        aria-label={name ?? label}
        aria-invalid={message !== null}
        aria-describedby={described}
        inputMode={numeric ? 'decimal' : 'text'}
        multiline={lines > 1}
        numberOfLines={lines}
        value={value}
        onChangeText={onChange}
        onBlur={onBlur}
        onSubmitEditing={onSubmit}
        style={{
          minHeight: lines > 1 ? lines * 24 + 20 : 48,
          paddingHorizontal: 10,
          paddingVertical: lines > 1 ? 8 : 0,
          borderRadius: 6,
          borderWidth: 2,
          borderColor: message === null ? palette.hairline : palette.stop,
          backgroundColor: palette.sheet,
          color: palette.ink,
          fontFamily: SANS,
          fontSize: 17,
        }}
      />
      {hint === undefined || message !== null ? null : (
        <Body id={`${id}-hint`} style={{ fontSize: 14, color: palette.muted }}>
          {hint}
        </Body>
      )}
      <WhatIsWrong id={`${id}-error`} says={message} />
    </View>
  );
}

interface PickProps<Value extends string> {
  readonly label: string;
  readonly value: Value;
  readonly options: readonly { readonly value: Value; readonly label: string }[];
  readonly onPick: (value: Value) => void;
  readonly width?: number;
  readonly name?: string;
}

/** One of many, by the phone's own wheel: the fastest list there is on a touch screen, and a keyboard knows it too. */
export function Pick<Value extends string>({ label, value, options, onPick, width, name }: PickProps<Value>) {
  const palette = usePalette();
  return (
    <View style={width === undefined ? { flex: 1, minWidth: 120, gap: 2 } : { width, gap: 2 }}>
      <Text style={{ fontFamily: BOLD, fontSize: 14, color: palette.muted }}>{label}</Text>
      <select
        aria-label={name ?? label}
        value={value}
        onChange={(event) => {
          const picked = options.find((option) => option.value === event.target.value);
          if (picked !== undefined) onPick(picked.value);
        }}
        style={{
          height: 48,
          paddingLeft: 8,
          borderRadius: 6,
          border: `2px solid ${palette.hairline}`,
          backgroundColor: palette.sheet,
          color: palette.ink,
          fontFamily: SANS,
          fontSize: 17,
          width: '100%',
        }}
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </View>
  );
}

/** Several of a few: each a switch of its own. */
export function Toggles<Value extends string>({
  label,
  options,
  value,
  onChange,
}: {
  readonly label: string;
  readonly options: readonly { readonly value: Value; readonly label: string }[];
  readonly value: readonly Value[];
  readonly onChange: (value: readonly Value[]) => void;
}) {
  const palette = usePalette();
  return (
    <View role="group" aria-label={label} style={{ gap: 4 }}>
      <Text style={{ fontFamily: BOLD, fontSize: 14, color: palette.muted }}>{label}</Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {options.map((option) => {
          const on = value.includes(option.value);
          return (
            <Pressable
              key={option.value}
              role="checkbox"
              aria-checked={on}
              aria-label={option.label}
              onPress={() => {
                onChange(on ? value.filter((one) => one !== option.value) : [...value, option.value]);
              }}
              style={{
                minHeight: 44,
                paddingHorizontal: 12,
                justifyContent: 'center',
                borderRadius: 6,
                borderWidth: 2,
                borderColor: on ? palette.action : palette.hairline,
                backgroundColor: on ? palette.action : palette.sheet,
              }}
            >
              <Text style={{ fontFamily: BOLD, fontSize: 15, color: on ? palette.onAction : palette.ink }}>{option.label}</Text>
            </Pressable>
          );
        })}
      </View>
    </View>
  );
}

/** A tick of a list: large enough for a wet thumb, the whole row is the target. */
export function Tick({ label, done, onPress, children }: { readonly label: string; readonly done: boolean; readonly onPress: () => void; readonly children: React.ReactNode }) {
  const palette = usePalette();
  return (
    <Pressable role="checkbox" aria-checked={done} aria-label={label} onPress={onPress} style={{ flexDirection: 'row', alignItems: 'center', gap: 10, minHeight: TOUCH - 4 }}>
      <View
        style={{
          width: 30,
          height: 30,
          borderRadius: 5,
          borderWidth: 3,
          borderColor: palette.action,
          backgroundColor: done ? palette.action : 'transparent',
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        <Text style={{ fontFamily: BOLD, fontSize: 19, lineHeight: 22, color: palette.onAction }}>{done ? '✓' : ''}</Text>
      </View>
      <View style={{ flex: 1, opacity: done ? 0.85 : 1 }}>{children}</View>
    </Pressable>
  );
}
