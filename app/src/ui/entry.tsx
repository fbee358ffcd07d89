// Forms that are filled in and then sent. Each line says what is wrong with it, nothing wrong is sent, and what was typed
// stays. What is changed while one looks at it has `Typed` instead.

import { useId } from 'react';
import { standardSchemaResolver } from '@hookform/resolvers/standard-schema';
import {
  useController,
  useForm,
  type Control,
  type DefaultValues,
  type FieldPathByValue,
  type FieldValues,
} from 'react-hook-form';
import { z } from 'zod';
import { Choose, More } from './form';
import { Label, LineInput } from './inputs';
import { Column } from './pieces';

type Reader<T> = (text: string) => { readonly value: T } | { readonly wrong: string };

/** What a line's text says, as a schema: `wrong` becomes the line's message. */
export const typed = <T,>(read: Reader<T>) =>
  z.string().transform((text, context): T => {
    const outcome = read(text);
    if ('value' in outcome) return outcome.value;
    context.addIssue({ code: 'custom', message: outcome.wrong });
    return z.NEVER;
  });

/** The same for a line that offers something by itself: null while nothing was typed. */
export const typedOrOffered = <T,>(read: Reader<T>) =>
  typed<T | null>((text) => (text === '' ? { value: null } : read(text)));

/** A form of the entries of `schema`. It starts with `start`, as texts; what is wrong is told while one types. */
export function useEntries<In extends FieldValues, Out>(schema: z.ZodType<Out, In>, start: DefaultValues<In>) {
  return useForm<In, unknown, Out>({
    resolver: standardSchemaResolver(schema),
    defaultValues: start,
    mode: 'onChange',
  });
}

type LineProps<In extends FieldValues, Out> = {
  readonly control: Control<In, unknown, Out>;
  readonly name: FieldPathByValue<In, string>;
  readonly label: string;
  readonly hint?: string | undefined;
  readonly numeric?: boolean;
  /** Stands in the line until something is typed. */
  readonly offered?: string | undefined;
  readonly onEnter?: () => void;
};

export function Entry<In extends FieldValues, Out>(props: LineProps<In, Out>) {
  const { control, name, label, hint, numeric = false, offered, onEnter } = props;
  const id = useId();
  const {
    field: { ref, value, onChange, onBlur },
    fieldState,
  } = useController({ control, name });
  const wrong = fieldState.error?.message ?? null;
  return (
    <Column gap={6} minWidth={0}>
      <Label of={id}>{label}</Label>
      <LineInput
        id={id}
        ref={ref}
        figures={numeric}
        inputMode={numeric ? 'numeric' : undefined}
        value={value === '' && offered !== undefined ? offered : value}
        wrong={wrong !== null}
        aria-describedby={wrong || hint ? `${id}-more` : undefined}
        onChange={onChange}
        onBlur={onBlur}
        onEnter={onEnter}
      />
      <More id={id} wrong={wrong} hint={hint} />
    </Column>
  );
}

type ChoiceProps<In extends FieldValues, Out> = Pick<LineProps<In, Out>, 'control' | 'name' | 'label'> & {
  readonly choices: readonly { readonly value: string; readonly name: string }[];
};

/** One of many, as an entry. */
export function ChoiceEntry<In extends FieldValues, Out>({ control, name, ...rest }: ChoiceProps<In, Out>) {
  const { field } = useController({ control, name });
  return <Choose {...rest} value={field.value} onChoose={field.onChange} />;
}
