import Svg, { Path } from 'react-native-svg';

/** The few icons Paper's own parts ask for, drawn here: no icon font is shipped. */
const PATHS: Readonly<Record<string, string>> = {
  check: 'M4 12.5l5 5L20 6.5l-1.6-1.6L9 14.3l-3.4-3.4z',
  close: 'M5 6.4L6.4 5 12 10.6 17.6 5 19 6.4 13.4 12 19 17.6 17.6 19 12 13.4 6.4 19 5 17.6 10.6 12z',
};

export default function PaperIcon({ name, color, size = 24 }: { readonly name: string; readonly color?: string; readonly size?: number }) {
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden>
      <Path d={PATHS[name] ?? ''} fill={color ?? 'currentColor'} />
    </Svg>
  );
}
