// One place of a set: what is on before the song begins, what pedal and pads do in it.

import type { Entry, SongEntry, Start } from '@hovlix/core/gig';
import type { Show } from '@hovlix/core/show';
import { id } from '@hovlix/core/units';
import { usePlays } from '../../../host/hovlix';
import { Choose, decimal, Pair, remark, Typed } from '../../../ui/form';
import { Button, Column, Row } from '../../../ui/pieces';
import { Switch } from '../../../ui/Switch';
import { WORDS } from './words';

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
          label={WORDS.look}
          value={entry.look as string}
          choices={plays.map(({ id, name }) => ({ value: id as string, name }))}
          onChoose={(look) => onChange({ ...entry, look: look as typeof entry.look })}
        />
      )}
      {entry.kind === 'pause' && (
        <Typed
          label={WORDS.minutes}
          value={entry.minutes}
          read={decimal(0, 600)}
          onChange={(minutes) => onChange({ ...entry, minutes })}
          numeric
        />
      )}
      <Typed
        label={WORDS.notePlace}
        value={entry.notes ?? ''}
        read={remark(400)}
        onChange={(notes) =>
          onChange({ ...rest, ...(common.encore ? { encore: true } : {}), ...(notes ? { notes } : {}) } as Entry)
        }
      />
      <Switch
        label={WORDS.encorePlayedOnly}
        on={entry.encore === true}
        onChange={(encore) =>
          onChange({ ...rest, ...(entry.notes ? { notes: entry.notes } : {}), ...(encore ? { encore } : {}) } as Entry)
        }
      />
      <Row>
        <Button kind="quiet" onPress={onRemove}>
          {WORDS.takeOutSet}
        </Button>
      </Row>
    </Column>
  );
}

type SongProps = { readonly show: Show; readonly entry: SongEntry; readonly onChange: (entry: Entry) => void };

const NONE = '';

function SongFields({ show, entry, onChange }: SongProps) {
  const plays = usePlays();
  const start = entry.start.with === 'look' ? (entry.start.look as string) : entry.start.with;
  const startOf = (value: string): Start =>
    value === 'keep' || value === 'dark' ? { with: value } : { with: 'look', look: id<'Look'>(value) };
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
        label={WORDS.beforeItBegins}
        value={start}
        choices={[
          { value: 'keep', name: WORDS.whatStays },
          { value: 'dark', name: WORDS.dark },
          ...plays.map(({ id, name }) => ({ value: id as string, name })),
        ]}
        onChoose={(value) => onChange({ ...entry, start: startOf(value) })}
      />
      <Choose
        label={WORDS.thePedalStops}
        value={entry.stops}
        choices={[
          { value: 'song', name: WORDS.onlyItsStart },
          { value: 'sections', name: WORDS.eachSectionWhich },
          { value: 'looks', name: WORDS.eachLookIts },
        ]}
        onChoose={(stops) => onChange({ ...entry, stops })}
      />
      {show.banks.length > 0 && (
        <Choose
          label={WORDS.bankOfPads}
          value={(entry.bank as string | undefined) ?? NONE}
          choices={[
            { value: NONE, name: WORDS.oneChosen },
            ...show.banks.map(({ id, name }) => ({ value: id as string, name })),
          ]}
          onChoose={(bank) => put({ bank })}
        />
      )}
      <Pair>
        <Typed
          label={WORDS.tempoBeforeBpm}
          value={entry.tempo === undefined ? '' : String(entry.tempo)}
          read={(text) => {
            if (text.trim() === '') return { value: '' };
            const read = decimal(30, 400)(text);
            return 'wrong' in read ? read : { value: String(read.value) };
          }}
          onChange={(tempo) => put({ tempo: Number(tempo) })}
          numeric
        />
        <Typed label={WORDS.keyTonight} value={entry.key ?? ''} read={remark(24)} onChange={(key) => put({ key })} />
      </Pair>
    </>
  );
}
