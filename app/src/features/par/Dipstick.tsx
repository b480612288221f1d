import { words } from '@broth/contract';
import type { Need } from '@broth/core';
import { View } from 'react-native';
import Svg, { Line, Path, Rect } from 'react-native-svg';
import { usePalette } from '../../theme/theme';
import { edgeOf } from '../../theme/tone';
import { dipstick } from './dipstickGeometry';

const LENGTH = 300;
const HEIGHT = 26;

/** On hand (solid), to make (hatched) and the par (a notch): the sum of the morning in one look. */
export function Dipstick({ need, toneHex, scaleL }: { readonly need: Need; readonly toneHex: string; readonly scaleL: number }) {
  const palette = usePalette();
  const stick = dipstick(need, scaleL);
  const label = `Par ${words.litres(need.parL)}: ${words.litres(need.onHandL)} on hand, ${words.litres(need.needL)} to make`;
  return (
    <View role="img" aria-label={label}>
      <Svg width="100%" height={HEIGHT} viewBox={`0 0 ${String(LENGTH)} ${String(HEIGHT)}`} preserveAspectRatio="none" aria-hidden>
        <Rect x={0} y={6} width={LENGTH} height={14} rx={3} fill={palette.ground} stroke={palette.hairline} />
        {stick.stretches.map((stretch) => {
          const [x, width] = [stretch.from * LENGTH, (stretch.to - stretch.from) * LENGTH];
          if (stretch.kind !== 'make') return <Rect key={stretch.from} x={x} y={6} width={width} height={14} fill={toneHex} stroke={edgeOf(toneHex)} />;
          const slants = Array.from({ length: Math.floor(width / 7) + 1 }, (_, index) => x + index * 7).filter((at) => at + 5 <= x + width);
          return (
            <Path
              key={stretch.from}
              d={`M${String(x)} 6h${String(width)}v14h${String(-width)}z ${slants.map((at) => `M${String(at)} 20l5 -14`).join(' ')}`}
              fill="none"
              stroke={edgeOf(toneHex)}
              strokeWidth={1.6}
            />
          );
        })}
        <Line
          x1={Math.min(LENGTH - 2, Math.max(2, stick.par * LENGTH))}
          x2={Math.min(LENGTH - 2, Math.max(2, stick.par * LENGTH))}
          y1={0}
          y2={HEIGHT}
          stroke={palette.ink}
          strokeWidth={3}
        />
      </Svg>
    </View>
  );
}
