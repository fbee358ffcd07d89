// One of many, in little room: a select without a line of its own for its name.

import { usePalette } from '../../../ui/palette';

type Props<T extends string> = {
  readonly label: string;
  readonly value: T;
  readonly choices: readonly { readonly value: T; readonly name: string }[];
  readonly onChoose: (value: T) => void;
};

export function PickOne<T extends string>({ label, value, choices, onChoose }: Props<T>) {
  const palette = usePalette();
  return (
    <select
      aria-label={label}
      value={value}
      onChange={(event) => {
        const chosen = choices.find((choice) => choice.value === event.target.value);
        if (chosen) onChoose(chosen.value);
      }}
      style={{
        height: 44,
        minWidth: 0,
        maxWidth: '100%',
        border: 0,
        borderRadius: 12,
        background: 'transparent',
        color: palette.text,
        font: '600 16px Figtree',
        padding: 0,
        cursor: 'pointer',
      }}
    >
      {choices.map((choice) => (
        <option key={choice.value} value={choice.value} style={{ background: palette.raised }}>
          {choice.name}
        </option>
      ))}
    </select>
  );
}
