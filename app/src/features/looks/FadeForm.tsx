// How a look or a chase comes and goes.

import { beats, type Beats } from '@hovlix/core/units';
import { decimal, Pair, Typed } from '../../ui/form';
import { Column } from '../../ui/pieces';
import { Switch } from '../../ui/Switch';
import { WORDS } from './words';

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
        <Typed
          label={WORDS.fadeInBeats}
          value={fadeIn as number}
          read={decimal(0, 256)}
          onChange={(value) => onChange({ fadeIn: beats(value) })}
        />
        <Typed
          label={WORDS.fadeOutBeats}
          value={fadeOut as number}
          read={decimal(0, 256)}
          onChange={(value) => onChange({ fadeOut: beats(value) })}
        />
      </Pair>
      {holds && (
        <>
          <Switch
            label={WORDS.turnsOffAutomatically}
            on={hold !== undefined}
            onChange={(on) => onChange({ hold: on ? beats(4) : undefined })}
          />
          {hold !== undefined && (
            <Typed
              label={WORDS.staysForBeats}
              value={hold as number}
              read={decimal(0, 4096)}
              onChange={(value) => onChange({ hold: beats(value) })}
            />
          )}
        </>
      )}
      <Switch label={WORDS.staysWhenSong} on={keep} onChange={(on) => onChange({ keep: on })} />
      <Switch label={WORDS.turnsOtherLooks} on={clean} onChange={(on) => onChange({ clean: on || undefined })} />
    </Column>
  );
}
