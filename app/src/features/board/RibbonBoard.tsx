import { words } from '@broth/contract';
import { UNITS_PER_PERSON, vesselsFor } from '@broth/core';
import type { DayPlan, Station } from '@broth/core';
import { memo, useMemo, useState } from 'react';
import { ScrollView, View } from 'react-native';
import Svg, { G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import type { OpenDay } from '../../state/useDay';
import { BOLD, SANS, usePalette } from '../../theme/theme';
import { edgeOf, inkOn, mix } from '../../theme/tone';
import { PHASE_PATHS } from '../../ui/PhaseMark';
import { Note } from '../../ui/Type';
import { boardGeometry } from './boardGeometry';
import type { BoardGeometry, Stretch } from './boardGeometry';
import { GLYPH, crossingPath, handsPaths, hatchPath, ribbonPaths } from './boardPaths';
import type { Frame } from './boardPaths';
import { Grip } from './Grip';

interface Props {
  readonly day: OpenDay;
  readonly plan: DayPlan;
  readonly nowMin: number;
  readonly selected: string | null;
  readonly onSelect: (batchId: string) => void;
  /** Puts the selected batch so many minutes later and into a vessel; null = where it is. */
  readonly onMove: (batchId: string, byMin: number, vesselId: string | null) => void;
  /** Time runs down on a phone, across when there is room. */
  readonly down: boolean;
  /** How much longer a minute is drawn than it must be. */
  readonly zoom: number;
}

const SCALE = { down: { pxPerL: 2.4, leastLane: 76, toolLane: 52, gap: 10 }, across: { pxPerL: 1.9, leastLane: 26, toolLane: 26, gap: 18 } };
/** Lying, the day is fitted to the room there is, down to what can still be read; on a phone it runs down at one scale. */
const PX_PER_MIN = { down: 2.6, leastAcross: 1.2 };
const HOURS = 46;
/** Rough breadth of a bold character in px, as a share of its size: enough to keep names apart. */
const CHARACTER = 0.56;
const HANDS = 46;

function frameOf(geometry: BoardGeometry, down: boolean, roomPx: number, zoom: number): Frame {
  const minutes = geometry.toMin - geometry.fromMin;
  const perMin = zoom * (down ? PX_PER_MIN.down : Math.max(PX_PER_MIN.leastAcross, (roomPx - 16) / minutes));
  const before = down ? { time: 8, lanes: 6 } : { time: 8, lanes: 18 };
  const length = minutes * perMin + before.time * 2;
  const across = geometry.breadth + before.lanes + 10 + HANDS + 22;
  const time = (minute: number): number => before.time + (minute - geometry.fromMin) * perMin;
  const lane = (at: number): number => before.lanes + at;
  const rect = (startMin: number, endMin: number, from: number, breadth: number) =>
    down
      ? { x: lane(from), y: time(startMin), width: breadth, height: time(endMin) - time(startMin) }
      : { x: time(startMin), y: lane(from), width: time(endMin) - time(startMin), height: breadth };
  const point = (minute: number, at: number): readonly [number, number] => (down ? [lane(at), time(minute)] : [time(minute), lane(at)]);
  return { perMin, time, lane, rect, point, width: down ? across : length, height: down ? length : across };
}
const NONE: readonly Stretch[] = [];

interface RibbonProps {
  readonly batchId: string;
  readonly stretches: readonly Stretch[];
  readonly frame: Frame;
  readonly tone: string;
  readonly ground: string;
  readonly onSelect: (batchId: string) => void;
}

/** One batch's ribbon. Drawn again only when something of it has changed: picking another batch dims it from outside. */
const Ribbon = memo(function Ribbon({ batchId, stretches, frame, tone, ground, onSelect }: RibbonProps) {
  const { waits, away, beads, ahead, begun, glyphs } = ribbonPaths(stretches, frame);
  const edge = edgeOf(tone);
  return (
    <G
      onPress={() => {
        onSelect(batchId);
      }}
    >
      {waits === '' ? null : <Path d={waits} fill="none" stroke={edge} strokeWidth={1.8} strokeDasharray="5 4" />}
      {away === '' ? null : <Path d={away} fill={mix(tone, ground, 0.72)} stroke={edge} strokeWidth={1} strokeDasharray="2 3" />}
      {beads === '' ? null : <Path d={beads} fill={tone} stroke={edge} strokeWidth={0.8} />}
      {begun === '' ? null : <Path d={begun} fill={mix(tone, '#1B2133', 0.18)} stroke={edge} strokeWidth={1.2} />}
      {ahead === '' ? null : <Path d={ahead} fill={tone} stroke={edge} strokeWidth={1.2} />}
      {glyphs.map(({ phase, x, y }, index) => (
        <Path
          key={index}
          d={PHASE_PATHS[phase]}
          transform={`translate(${String(x)} ${String(y)}) scale(${String(GLYPH / 24)})`}
          fill="none"
          stroke={inkOn(tone)}
          strokeWidth={2.4}
          strokeLinecap="round"
          strokeLinejoin="round"
          opacity={0.85}
        />
      ))}
    </G>
  );
});

/** The sequence of the day: one ribbon a batch, as thick as its litres, through the lanes it occupies. */
export const RibbonBoard = memo(function RibbonBoard({ day, plan, nowMin, selected, onSelect, onMove, down, zoom }: Props) {
  const palette = usePalette();
  const geometry = useMemo(
    () => boardGeometry(plan, day.book.station as Station, day.soupById, down ? SCALE.down : SCALE.across, UNITS_PER_PERSON),
    [plan, day.book.station, day.soupById, down],
  );
  const [roomPx, setRoomPx] = useState(900);
  const frame = useMemo(() => frameOf(geometry, down, roomPx, zoom), [geometry, down, roomPx, zoom]);
  const tone = (batchId: string): string => {
    const batch = plan.batches.find((one) => one.id === batchId);
    return day.soupById.get(batch?.soupId ?? '')?.toneHex ?? '#888888';
  };
  const stretchesOf = useMemo(() => {
    const found = new Map<string, Stretch[]>();
    for (const stretch of geometry.stretches) found.set(stretch.batchId, [...(found.get(stretch.batchId) ?? []), stretch]);
    return found;
  }, [geometry]);
  const crossingsOf = useMemo(() => {
    const found = new Map<string, string>();
    for (const crossing of geometry.crossings) found.set(crossing.batchId, (found.get(crossing.batchId) ?? '') + crossingPath(frame, crossing));
    return found;
  }, [geometry, frame]);
  const washed = useMemo(
    () => geometry.washes.map((wash) => hatchPath(frame.rect(wash.startMin, wash.endMin, wash.from, wash.breadth), wash.kind === 'full' ? 5 : 9)).join(''),
    [geometry, frame],
  );
  const handsAt = geometry.breadth + 16;
  const hands = useMemo(() => handsPaths(geometry, frame, handsAt, HANDS, UNITS_PER_PERSON, down), [geometry, frame, handsAt, down]);
  const hours = Array.from({ length: Math.floor((geometry.toMin - geometry.fromMin) / 30) + 1 }, (_, index) => geometry.fromMin + index * 30);
  const nowShown = nowMin >= geometry.fromMin && nowMin <= geometry.toMin;
  const sentence = `Board: ${plan.batches.map((batch) => `${batch.name}, ${words.clock(batch.steps[0]?.startMin ?? 0)} to ${words.clock(batch.readyMin)}`).join('; ')}.`;
  const heads = [
    ...geometry.lanes.map((lane) => ({ key: lane.id, kind: lane.kind, name: lane.name, detail: lane.detail, from: lane.from, breadth: lane.breadth })),
    { key: 'hands', kind: 'hands', name: 'Hands', detail: 'taken of those on shift', from: handsAt, breadth: HANDS },
  ];

  const held = plan.batches.find((batch) => batch.id === selected);
  const home = geometry.labels.find((label) => label.batchId === selected);
  const grip =
    held === undefined || home === undefined || held.state === 'finished' ? null : (
      <Grip
        name={held.name}
        box={frame.rect(home.startMin, home.endMin, home.from, home.breadth)}
        startMin={home.startMin}
        endMin={home.endMin}
        perMin={frame.perMin}
        down={down}
        laneId={home.lane.id}
        lanes={geometry.lanes.filter((lane) => vesselsFor(held, day.book.station as Station).includes(lane.id))}
        onMove={(byMin, laneId) => {
          onMove(held.id, byMin, laneId);
        }}
      />
    );

  const picture = (
    <View>
      <Svg width={frame.width} height={frame.height} role="img" aria-label={sentence}>
        {hours.map((minute) => {
          const [x1, y1] = frame.point(minute, 0);
          const [x2, y2] = frame.point(minute, handsAt + HANDS);
          return <Line key={minute} x1={x1} y1={y1} x2={x2} y2={y2} stroke={palette.hairline} strokeWidth={minute % 60 === 0 ? 1.4 : 0.7} />;
        })}
        {geometry.lanes.map((lane) => {
          const [x1, y1] = frame.point(geometry.fromMin, lane.from + lane.breadth);
          const [x2, y2] = frame.point(geometry.toMin, lane.from + lane.breadth);
          return <Line key={lane.id} x1={x1} y1={y1} x2={x2} y2={y2} stroke={palette.rim} strokeWidth={1.8} />;
        })}
        {geometry.services.map((service) => {
          const [x1, y1] = frame.point(service.atMin, -4);
          const [x2, y2] = frame.point(service.atMin, geometry.breadth + 4);
          return <Line key={service.name} x1={x1} y1={y1} x2={x2} y2={y2} stroke={palette.accent} strokeWidth={3} />;
        })}
        {[...crossingsOf].map(([batchId, way]) => {
          const color = tone(batchId);
          return (
            <G key={batchId} opacity={selected !== null && selected !== batchId ? 0.15 : 1}>
              <Path d={way} fill="none" stroke={edgeOf(color)} strokeWidth={6} />
              <Path d={way} fill="none" stroke={color} strokeWidth={4} />
            </G>
          );
        })}
        <Path d={washed} stroke={palette.muted} strokeWidth={1.6} fill="none" opacity={selected === null ? 1 : 0.35} />
        {plan.batches.map((batch) => (
          <G key={batch.id} opacity={selected !== null && selected !== batch.id ? 0.35 : 1}>
            <Ribbon batchId={batch.id} stretches={stretchesOf.get(batch.id) ?? NONE} frame={frame} tone={tone(batch.id)} ground={palette.sheet} onSelect={onSelect} />
          </G>
        ))}
        {geometry.labels.map((label) => {
          const batch = plan.batches.find((one) => one.id === label.batchId);
          const box = frame.rect(label.startMin, label.endMin, label.from, label.breadth);
          const on = tone(label.batchId);
          const name = batch?.name ?? '';
          const litres = words.litres(batch?.volumeL ?? 0);
          const dim = selected !== null && selected !== label.batchId ? 0.5 : 1;
          if (down) {
            // A plate as broad as the lane at the head of the ribbon: there is always room for the name.
            const [x] = frame.point(label.startMin, label.lane.from);
            const { breadth } = label.lane;
            const size = Math.min(13, (breadth - 8) / (name.length * CHARACTER));
            return (
              <G key={label.batchId} opacity={dim}>
                <Rect x={x} y={box.y} width={breadth} height={36} fill={on} stroke={edgeOf(on)} strokeWidth={1.2} rx={3} />
                <SvgText x={x + 4} y={box.y + 15} fontSize={size} fontFamily={BOLD} fill={inkOn(on)}>
                  {name}
                </SvgText>
                <SvgText x={x + 4} y={box.y + 30} fontSize={13} fontFamily={SANS} fill={inkOn(on)}>
                  {litres}
                </SvgText>
              </G>
            );
          }
          // Lying, it stands above its ribbon; litres are left off where the next name is near.
          const full = `${name} · ${litres}`;
          const fits = full.length * 13 * CHARACTER < label.roomMin * frame.perMin;
          return (
            <SvgText key={label.batchId} x={box.x + 1} y={box.y - 4} fontSize={13} fontFamily={BOLD} fill={palette.ink} opacity={dim}>
              {fits ? full : name}
            </SvgText>
          );
        })}
        <Path d={hands.taken} fill={palette.steel} />
        <Path d={hands.onShift} fill={palette.muted} />
        {nowShown ? (
          <Line
            x1={frame.point(nowMin, -6)[0]}
            y1={frame.point(nowMin, -6)[1]}
            x2={frame.point(nowMin, handsAt + HANDS)[0]}
            y2={frame.point(nowMin, handsAt + HANDS)[1]}
            stroke={palette.stop}
            strokeWidth={2.5}
          />
        ) : null}
        {geometry.pegs.map((peg) => {
          const [x, y] = frame.point(peg.atMin, peg.from + peg.breadth / 2);
          const [x1, y1] = frame.point(peg.atMin, peg.from - 3);
          const [x2, y2] = frame.point(peg.atMin, peg.from + peg.breadth + 3);
          return (
            <G key={`peg ${peg.batchId}`}>
              <Line x1={x1} y1={y1} x2={x2} y2={y2} stroke={palette.ink} strokeWidth={4} />
              <Rect x={x - 6} y={y - 6} width={12} height={12} rx={3} fill={palette.sheet} stroke={palette.ink} strokeWidth={3} />
            </G>
          );
        })}
      </Svg>
      {grip}
    </View>
  );

  const serviceNames = geometry.services.map((service) => `${service.name} ${words.clock(service.atMin)}`).join(', ');
  const hourMarks = hours.filter((minute) => minute % 60 === 0);
  if (down) {
    return (
      <View style={{ gap: 4 }}>
        {serviceNames === '' ? null : <Note>{`Yellow line: ${serviceNames}.`}</Note>}
        <View style={{ flexDirection: 'row' }}>
          <Svg width={HOURS} height={frame.height + 44} aria-hidden>
            {hourMarks.map((minute) => (
              <SvgText key={minute} x={HOURS - 6} y={44 + frame.time(minute) + 5} fontSize={14} fontFamily={SANS} fill={palette.muted} textAnchor="end">
                {words.clock(minute)}
              </SvgText>
            ))}
          </Svg>
          <ScrollView horizontal tabIndex={0} aria-label="Board, swipe for more lanes" style={{ flex: 1 }} contentContainerStyle={{ flexDirection: 'column' }}>
            <Svg width={frame.width} height={44} aria-hidden>
              {heads.map((head) => (
                <G key={head.key}>
                  <SvgText x={frame.lane(head.from)} y={16} fontSize={13} fontFamily={BOLD} fill={palette.ink}>
                    {SHORT[head.kind] ?? head.name}
                  </SvgText>
                  <SvgText x={frame.lane(head.from)} y={33} fontSize={12} fontFamily={SANS} fill={palette.muted}>
                    {DETAIL[head.kind] ?? head.detail}
                  </SvgText>
                </G>
              ))}
            </Svg>
            {picture}
          </ScrollView>
        </View>
      </View>
    );
  }
  return (
    <View style={{ flexDirection: 'row' }}>
      <View style={{ width: 132, paddingTop: 40 }}>
        <Svg width={132} height={frame.height} aria-hidden>
          {heads.map((head) => (
            <G key={head.key}>
              <SvgText x={2} y={frame.lane(head.from) + Math.min(head.breadth - 14, head.breadth / 2)} fontSize={14} fontFamily={BOLD} fill={palette.ink}>
                {head.name}
              </SvgText>
              <SvgText x={2} y={frame.lane(head.from) + Math.min(head.breadth - 14, head.breadth / 2) + 15} fontSize={12} fontFamily={SANS} fill={palette.muted}>
                {head.detail}
              </SvgText>
            </G>
          ))}
        </Svg>
      </View>
      <ScrollView
        horizontal
        tabIndex={0}
        aria-label="Board, scroll for later hours"
        style={{ flex: 1 }}
        contentContainerStyle={{ flexDirection: 'column' }}
        onLayout={({ nativeEvent }) => {
          setRoomPx(nativeEvent.layout.width);
        }}
      >
        <Svg width={frame.width} height={40} aria-hidden>
          {hourMarks.map((minute) => (
            <SvgText key={minute} x={frame.time(minute)} y={36} fontSize={14} fontFamily={SANS} fill={palette.muted} textAnchor={minute === geometry.fromMin ? 'start' : 'middle'}>
              {words.clock(minute)}
            </SvgText>
          ))}
          {geometry.services.map((service) => (
            <SvgText
              key={service.name}
              x={frame.time(service.atMin)}
              y={14}
              fontSize={13}
              fontFamily={BOLD}
              fill={palette.ink}
              textAnchor={service.atMin > geometry.toMin - 90 ? 'end' : 'middle'}
            >
              {`${service.name} ${words.clock(service.atMin)}`}
            </SvgText>
          ))}
        </Svg>
        {picture}
      </ScrollView>
    </View>
  );
});

const SHORT: Readonly<Record<string, string>> = { immersion: 'Stick', jar: 'Jar' };
const DETAIL: Readonly<Record<string, string>> = { hands: 'taken', immersion: 'blender', jar: 'blender' };
