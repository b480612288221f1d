import { words } from '@broth/contract';
import type { BatchRecord, CoolRule, CoolingVerdict, TemperatureUnit } from '@broth/core';
import type { CoolingForecast } from '@broth/core/advice';
import { useState } from 'react';
import { View } from 'react-native';
import Svg, { Circle, Line, Path, Text as SvgText } from 'react-native-svg';
import { SANS, usePalette } from '../../theme/theme';
import { curveGeometry } from './curveGeometry';
import type { Point } from './curveGeometry';

/** Low enough that on a phone the curve, the keypad and the tap that logs are in sight together. */
const HEIGHT = 150;

function path(points: readonly Point[]): string {
  return points.map((point, index) => `${index === 0 ? 'M' : 'L'}${point.x.toFixed(1)} ${point.y.toFixed(1)}`).join('');
}

interface Props {
  readonly batch: BatchRecord;
  readonly verdict: CoolingVerdict;
  readonly forecast: CoolingForecast | null;
  readonly rules: readonly CoolRule[];
  readonly unit: TemperatureUnit;
  readonly toneHex: string;
  readonly says: string;
}

/** Readings as points, the forecast dashed with its band, the limit as a stair. */
export function CoolingCurve({ batch, verdict, forecast, rules, unit, toneHex, says }: Props) {
  const palette = usePalette();
  const [width, setWidth] = useState(340);
  const curve = curveGeometry(batch, verdict, forecast, rules, unit, { width: width - 8, height: HEIGHT, left: 56, bottom: 24 });
  return (
    <View
      onLayout={({ nativeEvent }) => {
        setWidth(nativeEvent.layout.width);
      }}
    >
      <Svg width={width} height={HEIGHT} role="img" aria-label={`Cooling curve of ${batch.name}. ${says}`}>
        {curve.limits.map((limit) => (
          <Line key={limit.temperature} x1={52} x2={width} y1={limit.y} y2={limit.y} stroke={palette.hairline} strokeWidth={1} />
        ))}
        {curve.limits.map((limit) => (
          <SvgText key={limit.temperature} x={48} y={limit.y + 5} fontSize={14} fontFamily={SANS} fill={palette.muted} textAnchor="end">
            {words.degrees(limit.temperature, unit)}
          </SvgText>
        ))}
        {curve.hours.map((hour) => (
          <SvgText key={hour.label} x={hour.x} y={HEIGHT - 6} fontSize={14} fontFamily={SANS} fill={palette.muted} textAnchor="middle">
            {hour.label}
          </SvgText>
        ))}
        {curve.band.length === 0 ? null : <Path d={`${path(curve.band)}z`} fill={toneHex} opacity={0.25} />}
        {curve.forecast.length === 0 ? null : <Path d={path(curve.forecast)} fill="none" stroke={palette.ink} strokeWidth={2.5} strokeDasharray="6 5" />}
        <Path d={path(curve.stair)} fill="none" stroke={palette.rim} strokeWidth={3} />
        <Path d={path(curve.readings)} fill="none" stroke={toneHex} strokeWidth={2.5} />
        {curve.changes.map((change) => (
          <Line key={`${change.label} ${String(change.x)}`} x1={change.x} x2={change.x} y1={4} y2={HEIGHT - 24} stroke={palette.ink} strokeWidth={1.5} strokeDasharray="2 4" />
        ))}
        {curve.changes.map((change) => (
          <SvgText key={`${change.label} ${String(change.x)}`} x={change.x + 4} y={14} fontSize={13} fontFamily={SANS} fill={palette.ink}>
            {change.label}
          </SvgText>
        ))}
        {curve.readings.map((point) =>
          point.source === 'probe' ? null : <Circle key={point.x} cx={point.x} cy={point.y} r={5.5} fill={toneHex} stroke={palette.ink} strokeWidth={1.5} />,
        )}
      </Svg>
    </View>
  );
}
