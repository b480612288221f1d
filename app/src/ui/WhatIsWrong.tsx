import { useEffect } from 'react';
import { View } from 'react-native';
import { usePalette } from '../theme/theme';
import { Body } from './Type';

/** What is wrong with what was typed: spoken, and brought into sight where a field at the foot of a page would hide it. `id` is what the field says it is described by. */
export function WhatIsWrong({ id, says }: { readonly id: string; readonly says: string | null }) {
  const palette = usePalette();
  useEffect(() => {
    if (says !== null) document.getElementById(id)?.scrollIntoView({ block: 'nearest' });
  }, [id, says]);
  return (
    <View aria-live="polite">
      {says === null ? null : (
        <Body id={id} style={{ fontSize: 15, color: palette.stop }}>
          {says}
        </Body>
      )}
    </View>
  );
}
