// How a look or a chase comes and goes.

import { beats, type Beats } from '@hovlix/core/units';
import { decimal, Pair, Typed } from '../../ui/form';
import { Column } from '../../ui/pieces';
import { Switch } from '../../ui/Switch';

export type Fades = {
  readonly fadeIn: Beats;
  readonly fadeOut: Beats;
  readonly hold?: Beats | undefined;
  readonly keep?: boolean;
  readonly clean?: boolean | undefined;
};

type Props = { readonly fades: Fades; readonly onChange: (fades: Partial<Fades>) => void; readonly holds?: boolean };

export function FadeForm({ fades, onChange, holds = true }: Props) {
  const { fadeIn, fadeOut, hold, keep = false, clean = false } = fades;
  return (
    <Column gap={14}>
      <Pair>
        <Typed label="Fade in, beats" value={fadeIn as number} read={decimal(0, 256)} onChange={(value) => onChange({ fadeIn: beats(value) })} />
        <Typed label="Fade out, beats" value={fadeOut as number} read={decimal(0, 256)} onChange={(value) => onChange({ fadeOut: beats(value) })} />
      </Pair>
      {holds && (
        <>
          <Switch
            label="Turns off automatically"
            on={hold !== undefined}
            onChange={(on) => onChange({ hold: on ? beats(4) : undefined })}
          />
          {hold !== undefined && (
            <Typed label="Stays for, beats" value={hold as number} read={decimal(0, 4096)} onChange={(value) => onChange({ hold: beats(value) })} />
          )}
        </>
      )}
      <Switch label="Stays on when a song starts" on={keep} onChange={(on) => onChange({ keep: on })} />
      <Switch label="Turns other looks off first" on={clean} onChange={(on) => onChange({ clean: on || undefined })} />
    </Column>
  ); // prettier-ignore
}
