// One place of a set: what is on before the song begins, what pedal and pads do in it.

import type { Entry, SongEntry, Start } from '@hovlix/core/gig';
import type { Show } from '@hovlix/core/show';
import { usePlays } from '../../../host/hovlix';
import { Choose, decimal, Pair, remark, Typed } from '../../../ui/form';
import { Button, Column, Row } from '../../../ui/pieces';
import { Switch } from '../../../ui/Switch';

type Props = {
  readonly show: Show;
  readonly entry: Entry;
  readonly onChange: (entry: Entry) => void;
  readonly onRemove: () => void;
};

export function EntryForm({ show, entry, onChange, onRemove }: Props) {
  const plays = usePlays();
  const { notes: _, encore: __, ...rest } = entry;
  const common = { ...(entry.notes ? { notes: entry.notes } : {}), ...(entry.encore ? { encore: true } : {}) };
  return (
    <Column gap={12} paddingBottom={12}>
      {entry.kind === 'song' && <SongFields show={show} entry={entry} onChange={onChange} />}
      {entry.kind === 'look' && (
        <Choose
          label="Look"
          value={entry.look as string}
          choices={plays.map(({ id, name }) => ({ value: id as string, name }))}
          onChoose={(look) => onChange({ ...entry, look: look as typeof entry.look })}
        />
      )}
      {entry.kind === 'pause' && (
        <Typed
          label="Minutes"
          value={entry.minutes}
          read={decimal(0, 600)}
          onChange={(minutes) => onChange({ ...entry, minutes })}
          numeric
        />
      )}
      <Typed
        label="Note for this place"
        value={entry.notes ?? ''}
        read={remark(400)}
        onChange={(notes) => onChange({ ...rest, ...(common.encore ? { encore: true } : {}), ...(notes ? { notes } : {}) } as Entry)}
      />
      <Switch
        label="Encore: played only if they want more"
        on={entry.encore === true}
        onChange={(encore) => onChange({ ...rest, ...(entry.notes ? { notes: entry.notes } : {}), ...(encore ? { encore } : {}) } as Entry)}
      />
      <Row>
        <Button kind="quiet" onPress={onRemove}>
          Take out of the set
        </Button>
      </Row>
    </Column>
  ); // prettier-ignore
}

type SongProps = { readonly show: Show; readonly entry: SongEntry; readonly onChange: (entry: Entry) => void };

const NONE = '';

function SongFields({ show, entry, onChange }: SongProps) {
  const plays = usePlays();
  const start = entry.start.with === 'look' ? (entry.start.look as string) : entry.start.with;
  const startOf = (value: string): Start => (value === 'keep' || value === 'dark' ? { with: value } : { with: 'look', look: value as never }); // prettier-ignore
  const { bank: _, tempo: __, key: ___, ...rest } = entry;
  const put = (change: { bank?: string; tempo?: number; key?: string }) => {
    const all = { bank: entry.bank, tempo: entry.tempo, key: entry.key, ...change };
    onChange({
      ...rest,
      ...(all.bank ? { bank: all.bank as NonNullable<SongEntry['bank']> } : {}),
      ...(all.tempo ? { tempo: all.tempo } : {}),
      ...(all.key ? { key: all.key } : {}),
    });
  };
  return (
    <>
      <Choose
        label="Before it begins"
        value={start}
        choices={[
          { value: 'keep', name: 'What is on stays' },
          { value: 'dark', name: 'Dark' },
          ...plays.map(({ id, name }) => ({ value: id as string, name })),
        ]}
        onChoose={(value) => onChange({ ...entry, start: startOf(value) })}
      />
      <Choose
        label="The pedal stops"
        value={entry.stops}
        choices={[
          { value: 'song', name: 'Only at its start' },
          { value: 'sections', name: 'At each section, which loops until the next press' },
          { value: 'looks', name: 'At each look of its bank, without the song’s own light' },
        ]}
        onChoose={(stops) => onChange({ ...entry, stops })}
      />
      {show.banks.length > 0 && (
        <Choose
          label="Bank of pads"
          value={(entry.bank as string | undefined) ?? NONE}
          choices={[
            { value: NONE, name: 'The one that is chosen' },
            ...show.banks.map(({ id, name }) => ({ value: id as string, name })),
          ]}
          onChoose={(bank) => put({ bank })}
        />
      )}
      <Pair>
        <Typed
          label="Tempo before it, bpm"
          value={entry.tempo === undefined ? '' : String(entry.tempo)}
          read={(text) => {
            if (text.trim() === '') return { value: '' };
            const read = decimal(30, 400)(text);
            return 'wrong' in read ? read : { value: String(read.value) };
          }}
          onChange={(tempo) => put({ tempo: Number(tempo) })}
          numeric
        />
        <Typed label="Key tonight" value={entry.key ?? ''} read={remark(24)} onChange={(key) => put({ key })} />
      </Pair>
    </>
  );
}
