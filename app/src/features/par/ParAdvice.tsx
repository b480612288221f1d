import { words } from '@broth/contract';
import type { SalesView } from '@broth/contract';
import { forecastDemand, roundUp, suggestPar } from '@broth/core';
import type { Soup } from '@broth/core';
import { useMemo } from 'react';
import { View } from 'react-native';
import Svg, { Line, Rect } from 'react-native-svg';
import { useKitchen } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import { historyFor } from '../../state/useSales';
import { usePalette } from '../../theme/theme';
import { edgeOf } from '../../theme/tone';
import { Action } from '../../ui/Action';
import { Note } from '../../ui/Type';

const LENGTH = 300;

/** `Wednesday` of a calendar date. */
function weekdayName(date: string): string {
  return new Intl.DateTimeFormat('en-GB', { weekday: 'long', timeZone: 'UTC' }).format(Date.parse(`${date}T12:00:00Z`));
}

interface Props {
  readonly soup: Soup;
  readonly serviceId: string;
  readonly date: string;
  readonly parL: number;
  readonly scaleL: number;
  readonly sales: SalesView;
}

/** What the same weekdays sold, what is expected, and the par that follows: dots on the dipstick's own scale, one sentence, one tap. */
export function ParAdvice({ soup, serviceId, date, parL, scaleL, sales }: Props) {
  const palette = usePalette();
  const putPar = useKitchen((state) => state.putPar);
  const say = useKitchen((state) => state.say);
  const level = usePreferences((state) => state.serviceLevel);
  const events = sales.events[date] ?? [];
  const forecast = useMemo(() => forecastDemand(historyFor(sales, soup.id, serviceId), date, events), [sales, soup.id, serviceId, date]);
  const rule = { by: 'service', level } as const;
  const suggested = suggestPar(forecast, rule);
  const litresOf = (portions: number): number => (portions * soup.portionMl) / 1000;
  const suggestedL = suggested === null ? null : roundUp(litresOf(suggested.portions), 0.5);
  const at = (portions: number): number => Math.min(LENGTH - 3, Math.max(3, (litresOf(portions) / Math.max(scaleL, 1)) * LENGTH));
  const sentence = words.parAdvice(weekdayName(date), forecast, suggested, rule, events);
  return (
    <View style={{ gap: 6 }}>
      {forecast === null ? null : (
        <View role="img" aria-label={`${String(Math.round(forecast.mean))} portions expected, give or take ${String(Math.round(forecast.deviation))}`}>
          <Svg width="100%" height={16} viewBox={`0 0 ${String(LENGTH)} 16`} preserveAspectRatio="none" aria-hidden>
            <Rect
              x={at(forecast.mean - forecast.deviation)}
              y={5}
              width={Math.max(2, at(forecast.mean + forecast.deviation) - at(forecast.mean - forecast.deviation))}
              height={6}
              rx={3}
              fill={palette.hairline}
            />
            <Line x1={at(forecast.mean)} x2={at(forecast.mean)} y1={1} y2={15} stroke={edgeOf(soup.toneHex)} strokeWidth={2.5} />
            {forecast.alike.map((record) => (
              <Rect
                key={record.day}
                x={at(record.sold) - 1.5}
                y={3}
                width={3}
                height={10}
                fill={record.soldOutMin === null ? palette.muted : palette.sheet}
                stroke={palette.muted}
                strokeWidth={record.soldOutMin === null ? 0 : 1.2}
              />
            ))}
          </Svg>
        </View>
      )}
      <Note>{sentence}</Note>
      {suggestedL === null || Math.abs(suggestedL - parL) < 0.5 ? null : (
        <Action
          style={{ alignSelf: 'flex-start' }}
          label={words.take(suggestedL)}
          hint={`${words.take(suggestedL)} as the par of ${soup.name}`}
          onPress={() => {
            void putPar(soup.id, suggestedL).then((trouble) => {
              if (trouble !== null) say(trouble);
            });
          }}
        />
      )}
    </View>
  );
}
