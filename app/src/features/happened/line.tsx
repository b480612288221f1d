import type { ReactNode } from 'react';
import { View } from 'react-native';
import type { NewEvent } from '../../state/kitchen';
import { Note, Strong } from '../../ui/Type';

export type Do = (events: readonly NewEvent[]) => void;

/** One thing or person, what there is to say, and the tap. */
export function Line({ head, note, children }: { readonly head: string; readonly note: string; readonly children: ReactNode }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10, minHeight: 56 }}>
      <View style={{ flex: 1 }}>
        <Strong>{head}</Strong>
        {note === '' ? null : <Note>{note}</Note>}
      </View>
      {children}
    </View>
  );
}
