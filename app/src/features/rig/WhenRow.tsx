// The moment one asks about: now, or a bar of a song.

import { barsAt, timeOfBars, type Song } from '@hovlix/core/song';
import { seconds } from '@hovlix/core/units';
import { useLive, useShow } from '../../host/hovlix';
import type { When } from '../../host/light/light-messages';
import { Choose, decimal, Pair, Typed } from '../../ui/form';
import { Column, Quiet } from '../../ui/pieces';
import { WORDS } from './words';

type Props = { readonly when: When; readonly onWhen: (when: When) => void };

export function WhenRow({ when, onWhen }: Props) {
  const songs = useShow((show) => show.songs) ?? [];
  const current = useLive((live) => live.song?.id);
  if (songs.length === 0) return null;
  const song = when === 'now' ? undefined : songs.find(({ id }) => id === when.song);
  const at = (wanted: Song, bar: number) => onWhen({ song: wanted.id, time: timeOfBars(wanted, bar - 1) });
  /** As people count them: 17.5 is the middle of the 17th. */
  const barOf = (wanted: Song, time: number) => Math.round((barsAt(wanted, seconds(time)) + 1) * 1000) / 1000;
  return (
    <Column gap={6}>
      <Pair>
        <Choose
          label={WORDS.when}
          value={song?.id ?? ''}
          choices={[{ value: '', name: 'now' }, ...songs.map(({ id, title }) => ({ value: id, name: title }))]}
          onChoose={(id) => {
            const chosen = songs.find((one) => one.id === id);
            if (chosen) at(chosen, 1);
            else onWhen('now');
          }}
        />
        {song && when !== 'now' && (
          <Typed
            label={WORDS.bar}
            value={barOf(song, when.time)}
            read={decimal(1, Math.max(1, barOf(song, song.duration)))}
            onChange={(bar) => at(song, bar)}
          />
        )}
      </Pair>
      {song && <Quiet>{WORDS.asSongPlays(current === song.id ? '' : ', wherever the show is now')}</Quiet>}
    </Column>
  );
}
