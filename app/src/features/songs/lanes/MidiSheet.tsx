// A MIDI file on its way into a song: what it holds, and what of it is taken. Nothing changes before that is pressed.

import { useState } from 'react';
import { counted } from '@hovlix/core/counted';
import type { MidiChoices, MidiMusic, MidiPart } from '@hovlix/core/midi';
import { drumOfNote, noteName } from '@hovlix/core/light';
import type { Show } from '@hovlix/core/show';
import type { Song } from '@hovlix/core/song';
import type { MidiFormat } from '../../../host/files/formats';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Choose } from '../../../ui/form';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { Switch } from '../../../ui/Switch';
import { WORDS } from './words';

type Props = {
  readonly song: Song;
  readonly show: Show;
  readonly name: string;
  readonly music: MidiMusic;
  /** What reads MIDI files, as it was fetched. */
  readonly format: MidiFormat;
  readonly onClose: () => void;
};

type PartChoice = MidiChoices['parts'][number];

export function MidiSheet({ song, show, name, music, format, onClose }: Props) {
  const { document } = useHovlix();
  const say = useSession((session) => session.say);
  const [choices, setChoices] = useState(() => format.usualChoices(music, song, show));
  const set = (more: Partial<MidiChoices>) => setChoices({ ...choices, ...more });
  const choose = (key: string, choice: PartChoice | undefined) =>
    set({ parts: [...choices.parts.filter(({ part }) => part !== key), ...(choice ? [choice] : [])] });
  const notes = music.parts
    .filter(({ key }) => choices.parts.some(({ part }) => part === key))
    .reduce((sum, part) => sum + part.notes.length, 0);
  const names = format.namesIn(music, song, choices.sections).length;
  const nothing = !choices.tempo && !choices.sections && !choices.cues && choices.parts.length === 0;
  const take = () => {
    const taken = format.takenFrom(music, song, show, choices, freshId);
    document.together(format.commandsOf(song.id, taken));
    const what = [
      taken.bars && 'bars and tempo',
      taken.sections && WORDS.sections(taken.sections.length),
      taken.markers && `${taken.markers.length} ${taken.markers.length === 1 ? 'marker' : 'markers'}`,
      taken.lanes.length > 0 && WORDS.ofHits(taken.lanes.length, taken.lanes.length === 1 ? 'lane' : 'lanes'),
    ].filter(Boolean);
    say([WORDS.from(name, what.join(', ') || 'nothing'), ...taken.left].join(' '), { undo: document.takingBack() });
    onClose();
  };
  return (
    <Sheet title={WORDS.importMidi} onClose={onClose}>
      <Column gap={4}>
        <Words fontWeight="600" numberOfLines={1}>
          {name}
        </Words>
        <Quiet>{wordsOf(music)}</Quiet>
        {music.left.map((one) => (
          <Words key={one} color="$warn" fontSize={13} lineHeight={18}>
            {one}
          </Words>
        ))}
      </Column>
      <Column>
        {!music.timed && <Switch label={WORDS.takeItsBars} on={choices.tempo} onChange={(tempo) => set({ tempo })} />}
        {music.markers.length > 0 && (
          <Switch
            label={music.markers.length === 1 ? WORDS.takeItsMarker : WORDS.takeItsMarkers(music.markers.length)}
            on={choices.sections}
            onChange={(sections) => set({ sections })}
          />
        )}
        {names > 0 && (
          <Switch
            label={
              names > music.cues.length
                ? WORDS.takeItsNames(names)
                : names === 1
                  ? WORDS.takeItsCue
                  : WORDS.takeItsCuePoints(names)
            }
            on={choices.cues}
            onChange={(cues) => set({ cues })}
          />
        )}
      </Column>
      <Column gap={14}>
        {music.parts.length === 0 && <Quiet>{WORDS.holdsNoNotes}</Quiet>}
        {music.parts.map((part) => (
          <Part
            key={part.key}
            part={part}
            show={show}
            choice={choices.parts.find((one) => one.part === part.key)}
            onChoose={(choice) => choose(part.key, choice)}
          />
        ))}
      </Column>
      <Row gap={8}>
        <Button kind="primary" disabled={nothing} onPress={take}>
          {notes > 0 ? WORDS.import(counted(notes, 'note')) : WORDS.importAlone}
        </Button>
        <Button kind="quiet" onPress={onClose}>
          {WORDS.cancel}
        </Button>
      </Row>
    </Sheet>
  );
}

