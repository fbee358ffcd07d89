// Days and times of day, chosen with the device's own means.

import { useId, useState } from 'react';
import { More } from './form';
import { Label, LineInput } from './inputs';
import { Column } from './pieces';

type Props = {
  readonly label: string;
  readonly value: string;
  readonly hint?: string | undefined;
  readonly onChange: (value: string) => void;
};

/** A day as 2026-12-04. */
export const DayInput = (props: Props) => (
  <Chosen {...props} type="date" isWhole={(text) => /^(?:19[7-9]|2)\d+-/.test(text)} />
);

/** A time of day as 18:30:00; seconds are shown where there are some. */
export function TimeInput({ value, onChange, ...props }: Props) {
  const whole = value.endsWith(':00');
  return (
    <Chosen
      {...props}
      type="time"
      value={whole ? value.slice(0, 5) : value}
      isWhole={(text) => /^\d\d:\d\d/.test(text)}
      onChange={(text) => onChange(text.length === 5 ? `${text}:00` : text)}
    />
  );
}

type ChosenProps = Props & { readonly type: 'date' | 'time'; readonly isWhole: (text: string) => boolean };

/** What is half typed stays in the line and counts for nothing; left so, it is as it was. */
function Chosen({ label, value, hint, type, isWhole, onChange }: ChosenProps) {
  const id = useId();
  const [typed, setTyped] = useState<string>();
  return (
    <Column gap={6}>
      <Label of={id}>{label}</Label>
      <LineInput
        id={id}
        figures
        type={type}
        value={typed ?? value}
        aria-describedby={hint ? `${id}-more` : undefined}
        onChange={({ target }) => {
          setTyped(target.value);
          if (isWhole(target.value)) onChange(target.value);
        }}
        onBlur={() => setTyped(undefined)}
      />
      <More id={id} wrong={null} hint={hint} />
    </Column>
  );
}
