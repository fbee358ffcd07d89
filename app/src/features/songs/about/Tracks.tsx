// Recordings that sound beside a song's music: stems, a jingle, a click for the drummer.

import Trash from 'lucide-react-native/icons/trash';
import { ALIKE } from '@hovlix/core/music';
import { MOST_TRACKS, type Song, type Track } from '@hovlix/core/song';
import { offsetOf } from '../../../host/files/bring-in';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Chip } from '../../../ui/Chip';
import { FileButton } from '../../../ui/FileButton';
import { decimal, named, Typed } from '../../../ui/form';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { Slider } from '../../../ui/Slider';
import { useListening } from './use-listening';
import { RECORDING_FILES } from '../recording-files';
import { WORDS } from './words';

export function Tracks({ song }: { readonly song: Song }) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const { share, listen, cancel } = useListening();
  const tracks = song.tracks ?? [];
  const set = (all: readonly Track[]) => app.document.make({ type: 'set-tracks', song: song.id, tracks: [...all] });
  const change = (track: Track, more: Partial<Track>) =>
    set(tracks.map((one) => (one.id === track.id ? { ...one, ...more } : one)));
  const add = async (file: File | undefined) => {
    const heard = file && (await listen(file));
    if (!heard?.music) return;
    const offset = await offsetOf(song, heard, app.repository);
    // A stem of the same performance begins so that both sound together; anything else with the song.
    const alike = offset !== undefined && offset.alike >= ALIKE;
    const at = alike ? Math.round(-offset.seconds * 1000) / 1000 : 0;
    // Beside those that are there by now: somebody may have added one meanwhile.
    const now = app.document.store.getState().show?.songs.find(({ id }) => id === song.id)?.tracks ?? [];
    set([...now, { id: freshId() as Track['id'], name: heard.title, music: heard.music, at, level: 1 }]);
    say(alike ? WORDS.soundsTogetherMusic(heard.title) : WORDS.beginsSong(heard.title), {
      undo: app.document.takingBack(),
    });
  };
  return (
    <Column gap={10} role="group" aria-label={WORDS.besideTheMusic}>
      {tracks.map((track) => (
        <TrackForm
          key={track.id}
          track={track}
          onChange={(more) => change(track, more)}
          onRemove={() => {
            set(tracks.filter((one) => one !== track));
            say(WORDS.isRemoved(track.name), { undo: app.document.takingBack() });
          }}
        />
      ))}
      {share !== null ? (
        <Row gap={8} role="status">
          <Quiet flex={1}>{WORDS.listening(Math.round(share * 100))}</Quiet>
          <Button onPress={cancel}>{WORDS.cancel}</Button>
        </Row>
      ) : (
        tracks.length < MOST_TRACKS && (
          <Row>
            <FileButton
              label={WORDS.chooseRecordingBeside}
              accept={RECORDING_FILES}
              onFiles={([file]) => void add(file)}
            >
              {WORDS.addStemJingle}
            </FileButton>
          </Row>
        )
      )}
    </Column>
  );
}

type FormProps = {
  readonly track: Track;
  readonly onChange: (more: Partial<Track>) => void;
  readonly onRemove: () => void;
};

function TrackForm({ track, onChange, onRemove }: FormProps) {
  const palette = usePalette();
  return (
    <Column gap={8} role="group" aria-label={track.name}>
      <Row gap={8} alignItems="flex-end">
        <Column flex={1} minWidth={0}>
          <Typed label={WORDS.name} value={track.name} read={named} onChange={(name) => onChange({ name })} />
        </Column>
        <Column width={92}>
          <Typed
            label={WORDS.beginsAtS}
            value={track.at}
            read={decimal(-36_000, 36_000)}
            onChange={(at) => onChange({ at })}
            numeric
          />
        </Column>
        <Chip
          small
          name={WORDS.mute}
          label={WORDS.muteNamed(track.name)}
          on={track.muted === true}
          onPress={() => onChange({ muted: !track.muted })}
        />
        <Button label={WORDS.remove(track.name)} kind="quiet" onPress={onRemove}>
          <Trash size={18} color={palette.text} aria-hidden />
        </Button>
      </Row>
      <Slider
        label={WORDS.levelOf(track.name)}
        value={track.level * 100}
        low={0}
        high={100}
        step={5}
        unit="%"
        onChange={(level) => onChange({ level: level / 100 })}
      />
    </Column>
  );
}
