import type { ReactNode } from 'react';
import { View } from 'react-native';
import type { StyleProp, ViewStyle } from 'react-native';
import { usePalette } from '../theme/theme';

/** A panel: enamel with a rim along its top edge, like the lip of a pot. The rim takes a soup's tone when the panel is about one soup. */
export function Sheet({
  children,
  rim,
  style,
  label,
}: {
  readonly children: ReactNode;
  readonly rim?: string | undefined;
  readonly style?: StyleProp<ViewStyle>;
  readonly label?: string;
}) {
  const palette = usePalette();
  return (
    <View
      {...(label === undefined ? {} : { role: 'group', 'aria-label': label })}
      style={[{ backgroundColor: palette.sheet, borderTopWidth: 5, borderTopColor: rim ?? palette.rim, borderRadius: 6, padding: 14, gap: 8 }, style]}
    >
      {children}
    </View>
  );
}
