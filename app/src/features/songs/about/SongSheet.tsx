// One song of the set: what it is called, by whom, its place, and how its tempo is counted.

import { useHovlix } from '../../../host/hovlix';
import { freshId } from '../../../host/fresh-id';
import { useSession } from '../../../host/session';
import type { Song } from '@hovlix/core/song';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { songBpm } from '../model';
import { Recording } from './Recording';
import { SongFields } from './SongFields';
import { WORDS } from './words';

type Props = { readonly song: Song; readonly songs: readonly Song[]; readonly onClose: () => void };

export function SongSheet({ song, songs, onClose }: Props) {
  const { document } = useHovlix();
  const say = useSession((session) => session.say);
  const at = songs.indexOf(song);
  const move = (before: Song | undefined) =>
    document.make({ type: 'move-song', song: song.id, before: before?.id ?? null });
  const scale = (factor: 0.5 | 2) => {
    document.make({ type: 'scale-tempo', song: song.id, factor });
    say(WORDS.countedAsFast(song.title, factor === 2 ? 'twice' : 'half'), { undo: document.takingBack() });
  };
  const duplicate = () => {
    const title = WORDS.copy(song.title.slice(0, 110));
    const next = songs[at + 1];
    const added = { ...song, id: freshId() as Song['id'], title };
    document.make({ type: 'add-song', added, ...(next ? { before: next.id } : {}) });
    say(WORDS.wasAddedAfter(title), { undo: document.takingBack() });
    onClose();
  };
  const remove = () => {
    document.make({ type: 'remove-song', song: song.id });
    say(WORDS.isDeleted(song.title), { undo: document.takingBack() });
    onClose();
  };
  return (
    <Sheet title={song.title} onClose={onClose}>
      <SongFields song={song} />
      <Column gap={8}>
        <Words fontWeight="600">
          {WORDS.tempo}
          <Figures color="$text">{WORDS.bpm(songBpm(song).toFixed(1))}</Figures>
        </Words>
        <Row gap={8}>
          <Button onPress={() => scale(0.5)}>{WORDS.half}</Button>
          <Button onPress={() => scale(2)}>{WORDS.double}</Button>
        </Row>
        <Quiet>{WORDS.looksKeepTheir}</Quiet>
      </Column>
      <Recording song={song} />
      <Row gap={8} flexWrap="wrap">
        <Button disabled={at <= 0} onPress={() => move(songs[at - 1])}>
          {WORDS.earlier}
        </Button>
        <Button disabled={at >= songs.length - 1} onPress={() => move(songs[at + 2])}>
          {WORDS.later}
        </Button>
        <Button onPress={duplicate}>{WORDS.duplicate}</Button>
        <Button kind="quiet" onPress={remove}>
          {WORDS.delete}
        </Button>
      </Row>
    </Sheet>
  );
}
