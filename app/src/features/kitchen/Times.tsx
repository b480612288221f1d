import { words } from '@broth/contract';
import { View } from 'react-native';
import { Field } from '../../ui/Field';

/** From when to when, as it was typed. */
export interface Typed {
  readonly from: string;
  readonly to: string;
}

export const NOTHING: Typed = { from: '', to: '' };

interface Stretch {
  readonly fromMin: number;
  readonly toMin: number;
}

export function typed({ fromMin, toMin }: Stretch): Typed {
  return { from: words.clock(fromMin), to: words.clock(toMin) };
}

export function stretchOf({ from, to }: Typed): Stretch {
  return { fromMin: words.readClock(from), toMin: words.readClock(to) };
}

interface Props {
  readonly label: string;
  readonly of: string;
  readonly value: Typed;
  /** What is wrong with either end. */
  readonly wrongFrom: string | null;
  readonly wrongTo: string | null;
  readonly onChange: (value: Typed) => void;
}

/** Two times of the day, side by side. */
export function Times({ label, of, value, wrongFrom, wrongTo, onChange }: Props) {
  return (
    <View style={{ flexDirection: 'row', gap: 8 }}>
      <Field
        label={`${label} from`}
        name={`${label} from, ${of}`}
        value={value.from}
        message={wrongFrom}
        onChange={(from) => {
          onChange({ ...value, from });
        }}
      />
      <Field
        label="to"
        name={`${label} to, ${of}`}
        value={value.to}
        message={wrongTo}
        onChange={(to) => {
          onChange({ ...value, to });
        }}
      />
    </View>
  );
}
