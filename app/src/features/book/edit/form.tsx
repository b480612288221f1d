import { readNumber } from '@broth/contract/formats';
import type { soup as soupSchema } from '@broth/contract';
import type { Amount, KitchenUnit } from '@broth/core';
import { useEffect, useState } from 'react';
import { useController, useFormContext } from 'react-hook-form';
import type { FieldPath, FieldPathValue, FieldValues } from 'react-hook-form';
import type { z } from 'zod';
import { Field, Pick } from '../../../ui/Field';

/** The form is the soup itself: what is typed is checked by the same schema that the server checks it with. */
export type SoupForm = z.input<typeof soupSchema>;
export type Path = FieldPath<SoupForm>;

interface Common {
  readonly path: Path;
  readonly label: string;
  readonly name?: string;
  readonly width?: number;
}

function useField(path: Path) {
  const { control } = useFormContext<SoupForm>();
  const { field, fieldState } = useController({ control, name: path });
  return {
    value: field.value as unknown,
    set: (value: unknown) => {
      field.onChange(value as FieldPathValue<FieldValues, string>);
    },
    blur: field.onBlur,
    message: fieldState.error?.message ?? null,
  };
}

/** A line of text; an empty one is null where the card allows nothing. */
export function TextOf({ path, label, name, width, lines, orNull = false, hint }: Common & { readonly lines?: number; readonly orNull?: boolean; readonly hint?: string }) {
  const { value, set, blur, message } = useField(path);
  return (
    <Field
      label={label}
      {...(name === undefined ? {} : { name })}
      {...(width === undefined ? {} : { width })}
      {...(lines === undefined ? {} : { lines })}
      {...(hint === undefined ? {} : { hint })}
      value={typeof value === 'string' ? value : ''}
      onChange={(text) => {
        set(orNull && text === '' ? null : text);
      }}
      onBlur={blur}
      message={message}
    />
  );
}

/** A number as it is typed: `7,5`, `1 1/2`, `½`. What is no number stays in sight and is said at saving; an empty one is null where that is allowed. */
export function NumberOf({ path, label, name, width, orNull = false, factor = 1, hint }: Common & { readonly orNull?: boolean; readonly factor?: number; readonly hint?: string }) {
  const { value, set, blur, message } = useField(path);
  const shown = typeof value === 'number' && !Number.isNaN(value) ? String(Number((value * factor).toFixed(4))) : '';
  const [text, setText] = useState(shown);
  useEffect(() => {
    const read = readNumber(text);
    const same = read === null ? value === null || Number.isNaN(value) : typeof value === 'number' && Math.abs(read - value * factor) < 1e-9;
    // Undo and a taken-up draft change the value from outside.
    if (!same) setText(shown);
  }, [value]);
  return (
    <Field
      label={label}
      {...(name === undefined ? {} : { name })}
      {...(width === undefined ? {} : { width })}
      {...(hint === undefined ? {} : { hint })}
      numeric
      value={text}
      onChange={(typed) => {
        setText(typed);
        const read = readNumber(typed);
        set(typed.trim() === '' && orNull ? null : read === null ? Number.NaN : read / factor);
      }}
      onBlur={blur}
      message={message}
    />
  );
}

/** One of a few words; `''` stands for nothing where the card allows it. */
export function PickOf({
  path,
  label,
  name,
  width,
  options,
  orNull = false,
}: Common & { readonly options: readonly { readonly value: string; readonly label: string }[]; readonly orNull?: boolean }) {
  const { value, set } = useField(path);
  return (
    <Pick
      label={label}
      {...(name === undefined ? {} : { name })}
      {...(width === undefined ? {} : { width })}
      value={typeof value === 'string' ? value : ''}
      options={options}
      onPick={(picked) => {
        set(orNull && picked === '' ? null : picked);
      }}
    />
  );
}

const RANGE = /^(.+?)\s*(?:-|–|to)\s*(.+)$/;
/** `2`, `2-3`, `1 1/2`; empty = not measured; null in the answer = it is no amount. */
function readAmount(text: string, unit: KitchenUnit): { readonly amount: Amount } | null {
  if (text.trim() === '') return { amount: null };
  const single = readNumber(text);
  if (single !== null) return { amount: { low: single, high: single, unit } };
  const parts = RANGE.exec(text.trim());
  const [low, high] = [readNumber(parts?.[1] ?? ''), readNumber(parts?.[2] ?? '')];
  return low === null || high === null ? null : { amount: { low: Math.min(low, high), high: Math.max(low, high), unit } };
}
export function amountShown(amount: Amount): string {
  if (amount === null || Number.isNaN(amount.low)) return '';
  const low = String(Number(amount.low.toFixed(4)));
  return amount.low === amount.high ? low : `${low}-${String(Number(amount.high.toFixed(4)))}`;
}

/** The amount of a line: a number, a range, or left empty because nobody has measured it yet. */
export function AmountOf({ path, label, unit, name }: Common & { readonly unit: KitchenUnit }) {
  const { value, set, blur, message } = useField(path);
  const amount = value as Amount;
  const [text, setText] = useState(amountShown(amount));
  useEffect(() => {
    const read = readAmount(text, unit);
    if (read === null || amountShown(read.amount) === amountShown(amount)) return;
    setText(amountShown(amount));
  }, [value]);
  const wrong = readAmount(text, unit) === null;
  return (
    <Field
      label={label}
      {...(name === undefined ? {} : { name })}
      numeric
      value={text}
      hint="2, 2-3 or 1 ½; empty = not measured"
      onChange={(typed) => {
        setText(typed);
        const read = readAmount(typed, unit);
        set(read === null ? { low: Number.NaN, high: Number.NaN, unit } : read.amount);
      }}
      onBlur={blur}
      message={wrong ? 'Type a number or a range, like 2 or 2-3.' : message}
    />
  );
}
