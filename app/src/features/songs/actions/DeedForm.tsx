// What one action does: its kind, and what that kind asks for.

import type { Show } from '@hovlix/core/show';
import type { Deed, MidiMessage, Song } from '@hovlix/core/song';
import { Choose, decimal, Pair, Typed, wholeNumber } from '../../../ui/form';
import { Quiet } from '../../../ui/pieces';
import { MidiSwitch } from '../../midi/MidiSwitch';
import { Segments } from '../../../ui/Segments';
import { Slider } from '../../../ui/Slider';
import { usualDeed, usualMessage } from './model';
import { ACT_NAMES, MESSAGE_NAMES, WORDS } from './words';

type Props = {
  readonly show: Show;
  readonly song: Song;
  readonly does: Deed;
  readonly onChange: (does: Deed) => void;
};

const ACTS = Object.keys(ACT_NAMES) as Deed['act'][];
const ALL = '';

export function DeedForm({ show, song, does, onChange }: Props) {
  return (
    <>
      <Choose
        label={WORDS.does}
        value={does.act}
        choices={ACTS.map((value) => ({ value, name: ACT_NAMES[value] }))}
        onChoose={(act) => {
          const usual = usualDeed(act, show, song);
          if (usual) onChange(usual);
        }}
      />
      <Details show={show} song={song} does={does} onChange={onChange} />
    </>
  );
}

function Details({ show, does, onChange }: Props) {
  const looks = [...show.looks, ...show.chases].map(({ id, name }) => ({ value: id as string, name }));
  const roles = show.roles.map(({ id, name }) => ({ value: id as string, name }));
  switch (does.act) {
    case 'start':
      return (
        <Pair>
          <Choose
            label={WORDS.look}
            value={does.look as string}
            choices={looks}
            onChoose={(look) => onChange({ ...does, look: look as typeof does.look })}
          />
          <Choose
            label={WORDS.on}
            value={(does.role as string | undefined) ?? ALL}
            choices={[{ value: ALL, name: WORDS.allRoles }, ...roles]}
            onChoose={(role) => {
              const { role: _, ...rest } = does;
              onChange(role === ALL ? rest : { ...rest, role: role as NonNullable<typeof does.role> });
            }}
          />
        </Pair>
      );
    case 'stop':
      return (
        <Choose
          label={WORDS.look}
          value={(does.look as string | null) ?? ALL}
          choices={[{ value: ALL, name: WORDS.allWereStarted }, ...looks]}
          onChoose={(look) => onChange({ act: 'stop', look: look === ALL ? null : (look as typeof does.look) })}
        />
      );
    case 'master':
      return (
        <>
          <Choose
            label={WORDS.masterOf}
            value={(does.role as string | null) ?? ALL}
            choices={[{ value: ALL, name: WORDS.allLight }, ...roles]}
            onChoose={(role) => onChange({ ...does, role: role === ALL ? null : (role as typeof does.role) })}
          />
          <Slider
            label={WORDS.level}
            value={does.level * 100}
            low={0}
            high={100}
            step={5}
            unit="%"
            onChange={(level) => onChange({ ...does, level: level / 100 })}
          />
          <Fade value={does.fade} onChange={(fade) => onChange({ ...does, fade })} />
          <Quiet>{WORDS.staysThereUntil}</Quiet>
        </>
      );
    case 'blackout':
      return (
        <>
          <Segments
            label={WORDS.blackout}
            value={does.on ? 'on' : 'off'}
            choices={[
              { value: 'on', name: WORDS.on },
              { value: 'off', name: WORDS.off },
            ]}
            onChoose={(on) => onChange({ ...does, on: on === 'on' })}
          />
          <Fade value={does.fade} onChange={(fade) => onChange({ ...does, fade })} />
        </>
      );
    case 'song':
      return (
        <Choose
          label={WORDS.song}
          value={does.song as string}
          choices={show.songs.map(({ id, title }) => ({ value: id as string, name: title }))}
          onChoose={(to) => onChange({ ...does, song: to as typeof does.song })}
        />
      );
    case 'midi':
      return <MessageForm message={does.message} onChange={(message) => onChange({ act: 'midi', message })} />;
  }
}

function Fade({ value, onChange }: { readonly value: number; readonly onChange: (fade: number) => void }) {
  return <Typed label={WORDS.fadeSeconds} value={value} read={decimal(0, 60)} onChange={onChange} numeric />;
}

function MessageForm({
  message,
  onChange,
}: {
  readonly message: MidiMessage;
  readonly onChange: (message: MidiMessage) => void;
}) {
  const data = wholeNumber(0, 127);
  const number = (label: string, value: number, set: (value: number) => MidiMessage, read = data) => (
    <Typed label={label} value={value} read={read} onChange={(to) => onChange(set(to))} numeric />
  );
  return (
    <>
      <Pair>
        <Choose
          label={WORDS.message}
          value={message.kind}
          choices={(['program', 'control', 'note'] as const).map((value) => ({ value, name: MESSAGE_NAMES[value] }))}
          onChoose={(kind) => onChange(usualMessage(kind, message.channel))}
        />
        {number(WORDS.channel, message.channel, (channel) => ({ ...message, channel }), wholeNumber(1, 16))}
      </Pair>
      {message.kind === 'program' &&
        number(
          'Program',
          message.program + 1,
          (program) => ({ ...message, program: program - 1 }),
          wholeNumber(1, 128),
        )}
      {message.kind === 'control' && (
        <Pair>
          {number('Control', message.control, (control) => ({ ...message, control }))}
          {number(WORDS.value, message.value, (value) => ({ ...message, value }))}
        </Pair>
      )}
      {message.kind === 'note' && (
        <Pair>
          {number(WORDS.note, message.note, (note) => ({ ...message, note }))}
          {number(WORDS.velocity, message.velocity, (velocity) => ({ ...message, velocity }))}
        </Pair>
      )}
      <Quiet>{WORDS.sentByScreen}</Quiet>
      <MidiSwitch />
    </>
  );
}
