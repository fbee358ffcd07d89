// What a song is called, by whom it is, and what to know before it is played.

import type { Song } from '@hovlix/core/song';
import { useHovlix } from '../../../host/hovlix';
import { named, Pair, remark, Typed } from '../../../ui/form';

type Fields = { readonly title?: string; readonly by?: string; readonly key?: string; readonly notes?: string };

export function SongFields({ song }: { readonly song: Song }) {
  const { document } = useHovlix();
  const change = (more: Fields) => document.make({ type: 'rename-song', song: song.id, title: song.title, ...more });
  return (
    <>
      <Typed label="Title" value={song.title} read={named} onChange={(title) => change({ title })} />
      <Pair>
        <Typed label="By" value={song.by} read={remark(120)} onChange={(by) => change({ by })} />
        <Typed label="Key" value={song.key ?? ''} read={remark(24)} onChange={(key) => change({ key })} />
      </Pair>
      <Typed label="Notes" value={song.notes ?? ''} read={remark(2000)} onChange={(notes) => change({ notes })} />
    </>
  );
}
