import { useState } from 'react';
import { View } from 'react-native';
import { Action } from '../../ui/Action';

interface Props<Item> {
  readonly items: readonly Item[];
  readonly about: (item: Item) => React.ReactNode;
  /** What stands at the end of a row. */
  readonly aside?: (item: Item) => React.ReactNode;
  /** What a screen reader says of "Change". */
  readonly changeHint: (item: Item) => string;
  readonly addLabel: string;
  /** `item` null = a new one. */
  readonly editor: (item: Item | null, onDone: () => void) => React.ReactNode;
}

/** A list of which one at a time is open to be changed, in its place; at its end a new one. */
export function OpenList<Item extends { readonly id: string }>({ items, about, aside, changeHint, addLabel, editor }: Props<Item>) {
  /** Which is open: an id, '' = a new one. */
  const [open, setOpen] = useState<string | null>(null);
  const close = (): void => {
    setOpen(null);
  };
  return (
    <>
      {items.map((item) => (
        <View key={item.id}>
          <View style={{ flexDirection: 'row', alignItems: 'center', minHeight: 56, gap: 12 }}>
            <View style={{ flex: 1 }}>{about(item)}</View>
            {open === item.id ? null : (
              <Action
                label="Change"
                hint={changeHint(item)}
                onPress={() => {
                  setOpen(item.id);
                }}
              />
            )}
            {aside?.(item)}
          </View>
          {open === item.id ? editor(item, close) : null}
        </View>
      ))}
      {open === '' ? (
        editor(null, close)
      ) : (
        <Action
          label={addLabel}
          onPress={() => {
            setOpen('');
          }}
        />
      )}
    </>
  );
}
