// What is typed into or chosen with the browser's own means, in our look. Tamagui styles the elements; what else they
// are given goes to them as it is.

import type {
  ChangeEvent,
  FocusEvent,
  InputHTMLAttributes,
  KeyboardEvent,
  ReactNode,
  Ref,
  SelectHTMLAttributes,
  TextareaHTMLAttributes,
} from 'react';
import { styled, Text, View } from '@tamagui/core';
import { usePalette } from './palette';

const LineFrame = styled(
  Text,
  {
    render: 'input',
    height: 44,
    minHeight: 44,
    minWidth: 0,
    width: '100%',
    flexShrink: 1,
    boxSizing: 'border-box',
    borderWidth: 1,
    borderStyle: 'solid',
    borderColor: '$line',
    borderRadius: 12,
    backgroundColor: '$sunken',
    paddingHorizontal: 14,
    fontFamily: '$body',
    fontSize: 16,
    color: '$text',
    variants: {
      figures: { true: { fontFamily: '$mono', fontWeight: '500' } },
      wrong: { true: { borderColor: '$fault' } },
      /** With a sign of the device's own beside what is in it. */
      tight: { true: { paddingHorizontal: 8 } },
      /** A figure beside a fader. */
      small: { true: { width: 64, fontSize: 15, textAlign: 'right', paddingHorizontal: 8 } },
    } as const,
  },
  { isInput: true },
);

type LineProps = {
  readonly id?: string;
  readonly ref?: Ref<HTMLInputElement>;
  readonly value: string;
  /** Set in the face of figures. */
  readonly figures?: boolean;
  readonly small?: boolean;
  /** What was typed makes no sense. */
  readonly wrong?: boolean;
  readonly placeholder?: string | undefined;
  readonly inputMode?: InputHTMLAttributes<HTMLInputElement>['inputMode'];
  /** The device's own way to choose a day or a time. */
  readonly type?: 'date' | 'time';
  readonly onChange: (event: ChangeEvent<HTMLInputElement>) => void;
  readonly onEnter?: ((text: string) => void) | undefined;
  readonly onFocus?: (event: FocusEvent<HTMLInputElement>) => void;
  readonly onBlur?: (event: FocusEvent<HTMLInputElement>) => void;
  readonly 'aria-label'?: string;
  readonly 'aria-describedby'?: string | undefined;
};

/** A line to type in, as wide as what it stands in. */
export function LineInput({ wrong = false, onEnter, ...props }: LineProps) {
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    // While a letter is still being put together, as in Japanese, Enter only chooses it.
    if (!onEnter || event.key !== 'Enter' || event.nativeEvent.isComposing) return;
    // What one typed into may close: the same press must not act on the button that has the focus by then.
    event.preventDefault();
    if (!event.repeat) onEnter(event.currentTarget.value);
  };
  // Tamagui's types know what a view is given, not an input.
  return (
    <LineFrame
      wrong={wrong}
      tight={props.type !== undefined}
      aria-invalid={wrong}
      {...({ ...props, onKeyDown } as object)}
    />
  );
}

const AreaFrame = styled(
  Text,
  {
    render: 'textarea',
    width: '100%',
    boxSizing: 'border-box',
    borderWidth: 1,
    borderStyle: 'solid',
    borderColor: '$line',
    borderRadius: 12,
    backgroundColor: '$sunken',
    padding: 12,
    fontFamily: '$mono',
    fontSize: 14,
    lineHeight: 20,
    color: '$text',
  },
  { isInput: true },
);

type AreaProps = Pick<TextareaHTMLAttributes<HTMLTextAreaElement>, 'rows' | 'placeholder' | 'aria-label'> & {
  readonly value: string;
  readonly onChange: (text: string) => void;
};

/** Several lines to type or paste, in the face of figures. */
export function TextArea({ onChange, ...props }: AreaProps) {
  const change = (event: ChangeEvent<HTMLTextAreaElement>) => onChange(event.target.value);
  return <AreaFrame {...({ ...props, onChange: change } as object)} />;
}

const SelectFrame = styled(
  Text,
  {
    render: 'select',
    height: 44,
    minHeight: 44,
    minWidth: 0,
    flexShrink: 1,
    maxWidth: '100%',
    boxSizing: 'border-box',
    borderRadius: 12,
    fontFamily: '$body',
    fontSize: 16,
    color: '$text',
    cursor: 'pointer',
    variants: {
      bare: {
        true: { borderWidth: 0, padding: 0, backgroundColor: 'transparent', fontWeight: '600' },
        false: {
          width: '100%',
          borderWidth: 1,
          borderStyle: 'solid',
          borderColor: '$line',
          backgroundColor: '$sunken',
          paddingHorizontal: 10,
        },
      },
    } as const,
    defaultVariants: { bare: false },
  },
  { isInput: true },
);

type SelectProps<T extends string> = Pick<SelectHTMLAttributes<HTMLSelectElement>, 'id' | 'aria-label'> & {
  readonly value: T;
  readonly choices: readonly { readonly value: T; readonly name: string }[];
  /** Without a frame, as a part of a line. */
  readonly bare?: boolean;
  /** What comes before the choices. */
  readonly children?: ReactNode;
  readonly onChoose: (value: T) => void;
};

/** The device's own list: on a phone its wheel, and every screen reader knows it. */
export function Select<T extends string>({ choices, onChoose, children, ...props }: SelectProps<T>) {
  const palette = usePalette();
  const change = (event: ChangeEvent<HTMLSelectElement>) => {
    const chosen = choices.find((choice) => choice.value === event.target.value);
    if (chosen) onChoose(chosen.value);
  };
  return (
    <SelectFrame {...({ ...props, onChange: change } as object)}>
      {children}
      {choices.map((choice) => (
        // The list is drawn by the device: it takes its colours from here alone.
        <option key={choice.value} value={choice.value} style={{ background: palette.raised }}>
          {choice.name}
        </option>
      ))}
    </SelectFrame>
  );
}

const ColourFrame = styled(
  View,
  {
    render: 'input',
    width: 56,
    height: 44,
    padding: 0,
    borderWidth: 0,
    borderRadius: 12,
    backgroundColor: 'transparent',
    flexShrink: 0,
  },
  { isInput: true },
);

type ColourProps = { readonly label: string; readonly value: string; readonly onChange: (hex: string) => void };

/** The device's own way to pick a colour, as #rrggbb. */
export function ColourInput({ label, value, onChange }: ColourProps) {
  const input = {
    type: 'color',
    'aria-label': label,
    value,
    onChange: (event: ChangeEvent<HTMLInputElement>) => onChange(event.target.value),
  };
  return <ColourFrame {...(input as object)} />;
}

const LabelFrame = styled(Text, {
  render: 'label',
  display: 'block',
  fontFamily: '$body',
  fontWeight: '600',
  fontSize: 13,
  lineHeight: 18,
  color: '$quiet',
});

/** The name over an input. */
export function Label({ of, children }: { readonly of: string; readonly children: ReactNode }) {
  return <LabelFrame {...{ htmlFor: of }}>{children}</LabelFrame>;
}
