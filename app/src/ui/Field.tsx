import { usePalette } from './palette';

type Props = {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly placeholder?: string;
  readonly onEnter?: () => void;
};

/** A line of text to type, with its label for those who cannot see where it stands. */
export function Field({ label, value, onChange, placeholder, onEnter }: Props) {
  const palette = usePalette();
  return (
    <input
      aria-label={label}
      value={value}
      placeholder={placeholder}
      onChange={(event) => onChange(event.target.value)}
      onKeyDown={(event) => event.key === 'Enter' && onEnter?.()}
      style={{
        height: 44,
        borderRadius: 12,
        border: `1px solid ${palette.line}`,
        background: palette.sunken,
        color: palette.text,
        font: '400 16px Figtree',
        padding: '0 14px',
        minWidth: 0,
      }}
    />
  );
}
