// Fades that differ within one look: of families, of single attributes, of some of its lamps; and what jumps instead.

import { useState } from 'react';
import { FAMILIES, familiesOf, namesSaid, whoWords, type Look, type LookValue, type Times } from '@hovlix/core/light';
import { attributeOf } from '@hovlix/core/rig';
import { beats } from '@hovlix/core/units';
import type { Show } from '@hovlix/core/show';
import { Choose, decimal, Pair, Typed } from '../../ui/form';
import { Button, Column, Quiet } from '../../ui/pieces';
import { Segments } from '../../ui/Segments';
import { FAMILY_NAMES, familyOf } from './edit/model';
import { WORDS } from './words';

type Timed = { readonly times?: Look['times']; readonly snaps?: Look['snaps'] };
type Props = {
  readonly show: Show;
  readonly values: readonly LookValue[];
  /** Without `times` only what jumps is asked: the steps of a chase have times of their own. */
  readonly said: Timed;
  readonly timed?: boolean;
  readonly onSay: (said: Timed) => void;
  /** Where single lamps and roles may be timed too. */
  readonly onValues?: (values: LookValue[]) => void;
};

export function TimesForm({ show, values, said, timed = true, onSay, onValues }: Props) {
  const own =
    Object.keys(said.times ?? {}).length +
    Object.keys(said.snaps ?? {}).length +
    values.filter((value) => value.times).length;
  const [open, setOpen] = useState(false);
  const [added, setAdded] = useState<readonly string[]>([]);
  const names = namesSaid(values);
  if (names.length === 0) return null;
  if (!open)
    return (
      <Button onPress={() => setOpen(true)}>
        {timed ? WORDS.separateFadeTimes : WORDS.snapOrFade}
        {own > 0 ? ` (${own})` : ''} …
      </Button>
    );
  const families = FAMILIES.filter((family) => values.some((value) => familiesOf(value, familyOf).has(family)));
  const singles = names
    .filter((name) => said.times?.[name] !== undefined || added.includes(name))
    .filter((name) => !families.some((family) => family === name));
  const others = names.filter((name) => !singles.includes(name) && !families.some((family) => family === name));
  const time = (name: string, times: Times | undefined) =>
    onSay({ ...said, times: emptied({ ...said.times, [name]: times }) });
  return (
    <Column gap={16} role="group" aria-label={WORDS.separateFadeTimes}>
      {timed && (
        <>
          <Quiet>{WORDS.beatsWhatLeft}</Quiet>
          {families.map((family) => (
            <TimesRow
              key={family}
              name={FAMILY_NAMES[family]}
              times={said.times?.[family]}
              onTime={(times) => time(family, times)}
            />
          ))}
          {singles.map((name) => (
            <TimesRow key={name} name={wordOf(name)} times={said.times?.[name]} onTime={(times) => time(name, times)} />
          ))}
          {others.length > 0 && (
            <Choose
              label={WORDS.aSingleAttribute}
              value=""
              choices={[
                { value: '', name: 'choose one …' },
                ...others.map((name) => ({ value: name, name: wordOf(name) })),
              ]}
              onChoose={(name) => name !== '' && setAdded([...added, name])}
            />
          )}
          {onValues &&
            values.map((value, i) => (
              <TimesRow
                key={`${i} ${whoWords(value, show.roles)}`}
                name={whoWords(value, show.roles)}
                times={value.times}
                onTime={(times) => onValues(values.map((one, k) => (k === i ? withTimes(one, times) : one)))}
              />
            ))}
        </>
      )}
      {names.map((name) => (
        <Column key={name} gap={6}>
          <Quiet fontWeight="600">{WORDS.changes(wordOf(name))}</Quiet>
          <Segments
            label={WORDS.changes(wordOf(name))}
            value={said.snaps?.[name] === undefined ? 'type' : said.snaps[name] ? 'jump' : 'fade'}
            choices={[
              { value: 'type', name: WORDS.asUsual },
              { value: 'fade', name: WORDS.fades },
              { value: 'jump', name: WORDS.snaps },
            ]}
            onChoose={(how) =>
              onSay({ ...said, snaps: emptied({ ...said.snaps, [name]: how === 'type' ? undefined : how === 'jump' }) })
            }
          />
        </Column>
      ))}
    </Column>
  );
}

type RowProps = {
  readonly name: string;
  readonly times: Times | undefined;
  readonly onTime: (times: Times | undefined) => void;
};

function TimesRow({ name, times = {}, onTime }: RowProps) {
  const put = (change: { readonly in?: number | ''; readonly out?: number | '' }) => {
    const next: { in: number | ''; out: number | '' } = { in: times.in ?? '', out: times.out ?? '', ...change };
    const kept = {
      ...(next.in === '' ? {} : { in: beats(next.in) }),
      ...(next.out === '' ? {} : { out: beats(next.out) }),
    };
    onTime(Object.keys(kept).length > 0 ? kept : undefined);
  };
  return (
    <Pair>
      <Typed
        label={WORDS.in(name)}
        value={(times.in as number | undefined) ?? ''}
        read={maybeBeats}
        onChange={(value) => put({ in: value })}
      />
      <Typed
        label={WORDS.out(name)}
        value={(times.out as number | undefined) ?? ''}
        read={maybeBeats}
        onChange={(value) => put({ out: value })}
      />
    </Pair>
  );
}

function maybeBeats(text: string): { readonly value: number | '' } | { readonly wrong: string } {
  if (text.trim() === '') return { value: '' };
  const read = decimal(0, 256)(text);
  return 'wrong' in read ? { wrong: WORDS.beatsFrom0 } : read;
}

const TIME_NAMES: Readonly<Record<string, string>> = {
  level: 'Level',
  colour: 'Colour',
  aim: 'Aim',
  strobe: 'Strobe',
  gobo: 'Gobo',
  zoom: 'Zoom',
  haze: 'Fog',
};
const wordOf = (name: string): string => TIME_NAMES[name] ?? attributeOf(name).name;

/** Without keys that say nothing; nothing where none is left. */
function emptied<T>(record: Readonly<Record<string, T | undefined>>): Record<string, T> | undefined {
  const kept = Object.entries(record).filter((entry): entry is [string, T] => entry[1] !== undefined);
  return kept.length > 0 ? Object.fromEntries(kept) : undefined;
}

function withTimes({ times: _, ...value }: LookValue, times: Times | undefined): LookValue {
  return times ? { ...value, times } : value;
}
