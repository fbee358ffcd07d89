// What a song is called, by whom it is, and what to know before it is played.

import type { Song } from '@hovlix/core/song';
import { timecodeFrom, timecodeText } from '@hovlix/core/time';
import { useHovlix } from '../../../host/hovlix';
import { named, Pair, remark, Typed } from '../../../ui/form';

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
  return time === undefined ? { wrong: 'Hours, minutes and seconds, as in 01:00:00.' } : { value: timecodeText(time) };
}

export function SongFields({ song }: { readonly song: Song }) {
  const { document } = useHovlix();
  const change = (more: Fields) => document.make({ type: 'rename-song', song: song.id, title: song.title, ...more });
  return (
    <>
      <Typed label="Title" value={song.title} read={named} onChange={(title) => change({ title })} />
      <Pair>
        <Typed label="Artist" value={song.by} read={remark(120)} onChange={(by) => change({ by })} />
        <Typed label="Key" value={song.key ?? ''} read={remark(24)} onChange={(key) => change({ key })} />
      </Pair>
      <Typed label="Notes" value={song.notes ?? ''} read={remark(2000)} onChange={(notes) => change({ notes })} />
      <Typed
        label="Begins at timecode"
        hint="Hours, minutes and seconds of the machine that sends MIDI timecode; empty for none."
        value={song.timecode === undefined ? '' : timecodeText(song.timecode)}
        read={timeOfDay}
        onChange={(text) => change({ timecode: timecodeFrom(text) ?? null })}
      />
    </>
  );
}
