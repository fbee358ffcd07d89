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

type Props = { readonly song: Song; readonly songs: readonly Song[]; readonly onClose: () => void };

export function SongSheet({ song, songs, onClose }: Props) {
  const { document } = useHovlix();
  const say = useSession((session) => session.say);
  const at = songs.indexOf(song);
  const move = (before: Song | undefined) =>
    document.make({ type: 'move-song', song: song.id, before: before?.id ?? null });
  const scale = (factor: 0.5 | 2) => {
    document.make({ type: 'scale-tempo', song: song.id, factor });
    say(`“${song.title}” is counted ${factor === 2 ? 'twice' : 'half'} as fast.`, { undo: document.takingBack() });
  };
  const duplicate = () => {
    const title = `${song.title.slice(0, 110)}, copy`;
    const next = songs[at + 1];
    const added = { ...song, id: freshId() as Song['id'], title };
    document.make({ type: 'add-song', added, ...(next ? { before: next.id } : {}) });
    say(`“${title}” was added after it.`, { undo: document.takingBack() });
    onClose();
  };
  const remove = () => {
    document.make({ type: 'remove-song', song: song.id });
    say(`“${song.title}” is deleted.`, { undo: document.takingBack() });
    onClose();
  };
  return (
    <Sheet title={song.title} onClose={onClose}>
      <SongFields song={song} />
      <Column gap={8}>
        <Words fontWeight="600">
          Tempo <Figures color="$text">{songBpm(song).toFixed(1)} bpm</Figures>
        </Words>
        <Row gap={8}>
          <Button onPress={() => scale(0.5)}>Half</Button>
          <Button onPress={() => scale(2)}>Double</Button>
        </Row>
        <Quiet>The looks keep their place in the music; only the bars change.</Quiet>
      </Column>
      <Recording song={song} />
      <Row gap={8} flexWrap="wrap">
        <Button disabled={at <= 0} onPress={() => move(songs[at - 1])}>
          Earlier
        </Button>
        <Button disabled={at >= songs.length - 1} onPress={() => move(songs[at + 2])}>
          Later
        </Button>
        <Button onPress={duplicate}>Duplicate</Button>
        <Button kind="quiet" onPress={remove}>
          Delete
        </Button>
      </Row>
    </Sheet>
  );
}
