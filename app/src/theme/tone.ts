/** Colour arithmetic for broth tones: the soup's colour is identity, so what lies on it must stay readable. */

function channels(hex: string): readonly [number, number, number] {
  const value = Number.parseInt(hex.slice(1), 16);
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255];
}

function hexOf(rgb: readonly number[]): string {
  return `#${rgb
    .map((channel) =>
      Math.round(Math.min(255, Math.max(0, channel)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}

/** Relative luminance, WCAG 2.2. */
export function luminance(hex: string): number {
  const [red = 0, green = 0, blue = 0] = channels(hex).map((channel) => {
    const part = channel / 255;
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** Contrast ratio of two colours, WCAG 2.2: 1 to 21. */
export function contrast(one: string, other: string): number {
  const [light = 0, dark = 0] = [luminance(one), luminance(other)].sort((left, right) => right - left);
  return (light + 0.05) / (dark + 0.05);
}

/** Ink that can be read on a tone: the darker or the lighter of the two, whichever stands out more. */
export function inkOn(tone: string): string {
  return contrast(tone, '#1B2133') >= contrast(tone, '#FFFDF6') ? '#1B2133' : '#FFFDF6';
}

/** `share` of `other` mixed into `hex`. */
export function mix(hex: string, other: string, share: number): string {
  const to = channels(other);
  return hexOf(channels(hex).map((channel, index) => channel + ((to[index] ?? 0) - channel) * share));
}

/** The outline of a ribbon: the tone, dark enough to stand out from enamel. */
export function edgeOf(tone: string): string {
  return mix(tone, '#1B2133', 0.45);
}
