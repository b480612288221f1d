import { words } from '@broth/contract';
import { useMemo, useRef, useState } from 'react';
import { PanResponder, Text, View } from 'react-native';
import { BOLD, usePalette } from '../../theme/theme';
import type { Lane } from './boardGeometry';

/** A hand moves in fives: a minute more or less is nothing anybody plans by. */
const SNAP_MIN = 5;
const KEYS: Readonly<Record<string, 'sooner' | 'later' | 'before' | 'after'>> = { ArrowLeft: 'sooner', ArrowRight: 'later', ArrowUp: 'before', ArrowDown: 'after' };
/** On the phone time runs down: the keys turn with it. */
const KEYS_DOWN: typeof KEYS = { ArrowUp: 'sooner', ArrowDown: 'later', ArrowLeft: 'before', ArrowRight: 'after' };

interface Props {
  readonly name: string;
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly startMin: number;
  readonly endMin: number;
  readonly perMin: number;
  readonly down: boolean;
  readonly laneId: string;
  /** Lanes it may go to, its own among them. */
  readonly lanes: readonly Lane[];
  readonly onMove: (byMin: number, laneId: string | null) => void;
}

/** The selected ribbon in the hand: dragged along the clock and from kettle to kettle by finger, mouse or arrow keys. */
export function Grip({ name, box, startMin, endMin, perMin, down, laneId, lanes, onMove }: Props) {
  const palette = usePalette();
  const [drag, setDrag] = useState<{ readonly along: number; readonly across: number } | null>(null);
  const own = lanes.find((lane) => lane.id === laneId);
  const toMove = (along: number, across: number): { readonly byMin: number; readonly lane: Lane | undefined } => {
    const middle = own === undefined ? 0 : own.from + own.breadth / 2 + across;
    const nearest = [...lanes].sort((left, right) => Math.abs(left.from + left.breadth / 2 - middle) - Math.abs(right.from + right.breadth / 2 - middle))[0];
    return { byMin: Math.round(along / perMin / SNAP_MIN) * SNAP_MIN, lane: nearest };
  };
  const finish = (along: number, across: number): void => {
    setDrag(null);
    const { byMin, lane } = toMove(along, across);
    if (byMin !== 0 || (lane !== undefined && lane.id !== laneId)) onMove(byMin, lane === undefined || lane.id === laneId ? null : lane.id);
  };
  const latest = useRef(finish);
  latest.current = finish;
  const responder = useMemo(() => {
    const of = (dx: number, dy: number): readonly [number, number] => (down ? [dy, dx] : [dx, dy]);
    return PanResponder.create({
      onStartShouldSetPanResponder: () => true,
      onMoveShouldSetPanResponder: () => true,
      onPanResponderTerminationRequest: () => false,
      onPanResponderMove: (_, { dx, dy }) => {
        const [along, across] = of(dx, dy);
        setDrag({ along, across });
      },
      onPanResponderRelease: (_, { dx, dy }) => {
        latest.current(...of(dx, dy));
      },
      onPanResponderTerminate: () => {
        setDrag(null);
      },
    });
  }, [down]);
  const going = drag === null ? { byMin: 0, lane: own } : toMove(drag.along, drag.across);
  const alongPx = going.byMin * perMin;
  const acrossPx = own === undefined || going.lane === undefined ? 0 : going.lane.from + going.lane.breadth - (own.from + own.breadth);
  const said = `${words.clock(startMin + going.byMin)} to ${words.clock(endMin + going.byMin)}${going.lane === undefined ? '' : `, ${going.lane.name}`}`;
  const press = (key: string): boolean => {
    const meant = (down ? KEYS_DOWN : KEYS)[key];
    const at = lanes.findIndex((lane) => lane.id === laneId);
    if (meant === undefined) return false;
    if (meant === 'sooner' || meant === 'later') onMove(meant === 'later' ? SNAP_MIN : -SNAP_MIN, null);
    else {
      const lane = lanes[at + (meant === 'after' ? 1 : -1)];
      if (lane !== undefined) onMove(0, lane.id);
    }
    return true;
  };
  const keyboard = {
    tabIndex: 0 as const,
    onKeyDown: (event: { readonly key: string; readonly preventDefault: () => void }) => {
      if (press(event.key)) event.preventDefault();
    },
  };
  return (
    <View
      {...responder.panHandlers}
      {...keyboard}
      role="slider"
      aria-label={`Move ${name}`}
      aria-valuemin={0}
      aria-valuemax={1440}
      aria-valuenow={startMin}
      aria-valuetext={said}
      style={[
        {
          position: 'absolute',
          left: box.x - 4 + (down ? acrossPx : alongPx),
          top: box.y - 4 + (down ? alongPx : acrossPx),
          width: box.width + 8,
          height: box.height + 8,
          borderWidth: 3,
          borderColor: palette.ink,
          borderRadius: 6,
          backgroundColor: drag === null ? 'transparent' : `${palette.sheet}aa`,
          cursor: 'pointer',
          userSelect: 'none',
        },
        // The page must not scroll under a finger that holds a ribbon.
        { touchAction: 'none' } as object,
      ]}
    >
      {drag === null ? null : (
        <View style={{ position: 'absolute', left: 2, top: 2, backgroundColor: palette.ink, borderRadius: 4, paddingHorizontal: 6, paddingVertical: 2 }}>
          <Text style={{ fontFamily: BOLD, fontSize: 15, color: palette.sheet }}>{said}</Text>
        </View>
      )}
    </View>
  );
}
