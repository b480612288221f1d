import type { BoardGeometry, Crossing, Stretch } from './boardGeometry';

/** What the board is drawn with: many shapes of one look are one path, so that a page with twenty batches on it can follow a search. x and y in px. */

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Turns minutes and breadth into x and y, so that one drawing serves both ways of reading. */
export interface Frame {
  readonly perMin: number;
  readonly time: (minute: number) => number;
  readonly lane: (at: number) => number;
  readonly rect: (startMin: number, endMin: number, from: number, breadth: number) => Box;
  readonly point: (minute: number, at: number) => readonly [number, number];
  readonly width: number;
  readonly height: number;
}

function xy([x, y]: readonly [number, number]): string {
  return `${x.toFixed(1)} ${y.toFixed(1)}`;
}

/** A rectangle with round corners. */
export function boxPath({ x, y, width, height }: Box, radius: number): string {
  const r = Math.min(radius, width / 2, height / 2);
  const [across, along] = [(width - 2 * r).toFixed(1), (height - 2 * r).toFixed(1)];
  if (r <= 0) return `M${xy([x, y])}h${across}v${along}h-${across}z`;
  const turn = (dx: number, dy: number): string => `a${String(r)} ${String(r)} 0 0 1 ${String(dx)} ${String(dy)}`;
  return `M${xy([x + r, y])}h${across}${turn(r, r)}v${along}${turn(-r, r)}h-${across}${turn(-r, -r)}v-${along}${turn(r, -r)}z`;
}

/** The way from lane to lane, bent so that it can be followed. */
export function crossingPath(frame: Frame, crossing: Crossing): string {
  const { atMin, fromMid, toMid } = crossing;
  const toMin = Math.max(crossing.toMin, atMin + 6 / frame.perMin);
  const bend = (atMin + toMin) / 2;
  return `M${xy(frame.point(atMin - 2 / frame.perMin, fromMid))}C${xy(frame.point(bend, fromMid))} ${xy(frame.point(bend, toMid))} ${xy(frame.point(toMin, toMid))}`;
}

/** Hatching as strokes: washes must be seen as washes without their colour. */
export function hatchPath({ x, y, width, height }: Box, every: number): string {
  const strokes: string[] = [];
  for (let at = -height; at < width; at += every) {
    const [from, to] = [Math.max(0, at), Math.min(width, at + height)];
    if (to > from) strokes.push(`M${xy([x + from, y + height - (from - at)])}L${xy([x + to, y + height - (to - at)])}`);
  }
  return strokes.join('');
}

/** Fills of the jar, as beads on the ribbon. */
function beadsPath(frame: Frame, stretch: Stretch, fills: number): string {
  const every = (stretch.endMin - stretch.startMin) / fills;
  return Array.from({ length: fills }, (_, index) => {
    const minute = stretch.startMin + index * every;
    const bead = frame.rect(minute + every * 0.08, minute + every * 0.92, stretch.from, stretch.breadth);
    return boxPath(bead, Math.min(bead.width, bead.height) / 2);
  }).join('');
}

export interface RibbonPaths {
  /** It stands and waits. */
  readonly waits: string;
  /** The kettle is held while the batch is in the blender. */
  readonly away: string;
  readonly beads: string;
  readonly ahead: string;
  readonly begun: string;
  /** Where there is room for a phase's glyph, of 24 by 24 at `GLYPH` px. */
  readonly glyphs: readonly { readonly phase: NonNullable<Stretch['phase']>; readonly x: number; readonly y: number }[];
}

export const GLYPH = 15;

/** One batch's ribbon through all its lanes. */
export function ribbonPaths(stretches: readonly Stretch[], frame: Frame): RibbonPaths {
  const drawn = { waits: '', away: '', beads: '', ahead: '', begun: '' };
  const glyphs: RibbonPaths['glyphs'][number][] = [];
  for (const stretch of stretches) {
    const box = frame.rect(stretch.startMin, stretch.endMin, stretch.from, stretch.breadth);
    if (stretch.kind === 'wait') drawn.waits += boxPath(box, 0);
    else if (stretch.kind === 'away') drawn.away += boxPath(box, 0);
    else if (stretch.fills !== null) drawn.beads += beadsPath(frame, stretch, stretch.fills);
    else {
      drawn[stretch.begun ? 'begun' : 'ahead'] += boxPath(box, 2);
      if (stretch.phase !== null && box.width >= GLYPH + 3 && box.height >= GLYPH + 3)
        glyphs.push({ phase: stretch.phase, x: box.x + (box.width - GLYPH) / 2, y: box.y + box.height - GLYPH - (stretch.breadth > 40 ? 3 : 2) });
    }
  }
  return { ...drawn, glyphs };
}

/** Hands taken and hands on shift. `at` is where they lie across, `full` how broad the most there ever are. */
export function handsPaths(geometry: BoardGeometry, frame: Frame, at: number, full: number, least: number, down: boolean): { readonly taken: string; readonly onShift: string } {
  const scale = full / Math.max(least, ...geometry.hands.map((load) => load.capacity));
  let [taken, onShift] = ['', ''];
  for (const load of geometry.hands) {
    const [fromMin, toMin] = [Math.max(load.fromMin, geometry.fromMin), Math.min(load.toMin, geometry.toMin)];
    if (toMin <= fromMin) continue;
    // Lying across, the load fills up from the bottom; on the phone from the left.
    const [used, capacity] = [load.used * scale, load.capacity * scale];
    taken += boxPath(frame.rect(fromMin, toMin, down ? at : at + full - used, used), 0);
    onShift += boxPath(frame.rect(fromMin, toMin, down ? at + capacity - 1.5 : at + full - capacity, 1.5), 0);
  }
  return { taken, onShift };
}
