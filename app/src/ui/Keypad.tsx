import type { ReactNode } from 'react';
import { Pressable, Text, View } from 'react-native';
import { BOLD, TOUCH, usePalette } from '../theme/theme';

const KEYS = [
  ['1', '2', '3'],
  ['4', '5', '6'],
  ['7', '8', '9'],
] as const;

/** What one key does to what was typed. Signs toggle, a second point is ignored, more than six characters are not a temperature. */
export function typed(text: string, key: string): string {
  if (key === 'delete') return text.slice(0, -1);
  if (key === 'sign') return text.startsWith('-') ? text.slice(1) : `-${text}`;
  if (key === '.') return text.includes('.') ? text : `${text === '' || text === '-' ? `${text}0` : text}.`;
  return text.length >= 6 ? text : text + key;
}

const NAMES: Readonly<Record<string, string>> = { sign: 'Minus', '.': 'Point' };
const FACES: Readonly<Record<string, string>> = { sign: '±', '.': '.' };

/** A keypad for wet hands: big keys, no system keyboard. `children` stand beside the digits, under the key that takes one back: what is done with them. */
export function Keypad({ text, onType, children }: { readonly text: string; readonly onType: (text: string) => void; readonly children?: ReactNode }) {
  const palette = usePalette();
  const rows = [...KEYS, ['sign', '0', '.'] as const];
  const key = (name: string) => (
    <Pressable
      key={name}
      role="button"
      aria-label={NAMES[name] ?? name}
      onPress={() => {
        onType(typed(text, name));
      }}
      style={({ pressed }) => ({
        flex: 1,
        minHeight: TOUCH,
        borderRadius: 6,
        alignItems: 'center',
        justifyContent: 'center',
        backgroundColor: pressed ? palette.hairline : palette.key,
        borderBottomWidth: 3,
        borderBottomColor: palette.hairline,
      })}
    >
      <Text style={{ fontFamily: BOLD, fontSize: 28, color: palette.ink }}>{FACES[name] ?? name}</Text>
    </Pressable>
  );
  return (
    <View style={{ flexDirection: 'row', gap: 8 }}>
      <View style={{ flex: 3, gap: 8 }}>
        {rows.map((row) => (
          <View key={row.join('')} style={{ flexDirection: 'row', gap: 8 }}>
            {row.map(key)}
          </View>
        ))}
      </View>
      <View style={{ flex: 1, gap: 8 }}>
        <DeleteKey text={text} onType={onType} />
        {children}
      </View>
    </View>
  );
}

/** Takes the last digit back. */
function DeleteKey({ text, onType }: { readonly text: string; readonly onType: (text: string) => void }) {
  const palette = usePalette();
  return (
    <Pressable
      role="button"
      aria-label="Delete last digit"
      disabled={text === ''}
      onPress={() => {
        onType(typed(text, 'delete'));
      }}
      style={{ minHeight: TOUCH + 3, alignItems: 'center', justifyContent: 'center' }}
    >
      <Text style={{ fontFamily: BOLD, fontSize: 26, color: text === '' ? palette.muted : palette.ink }}>⌫</Text>
    </Pressable>
  );
}
