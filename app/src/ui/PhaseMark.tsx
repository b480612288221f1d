import type { Phase } from '@broth/core';
import { memo } from 'react';
import Svg, { Path } from 'react-native-svg';

/** One small glyph a phase, drawn for this app on a 24 × 24 grid, one stroke width. */
export const PHASE_PATHS: Readonly<Record<Phase, string>> = {
  gather: 'M4 10h16l-2 10H6z M8 10l3-6 M16 10l-3-6',
  prep: 'M3 21l5-5 M8 16L19 4c2.500 2.500 2.500 6-1 9l-5.500 4.500z',
  roast: 'M4 5h16v14H4z M7 9h10 M7 15.500c1.500-2 2.500-2 3.300 0s2 2 3.400 0 2-2 3.300 0',
  sweat: 'M3 14h13l5-3 M4 14c0 4 2 5 6 5s6-1 6-5 M8 10V7 M12 10V5',
  boil: 'M5 20c-2-4 3-5 1-9 M12 20c-2-5 3-6 1-12 M19 20c-2-4 3-5 1-9',
  simmer: 'M4 16c2.700-2 5.300-2 8 0s5.300 2 8 0 M7 10h.01 M12 8h.01 M17 10h.01',
  blend: 'M12 12m0-1.500a1.500 1.500 0 1 1-1.500 1.500c0-3 2.500-4.500 5-3.500 3 1.300 3.500 5 1.500 7.500-2.500 3-8 2.800-10-.5C4.500 11 7 5 12.500 4.500',
  finish: 'M12 3c4 5 6 8 6 11a6 6 0 0 1-12 0c0-3 2-6 6-11z',
  hold: 'M4 9h16 M6 9v8a3 3 0 0 0 3 3h6a3 3 0 0 0 3-3V9 M12 2v4',
  cool: 'M4 5h5v5h5v5h6v5',
  freeze: 'M12 3v18 M4.200 7.500l15.600 9 M19.800 7.500l-15.600 9',
  reheat: 'M12 20V7 M6 12l6-7 6 7 M5 21h14',
  wash: 'M4 18L10 6 M9 18l6-12 M14 18l6-12',
};

export const PhaseMark = memo(function PhaseMark({ phase, color, size = 24 }: { readonly phase: Phase; readonly color: string; readonly size?: number }) {
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden>
      <Path d={PHASE_PATHS[phase]} fill="none" stroke={color} strokeWidth={2.2} strokeLinecap="round" strokeLinejoin="round" />
    </Svg>
  );
});
