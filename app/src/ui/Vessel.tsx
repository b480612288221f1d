import { words } from '@broth/contract';
import { memo } from 'react';
import Svg, { Path } from 'react-native-svg';
import { usePalette } from '../theme/theme';
import { edgeOf } from '../theme/tone';
import { vesselGeometry } from './vesselGeometry';

interface Props {
  readonly name: string;
  readonly capacityL: number;
  readonly fillL: number;
  readonly minFillL?: number | null;
  readonly workingMaxL?: number | null;
  readonly toneHex: string;
  readonly scale?: number;
}

/** A kettle, pot, jar or well in section, to scale with its neighbours: the fill, the minimum fill (dots) and the working maximum (notch). */
export const Vessel = memo(function Vessel({ name, capacityL, fillL, minFillL = null, workingMaxL = null, toneHex, scale = 28 }: Props) {
  const palette = usePalette();
  const shape = vesselGeometry({ capacityL, fillL, minFillL, workingMaxL, pxPerCubeRootL: scale });
  const right = shape.width - 9;
  const label = `${name}: ${words.litres(fillL)} of ${words.litres(capacityL)}${shape.over ? ', above its working maximum' : ''}`;
  return (
    <Svg width={shape.width} height={shape.height} viewBox={`0 0 ${String(shape.width)} ${String(shape.height)}`} role="img" aria-label={label}>
      {shape.fill === null ? null : <Path d={shape.fill} fill={toneHex} stroke={edgeOf(toneHex)} strokeWidth={1.5} />}
      {shape.maxY === null ? null : <Path d={`M${String(right - 12)} ${String(shape.maxY)}H${String(right)}`} stroke={shape.over ? palette.stop : palette.rim} strokeWidth={2.5} />}
      {shape.minY === null ? null : <Path d={`M${String(right - 12)} ${String(shape.minY)}H${String(right)}`} stroke={palette.rim} strokeWidth={2} strokeDasharray="2 3" />}
      <Path d={shape.outline} fill="none" stroke={palette.rim} strokeWidth={3} />
      <Path d={shape.rim} stroke={palette.rim} strokeWidth={4} strokeLinecap="round" />
    </Svg>
  );
});
