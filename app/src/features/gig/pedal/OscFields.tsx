// A control that is heard over OSC: its address, and what its values mean.

import { NO_OSC } from '@hovlix/core/connect';
import { OscAddress, type Control, type Source } from '@hovlix/core/gig';
import { useConnections, useLink } from '../../../host/hovlix';
import { Choose, decimal, Typed } from '../../../ui/form';
import { Quiet } from '../../../ui/pieces';
import { WORDS } from './words';

type Osc = Extract<Source, { by: 'osc' }>;

type Props = {
  readonly kind: Control['kind'];
  readonly source: Osc;
  readonly onChange: (source: Source) => void;
};

export function OscFields({ kind, source, onChange }: Props) {
  const served = useLink((link) => link.conductor === 'server');
  const { on } = useConnections((state) => state.connections?.osc) ?? NO_OSC;
  return (
    <>
      <Typed
        label={WORDS.oscAddress}
        patient
        value={source.address}
        read={readAddress}
        onChange={(address) => onChange({ ...source, address })}
      />
      {kind === 'fader' ? (
        <Typed
          label={WORDS.fullAt}
          hint={WORDS.fullHint}
          numeric
          value={source.full}
          read={decimal(0.001, 1e9)}
          onChange={(full) => onChange({ ...source, full })}
        />
      ) : (
        <Choose
          label={WORDS.whatItsValues}
          value={source.sends}
          choices={[
            { value: 'absolute', name: WORDS.downAndUp },
            { value: 'toggle', name: WORDS.eachMessageOne },
          ]}
          onChoose={(sends) => onChange({ ...source, sends })}
        />
      )}
      {!(served && on) && (
        <Quiet role="alert" color="$warn">
          {served ? WORDS.oscIsOff : WORDS.oscNeedsServer}
        </Quiet>
      )}
    </>
  );
}

function readAddress(text: string): { readonly value: string } | { readonly wrong: string } {
  const read = OscAddress.safeParse(text.trim());
  return read.success ? { value: read.data } : { wrong: WORDS.addressNeeds };
}
