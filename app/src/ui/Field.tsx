import { LineInput } from './inputs';

type Props = {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly placeholder?: string;
  readonly onEnter?: () => void;
};

/** A line of text to type, with its label for those who cannot see where it stands. */
export function Field({ label, value, onChange, placeholder, onEnter }: Props) {
  return (
    <LineInput
      aria-label={label}
      value={value}
      placeholder={placeholder}
      onChange={(event) => onChange(event.target.value)}
      onEnter={onEnter}
    />
  );
}
