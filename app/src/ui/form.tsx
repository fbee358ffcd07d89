// Pieces of forms: a label above, the input, and what is wrong with what was typed.

import { useEffect, useId, useRef, type ReactNode } from 'react';
import { Label, LineInput, Select } from './inputs';
import { Column, Grid, Quiet, Words } from './pieces';
import { useTypedLine } from './typed-line';
import { WORDS, WRONG } from './words';

export function Labelled({
  label,
  hint,
  children,
}: {
  readonly label: string;
  readonly hint?: string | undefined;
  readonly children: ReactNode;
}) {
  return (
    <Column gap={6}>
      <Quiet fontWeight="600">{label}</Quiet>
      {children}
      {hint && <Quiet>{hint}</Quiet>}
    </Column>
  );
}

/** Two fields side by side, each as wide as the other. */
export function Pair({ children }: { readonly children: ReactNode }) {
  return (
    <Grid gridTemplateColumns="repeat(2, minmax(0, 1fr))" gap={10} alignItems="flex-start">
      {children}
    </Grid>
  );
}

type TypedProps<T> = {
  readonly label: string;
  readonly value: T;
  readonly hint?: string | undefined;
  /** The value of a text, or a sentence that says what is wrong with it. */
  readonly read: (text: string) => { readonly value: T } | { readonly wrong: string };
  readonly onChange: (value: T) => void;
  readonly numeric?: boolean;
  /** Half typed it would do harm, or close the line: a pause is no answer then, only Enter or leaving. */
  readonly patient?: boolean;
  /** It was left with nothing wrong in it. */
  readonly onLeave?: () => void;
};

/** Half-typed numbers make sense too, and must not go out to the lamps: a pause of this length, Enter or leaving counts. */
const SETTLED_MS = 500;

/** A line to type in. What makes sense counts; what does not stays, says why, and changes nothing. */
export function Typed<T extends string | number>(props: TypedProps<T>) {
  const { label, value, hint, read, onChange, numeric, patient, onLeave } = props;
  const id = useId();
  const line = useTypedLine(String(value));
  const outcome = read(line.text);
  const wrong = line.typed && 'wrong' in outcome ? outcome.wrong : null;
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const settle = () => {
    clearTimeout(timer.current);
    if (!line.typed || !('value' in outcome)) return;
    if (outcome.value !== value) onChange(outcome.value);
    line.hold(line.text);
  };
  const latest = useRef(settle);
  useEffect(() => {
    latest.current = settle;
  });
  useEffect(() => () => clearTimeout(timer.current), []);
  return (
    <Column gap={6}>
      <Label of={id}>{label}</Label>
      <LineInput
        id={id}
        figures={numeric}
        value={line.text}
        inputMode={numeric ? 'numeric' : undefined}
        wrong={wrong !== null}
        aria-describedby={wrong || hint ? `${id}-more` : undefined}
        onChange={(event) => {
          line.type(event.target.value);
          clearTimeout(timer.current);
          if (!patient) timer.current = setTimeout(() => latest.current(), SETTLED_MS);
        }}
        onFocus={() => line.hold()}
        onEnter={settle}
        onBlur={() => {
          settle();
          if (wrong !== null) return;
          line.letGo();
          onLeave?.();
        }}
      />
      <More id={id} wrong={wrong} hint={hint} />
    </Column>
  );
}

/** Under a line: what is wrong with what was typed, or what belongs there. */
export function More({
  id,
  wrong,
  hint,
}: {
  readonly id: string;
  readonly wrong: string | null;
  readonly hint?: string | undefined;
}) {
  const says = wrong ?? hint;
  if (!says) return null;
  return (
    <Words id={`${id}-more`} fontSize={13} lineHeight={18} color={wrong ? '$fault' : '$quiet'}>
      {says}
    </Words>
  );
}

/** Reads a whole number within bounds. */
export function wholeNumber(low: number, high: number): TypedProps<number>['read'] {
  return (text) => {
    const value = Number(text.trim().replace('−', '-'));
    if (text.trim() === '' || !Number.isInteger(value) || value < low || value > high)
      return { wrong: WRONG.whole(low, high) };
    return { value };
  };
}

/** Reads a number with a fraction, comma or point, within bounds. */
export function decimal(low: number, high: number): TypedProps<number>['read'] {
  return (text) => {
    const value = Number(text.trim().replace('−', '-').replace(',', '.'));
    if (text.trim() === '' || !Number.isFinite(value) || value < low || value > high)
      return { wrong: WRONG.number(low, high) };
    return { value: Math.round(value * 1000) / 1000 };
  };
}

/** Reads a name of up to 120 letters. */
export function named(text: string): { readonly value: string } | { readonly wrong: string } {
  const name = text.trim();
  if (name.length < 1) return { wrong: WRONG.nameless };
  return name.length <= 120 ? { value: name } : { wrong: WRONG.long(120) };
}

/** Reads a remark that may be empty. */
export function remark(most: number): TypedProps<string>['read'] {
  return (text) => (text.trim().length <= most ? { value: text.trim() } : { wrong: WRONG.long(most) });
}

type ChooseProps<T extends string> = {
  readonly label: string;
  readonly value: T;
  readonly choices: readonly { readonly value: T; readonly name: string }[];
  readonly hint?: string | undefined;
  readonly onChoose: (value: T) => void;
};

/** One of many. */
export function Choose<T extends string>({ label, value, choices, hint, onChoose }: ChooseProps<T>) {
  const id = useId();
  const known = choices.some((choice) => choice.value === value);
  return (
    <Column gap={6}>
      <Label of={id}>{label}</Label>
      <Select id={id} value={value} choices={choices} onChoose={onChoose}>
        {!known && <option value={value}>{WORDS.notHere(value)}</option>}
      </Select>
      {hint && <Quiet>{hint}</Quiet>}
    </Column>
  );
}
