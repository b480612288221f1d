import { memo } from 'react';
import { View } from 'react-native';
import Svg, { Circle, Path } from 'react-native-svg';
import type { VerdictKind } from '@broth/core';
import { usePalette } from '../theme/theme';
import { Strong } from './Type';

export type Mark = 'fine' | 'soon' | 'stop' | 'open';

/** Which mark a verdict wears. Not proven is a stop: it is never shown as fine. */
export function markOf(kind: VerdictKind): Mark {
  switch (kind) {
    case 'pass':
      return 'fine';
    case 'inProgress':
    case 'notApplicable':
      return 'open';
    case 'overdue':
      return 'soon';
    case 'undetermined':
    case 'fail':
      return 'stop';
  }
}

/** State is told three times: by shape, by word, by tone. Dot = fine, triangle = act soon, octagon = stop, ring = on the clock. */
export const StateMark = memo(function StateMark({ mark, word, size = 22 }: { readonly mark: Mark; readonly word?: string; readonly size?: number }) {
  const palette = usePalette();
  const tone = { fine: palette.fine, soon: palette.soon, stop: palette.stop, open: palette.muted }[mark];
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
      <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden>
        {mark === 'fine' ? <Circle cx={12} cy={12} r={9} fill={tone} /> : null}
        {mark === 'open' ? <Circle cx={12} cy={12} r={8} fill="none" stroke={tone} strokeWidth={3.5} /> : null}
        {mark === 'soon' ? <Path d="M12 2.5L23 21.5H1z M11 9v6h2V9z M11 16.6v2.2h2v-2.2z" fill={tone} fillRule="evenodd" /> : null}
        {mark === 'stop' ? <Path d="M7.5 1.5h9L22.5 7.5v9l-6 6h-9l-6-6v-9z M6 10.5v3h12v-3z" fill={tone} fillRule="evenodd" /> : null}
      </Svg>
      {word === undefined ? null : <Strong style={{ color: tone, fontSize: 15 }}>{word}</Strong>}
    </View>
  );
});
