/** A vessel in section. All lengths in the drawing's own units (px). */
export interface VesselGeometry {
  readonly width: number;
  readonly height: number;
  readonly outline: string;
  readonly rim: string;
  readonly fill: string | null;
  readonly minY: number | null;
  readonly maxY: number | null;
  readonly over: boolean;
}

const LIP = 4;

/**
 * Geometry of a vessel to scale: volumes of neighbours compare because height and width both grow with the cube root of the capacity.
 * `pxPerCubeRootL` sets the scale: 28 draws a 30 L kettle about 87 px wide. A fill above the working maximum is reported as `over`.
 */
export function vesselGeometry(input: {
  readonly capacityL: number;
  readonly fillL: number;
  readonly minFillL: number | null;
  readonly workingMaxL: number | null;
  readonly pxPerCubeRootL: number;
}): VesselGeometry {
  const side = Math.cbrt(input.capacityL) * input.pxPerCubeRootL;
  const [inner, depth] = [side * 0.86, side * 0.8];
  const [left, top, corner] = [LIP + (side - inner) / 2, LIP, inner * 0.16];
  const right = left + inner;
  const bottom = top + depth;
  const level = (volumeL: number): number => bottom - depth * Math.min(1, Math.max(0, volumeL / input.capacityL));
  const body = (from: number): string =>
    `M${fixed(left)} ${fixed(from)}V${fixed(bottom - corner)}a${fixed(corner)} ${fixed(corner)} 0 0 0 ${fixed(corner)} ${fixed(corner)}H${fixed(right - corner)}a${fixed(corner)} ${fixed(corner)} 0 0 0 ${fixed(corner)} ${fixed(-corner)}V${fixed(from)}`;
  const fillTop = Math.min(level(input.fillL), bottom - corner);
  return {
    width: side + 2 * LIP,
    height: bottom + LIP,
    outline: body(top),
    rim: `M${fixed(left - LIP)} ${fixed(top)}H${fixed(right + LIP)}`,
    fill: input.fillL > 0 ? `${body(fillTop)}z` : null,
    minY: input.minFillL === null ? null : level(input.minFillL),
    maxY: input.workingMaxL === null ? null : level(input.workingMaxL),
    over: input.workingMaxL !== null && input.fillL > input.workingMaxL,
  };
}

function fixed(value: number): string {
  return value.toFixed(1);
}
