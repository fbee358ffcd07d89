// What a song is called, by whom it is, and what to know before it is played.

import type { Song } from '@hovlix/core/song';
import { timecodeFrom, timecodeText } from '@hovlix/core/time';
import { useHovlix } from '../../../host/hovlix';
import { named, Pair, remark, Typed } from '../../../ui/form';
import { WORDS } from './words';

type Fields = {
  readonly title?: string;
  readonly by?: string;
  readonly key?: string;
  readonly notes?: string;
  readonly timecode?: number | null;
};

/** A time of day, written as machines do; or nothing. */
function timeOfDay(text: string): { readonly value: string } | { readonly wrong: string } {
  const time = timecodeFrom(text);
  if (text.trim() === '') return { value: '' };
  return time === undefined ? { wrong: WORDS.hoursMinutesSeconds } : { value: timecodeText(time) };
}

export function SongFields({ song }: { readonly song: Song }) {
  const { document } = useHovlix();
  const change = (more: Fields) => document.make({ type: 'rename-song', song: song.id, title: song.title, ...more });
  return (
    <>
      <Typed label={WORDS.title} value={song.title} read={named} onChange={(title) => change({ title })} />
      <Pair>
        <Typed label={WORDS.artist} value={song.by} read={remark(120)} onChange={(by) => change({ by })} />
        <Typed label={WORDS.key} value={song.key ?? ''} read={remark(24)} onChange={(key) => change({ key })} />
      </Pair>
      <Typed label={WORDS.notes} value={song.notes ?? ''} read={remark(2000)} onChange={(notes) => change({ notes })} />
      <Typed
        label={WORDS.beginsAtTimecode}
        hint={WORDS.hoursMinutesSecondsMachine}
        value={song.timecode === undefined ? '' : timecodeText(song.timecode)}
        read={timeOfDay}
        onChange={(text) => change({ timecode: timecodeFrom(text) ?? null })}
      />
    </>
  );
}
