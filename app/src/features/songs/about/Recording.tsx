// The recording of a song, and another in its place: the light stays on its bars.

import { useState } from 'react';
import { ALIKE } from '@hovlix/core/music';
import type { OneCommand } from '@hovlix/core/show';
import { counted } from '@hovlix/core/counted';
import { sectionsOn, timeOfBar, type Song } from '@hovlix/core/song';
import { beatAt, beatOfBar, meterAtBar, pulseLength } from '@hovlix/core/time';
import { beats, seconds } from '@hovlix/core/units';
import { offsetOf } from '../../../host/files/bring-in';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { FileButton } from '../../../ui/FileButton';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Switch } from '../../../ui/Switch';
import { meterText, songBpm } from '../model';
import { Tracks } from './Tracks';
import { useListening } from './use-listening';
import { RECORDING_FILES } from '../recording-files';
import { WORDS } from './words';

/** A recording that was listened to, and how much later it is than the one it may replace. */
type Found = { readonly song: Song; readonly later: number | null };

export function Recording({ song }: { readonly song: Song }) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const { share, listen, cancel } = useListening();
  const [found, setFound] = useState<Found | null>(null);
  const bring = async (file: File | undefined) => {
    const heard = file && (await listen(file));
    if (!heard) return;
    const offset = await offsetOf(song, heard, app.repository);
    setFound({ song: heard, later: offset && offset.alike >= ALIKE ? offset.seconds : null });
  };
  const again = async () => {
    const music = song.music && (await app.musicOf(song.music.hash));
    if (music && song.music) return bring(new File([music.bytes], song.music.name));
    say(WORDS.musicSongNot, { tone: 'bad' });
  };
  const take = ({ anchors, meterToo = false, sectionsToo }: Taken) => {
    if (!found) return;
    const { music, duration, meter } = found.song;
    const commands: OneCommand[] = [
      { type: 'set-music', song: song.id, music, duration, ...(anchors ? { anchors } : {}) },
    ];
    // One meter throughout comes with its beats; changes of meter stand on bars that may be counted from elsewhere.
    const meters = meterToo && meter.length === 1 ? meter : song.meter;
    if (anchors && meters !== song.meter) commands.push({ type: 'set-bars', song: song.id, anchors, meter: meters });
    if (sectionsToo) {
      const bars = { tempo: anchors ? { anchors } : song.tempo, meter: meters };
      commands.push({ type: 'set-sections', song: song.id, sections: sectionsOn(bars, found.song) });
    }
    if (!app.document.together(commands)) return;
    app.player.pause();
    const same = music?.hash === song.music?.hash;
    say(same ? WORDS.wasHeardAgain(song.title) : WORDS.hasAnotherRecording(song.title), {
      undo: app.document.takingBack(),
    });
    setFound(null);
  };

  return (
    <Column gap={8} role="group" aria-label={WORDS.recording}>
      <Words fontWeight="600">{WORDS.recording}</Words>
      <Quiet>{song.music ? song.music.name : 'None: the song has bars and a tempo only.'}</Quiet>
      {share !== null ? (
        <Row gap={8} role="status">
          <Quiet flex={1}>{WORDS.listening(Math.round(share * 100))}</Quiet>
          <Button onPress={cancel}>{WORDS.cancel}</Button>
        </Row>
      ) : found ? (
        <Proposal song={song} found={found} onTake={take} onLeave={() => setFound(null)} />
      ) : (
        <Row gap={8} flexWrap="wrap">
          <FileButton label={WORDS.chooseARecording} accept={RECORDING_FILES} onFiles={([file]) => void bring(file)}>
            {song.music ? WORDS.replaceTheRecording : WORDS.addARecording}
          </FileButton>
          {song.music && <Button onPress={() => void again()}>{WORDS.listenAgain}</Button>}
        </Row>
      )}
      <Tracks song={song} />
    </Column>
  );
}

/** What is taken of a recording: without anchors the song keeps its beats. */
type Taken = {
  readonly anchors: Song['tempo']['anchors'] | undefined;
  readonly meterToo?: boolean;
  readonly sectionsToo: boolean;
};

type ProposalProps = {
  readonly song: Song;
  readonly found: Found;
  readonly onTake: (taken: Taken) => void;
  readonly onLeave: () => void;
};

function Proposal({ song, found: { song: heard, later }, onTake, onLeave }: ProposalProps) {
  const how =
    later === null
      ? ''
      : Math.abs(later) < 0.005
        ? 'at the same moment'
        : `${Math.abs(later).toFixed(2)} s ${later > 0 ? 'later' : 'earlier'}`;
  const some = heard.sections.length;
  const [sectionsToo, setSectionsToo] = useState(some > 0 && song.sections.length === 0);
  return (
    <Column gap={8} role="status">
      <Words>
        {later === null
          ? WORDS.isAnotherPerformance(heard.music!.name, song.music ? ' than the one before' : '')
          : WORDS.samePerformance(heard.music!.name, how)}
      </Words>
      <Quiet>{WORDS.nowFound(barsOf(song), barsOf(heard))}</Quiet>
      {some > 0 && (
        <Switch
          label={`Take the ${counted(some, 'section')} found in it${song.sections.length > 0 ? `, in place of ${song.sections.length}` : ''}`}
          on={sectionsToo}
          onChange={setSectionsToo}
        />
      )}
      <Quiet>{WORDS.lightStaysIts}</Quiet>
      <Row gap={8} flexWrap="wrap">
        {later !== null && (
          <Button
            kind="primary"
            onPress={() => onTake({ anchors: later === 0 ? undefined : movedBy(song, later), sectionsToo })}
          >
            {WORDS.barsAsThey}
          </Button>
        )}
        <Button
          {...(later === null ? { kind: 'primary' as const } : {})}
          onPress={() => onTake({ anchors: ownBeats(song, heard, later), meterToo: true, sectionsToo })}
        >
          {WORDS.beatsFound}
        </Button>
        <Button kind="quiet" onPress={onLeave}>
          {WORDS.leaveIt}
        </Button>
      </Row>
    </Column>
  );
}

const barsOf = (song: Song): string =>
  WORDS.bpmBar1(songBpm(song).toFixed(1), meterText(song), timeOfBar(song, 0).toFixed(2));

const movedBy = ({ tempo }: Song, later: number): Song['tempo']['anchors'] =>
  tempo.anchors.map(({ beat, time }) => ({ beat, time: seconds(time + later) }));

/** Its own beats, counted so that bar 1 is where it was; where that is not known, where it was found. */
function ownBeats(song: Song, heard: Song, later: number | null): Song['tempo']['anchors'] {
  if (later === null) return heard.tempo.anchors;
  const there = beatAt(heard.tempo, seconds(timeOfBar(song, 0) + later));
  const pulse = pulseLength(meterAtBar(heard.meter, 0));
  const shift = Math.round((there - beatOfBar(heard.meter, 0)) / pulse) * pulse;
  return heard.tempo.anchors.map(({ beat, time }) => ({ beat: beats(beat - shift), time }));
}
