import type { ReactNode } from 'react';
import { Text } from 'react-native';
import type { StyleProp, TextStyle } from 'react-native';
import { BOLD, DISPLAY, SANS, usePalette } from '../theme/theme';

interface Props {
  readonly children: ReactNode;
  readonly style?: StyleProp<TextStyle>;
  readonly id?: string;
  readonly lines?: number;
}

/** Screen and soup names: the one characterful face. */
export function Title({ children, style, level = 1 }: Props & { readonly level?: 1 | 2 | 3 }) {
  const { ink } = usePalette();
  return (
    <Text role="heading" aria-level={level} style={[{ fontFamily: DISPLAY, fontSize: level === 1 ? 26 : 20, lineHeight: level === 1 ? 32 : 26, color: ink }, style]}>
      {children}
    </Text>
  );
}

/** The number that matters: 28 px or more. */
export function Figure({ children, style }: Props) {
  const { ink } = usePalette();
  return <Text style={[{ fontFamily: BOLD, fontSize: 30, lineHeight: 36, color: ink }, style]}>{children}</Text>;
}

export function Body({ children, style, id, lines }: Props) {
  const { ink } = usePalette();
  return (
    <Text nativeID={id} {...(lines === undefined ? {} : { numberOfLines: lines })} style={[{ fontFamily: SANS, fontSize: 16, lineHeight: 22, color: ink }, style]}>
      {children}
    </Text>
  );
}

export function Strong({ children, style, lines }: Props) {
  return (
    <Body {...(lines === undefined ? {} : { lines })} style={[{ fontFamily: BOLD }, style]}>
      {children}
    </Body>
  );
}

export function Note({ children, style, id }: Props) {
  const { muted } = usePalette();
  return (
    <Body {...(id === undefined ? {} : { id })} style={[{ fontSize: 14, lineHeight: 19, color: muted }, style]}>
      {children}
    </Body>
  );
}
