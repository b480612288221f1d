import { parsePar, words } from '@broth/contract';
import { useEffect, useRef, useState } from 'react';
import { Pressable, Text, TextInput, View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import { BOLD, SANS, TOUCH, usePalette } from '../../theme/theme';
import { WhatIsWrong } from '../../ui/WhatIsWrong';

const STEP_L = 1;
/** Taps on a stepper that come quickly after each other are put as one. */
const SETTLE_MS = 500;

/** The par in litres: typed or stepped, saved when it is left or has settled. What was typed stays until it has been taken. */
export function ParField({ soupId, soupName, parL }: { readonly soupId: string; readonly soupName: string; readonly parL: number }) {
  const palette = usePalette();
  const putPar = useKitchen((state) => state.putPar);
  const [text, setText] = useState(words.number(parL));
  const [message, setMessage] = useState<string | null>(null);
  const editing = useRef(false);
  const settling = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(() => {
    if (!editing.current) setText(words.number(parL));
  }, [parL]);

  const save = async (value: string): Promise<void> => {
    if (settling.current !== null) clearTimeout(settling.current);
    const read = parsePar(value);
    if (!read.ok) {
      setMessage(read.message);
      return;
    }
    if (read.parL === parL) {
      editing.current = false;
      setMessage(null);
      setText(words.number(parL));
      return;
    }
    const trouble = await putPar(soupId, read.parL);
    setMessage(trouble);
    // Kept as typed until it is saved: the lead taps again when the line is back.
    editing.current = trouble !== null;
  };
  const step = (by: number): void => {
    const read = parsePar(text);
    const next = words.number(Math.max(0, (read.ok ? read.parL : parL) + by));
    editing.current = true;
    setText(next);
    if (settling.current !== null) clearTimeout(settling.current);
    settling.current = setTimeout(() => void save(next), SETTLE_MS);
  };
  const stepper = (label: string, face: string, by: number) => (
    <Pressable
      role="button"
      aria-label={`${label}, ${soupName}`}
      onPress={() => {
        step(by);
      }}
      style={({ pressed }) => ({
        width: TOUCH,
        height: TOUCH,
        borderRadius: 6,
        borderWidth: 2,
        borderColor: palette.action,
        alignItems: 'center',
        justifyContent: 'center',
        backgroundColor: pressed ? palette.hairline : palette.sheet,
      })}
    >
      <Text style={{ fontFamily: BOLD, fontSize: 24, color: palette.ink }}>{face}</Text>
    </Pressable>
  );
  const errorId = `par-error-${soupId}`;
  return (
    <View style={{ gap: 4 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        {stepper('One litre less', '−', -STEP_L)}
        <View style={{ flex: 1, justifyContent: 'center' }}>
          <TextInput
            aria-label={`Par, ${soupName}, litres`}
            aria-invalid={message !== null}
            aria-describedby={message === null ? undefined : errorId}
            inputMode="decimal"
            value={text}
            selectTextOnFocus
            onChangeText={(value) => {
              editing.current = true;
              setText(value);
            }}
            onBlur={() => void save(text)}
            onSubmitEditing={() => void save(text)}
            style={{
              height: TOUCH,
              minWidth: 64,
              paddingHorizontal: 40,
              borderRadius: 6,
              borderWidth: 2,
              borderColor: message === null ? palette.hairline : palette.stop,
              backgroundColor: palette.sheet,
              color: palette.ink,
              fontFamily: BOLD,
              fontSize: 28,
              textAlign: 'center',
            }}
          />
          <Text aria-hidden style={{ position: 'absolute', left: 14, fontFamily: SANS, fontSize: 15, color: palette.muted }}>
            Par
          </Text>
          <Text aria-hidden style={{ position: 'absolute', right: 14, fontFamily: BOLD, fontSize: 18, color: palette.muted }}>
            L
          </Text>
        </View>
        {stepper('One litre more', '+', STEP_L)}
      </View>
      <WhatIsWrong id={errorId} says={message} />
    </View>
  );
}
