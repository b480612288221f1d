import * as advice from '@broth/contract/advice';
import type { OpenAction } from '@broth/core';
import { Pressable, View } from 'react-native';
import type { OpenDay } from '../../state/useDay';
import { TOUCH, usePalette } from '../../theme/theme';
import { StateMark } from '../../ui/StateMark';
import { Body } from '../../ui/Type';

/** What still has to be done about a batch; it stays until it is. */
export function OpenActions({ day, open, onOpen }: { readonly day: OpenDay; readonly open: readonly OpenAction[]; readonly onOpen: (batchId: string) => void }) {
  const palette = usePalette();
  return (
    <View role="group" aria-label="Open" style={{ gap: 8 }}>
      {open.map((one) => (
        <Pressable
          key={`${one.batchId} ${one.kind}`}
          role="button"
          aria-label={`${advice.openAction(one, day.names.batch(one.batchId), day.at)} Open it`}
          onPress={() => {
            onOpen(one.batchId);
          }}
          style={{
            minHeight: TOUCH,
            flexDirection: 'row',
            alignItems: 'center',
            gap: 10,
            padding: 12,
            borderRadius: 6,
            backgroundColor: palette.sheet,
            borderWidth: 2,
            borderColor: palette.stop,
          }}
        >
          <StateMark mark={one.kind === 'followUp' ? 'soon' : 'stop'} />
          <Body
            style={{ flex: 1 }}
          >{`${advice.openAction(one, day.names.batch(one.batchId), day.at)}${one.escalated ? ' It has been open for a while: the lead has to know.' : ''}`}</Body>
        </Pressable>
      ))}
    </View>
  );
}
