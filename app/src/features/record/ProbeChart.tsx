import { words } from '@broth/contract';
import type { Thermometer } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import Svg, { Path, Text as SvgText } from 'react-native-svg';
import { recordApi, useAsked } from '../../state/recordApi';
import type { OpenDay } from '../../state/useDay';
import { SANS, usePalette } from '../../theme/theme';
import { Body, Note } from '../../ui/Type';

const HEIGHT = 140;
const HOURS = 8;
const HOUR_MS = 3_600_000;
/** A gap longer than this is drawn as one: silence is not a straight line. */
const GAP_MS = 5 * 60_000;

/** What a probe or logger sent in the last hours, as the server thins it: lowest and highest of each stretch. */
export function ProbeChart({ day, thermometer, now }: { readonly day: OpenDay; readonly thermometer: Thermometer; readonly now: number }) {
  const palette = usePalette();
  const [width, setWidth] = useState(320);
  const to = Math.ceil(now / 60_000) * 60_000;
  const from = to - HOURS * HOUR_MS;
  const { answer, trouble } = useAsked(() => recordApi.samples(day.book.kitchen.id, thermometer.id, from, to, 240), `${thermometer.id} ${String(to)}`);
  if (answer === null) return <Body>{trouble ?? 'Fetching…'}</Body>;
  const { points, unit } = answer;
  if (points.length === 0) return <Note>{`Nothing was sent in the last ${String(HOURS)} hours.`}</Note>;
  const low = Math.min(...points.map((point) => point.min)) - 1;
  const high = Math.max(...points.map((point) => point.max)) + 1;
  const x = (at: number): number => 48 + ((at - from) / (to - from)) * (width - 52);
  const y = (value: number): number => (1 - (value - low) / (high - low)) * (HEIGHT - 24);
  const line = points
    .map((point, index) => {
      const before = points[index - 1];
      const begins = before === undefined || point.at - before.at > GAP_MS;
      return `${begins ? 'M' : 'L'}${x(point.at).toFixed(1)} ${y(point.last).toFixed(1)}`;
    })
    .join('');
  const last = points.at(-1);
  const says =
    last === undefined
      ? ''
      : `${thermometer.name}: ${words.degrees(last.last, unit)} at ${day.at(last.at)}, between ${words.degrees(low + 1, unit)} and ${words.degrees(high - 1, unit)}`;
  return (
    <View
      onLayout={({ nativeEvent }) => {
        setWidth(nativeEvent.layout.width);
      }}
    >
      <Svg width={width} height={HEIGHT} role="img" aria-label={says}>
        {[low + 1, high - 1].map((value) => (
          <SvgText key={value} x={44} y={y(value) + 5} fontSize={13} fontFamily={SANS} fill={palette.muted} textAnchor="end">
            {words.degrees(value, unit)}
          </SvgText>
        ))}
        {[0, 2, 4, 6, 8].map((hour) => (
          <SvgText key={hour} x={x(to - hour * HOUR_MS)} y={HEIGHT - 4} fontSize={13} fontFamily={SANS} fill={palette.muted} textAnchor={hour === 0 ? 'end' : 'middle'}>
            {day.at(to - hour * HOUR_MS)}
          </SvgText>
        ))}
        <Path d={line} fill="none" stroke={palette.rim} strokeWidth={2} />
      </Svg>
      <Note>{says}</Note>
    </View>
  );
}