type PartProps = {
  readonly part: MidiPart;
  readonly show: Show;
  readonly choice: PartChoice | undefined;
  readonly onChoose: (choice: PartChoice | undefined) => void;
};

const NEW = 'new';

function Part({ part, show, choice, onChoose }: PartProps) {
  const first = show.roles[0];
  const fresh = (): PartChoice | undefined => first && { part: part.key, role: first.id, kit: null, byNote: false };
  const pitches = [...new Set(part.notes.map(({ note }) => note))].sort((a, b) => a - b);
  return (
    <Column gap={8} role="group" aria-label={part.name} borderTopWidth={1} borderColor="$line" paddingTop={8}>
      <Switch
        label={`${part.name}: ${part.notes.length} ${part.notes.length === 1 ? 'note' : 'notes'}`}
        on={choice !== undefined}
        onChange={(on) => onChoose(on ? fresh() : undefined)}
      />
      <Quiet>{pitches.map((pitch) => (part.channel === 10 && drumOfNote(pitch)) || noteName(pitch)).join(', ')}</Quiet>
      {choice && (
        <>
          <Choose
            label={WORDS.plays}
            value={choice.role as string}
            choices={show.roles.map(({ id, name }) => ({ value: id as string, name }))}
            onChoose={(role) => onChoose({ ...choice, role: role as PartChoice['role'] })}
          />
          <Choose
            label={WORDS.hits}
            value={(choice.kit as string | null) ?? NEW}
            choices={[
              { value: NEW, name: `A new kit, with ${counted(pitches.length, 'hit')}` },
              ...show.kits.map(({ id, name }) => ({ value: id as string, name })),
            ]}
            hint={missingWords(show, choice, pitches)}
            onChoose={(kit) =>
              onChoose({ ...choice, kit: kit === NEW ? null : (kit as NonNullable<PartChoice['kit']>) })
            }
          />
          <Switch
            label={WORDS.laneEachNote}
            on={choice.byNote}
            onChange={(byNote) => onChoose({ ...choice, byNote })}
          />
        </>
      )}
    </Column>
  );
}

/** Which notes a kit that is there would leave silent. */
function missingWords(show: Show, { kit }: PartChoice, pitches: readonly number[]): string | undefined {
  const hits = show.kits.find(({ id }) => id === kit)?.hits;
  if (!hits) return undefined;
  const silent = pitches.filter(
    (pitch) => !hits.some(({ low, high }) => Math.min(low, high) <= pitch && pitch <= Math.max(low, high)),
  );
  return silent.length > 0 ? WORDS.nothingAnswersTo(silent.map(noteName).join(', ')) : undefined;
}

function wordsOf({ tempo, meter, markers, timed }: MidiMusic): string {
  const speeds = tempo.map(({ pulse }) => 60 / pulse);
  const [low, high] = [Math.min(...speeds).toFixed(1), Math.max(...speeds).toFixed(1)];
  return [
    timed ? WORDS.countsInSeconds : `${low === high ? low : WORDS.to(low, high)} bpm`,
    [...new Set(meter.map(({ numerator, denominator }) => `${numerator}/${denominator}`))].slice(0, 4).join(', '),
    markers.length > 0
      ? markers
          .slice(0, 6)
          .map(({ name }) => name)
          .join(', ')
      : 'no markers',
  ].join(' · ');
}
