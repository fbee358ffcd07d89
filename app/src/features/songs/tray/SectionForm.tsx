// A section begins at a bar: its name and colour, and a note on what the light should do.

import { useState } from 'react';
import { View } from '@tamagui/core';
import { barsOfSection, kindOfSection, sectionAt, type Section, type Song } from '@hovlix/core/song';
import { id } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Chip } from '../../../ui/Chip';
import { Field } from '../../../ui/Field';
import { useTints } from '../../../ui/palette';
import { Button, Column, Row } from '../../../ui/pieces';
import { Stepper } from '../../../ui/Stepper';
import { Choices } from '../Choices';
import { barLabel, type BarRange } from '../model';
import { kindsFor, nextName } from '../words';
import { useCopying } from './CopyRow';
import { WORDS } from './words';

type Props = {
  readonly song: Song;
  readonly bar: number;
  /** Another bar is worked on. */
  readonly onRange: (range: BarRange) => void;
  readonly onDone: () => void;
};

export function SectionForm({ song, bar, onRange, onDone }: Props) {
  const { document } = useHovlix();
  const say = useSession((session) => session.say);
  const existing = song.sections.find((section) => section.bar === bar);
  const [name, setName] = useState(existing?.name ?? '');
  const [note, setNote] = useState(existing?.note ?? '');
  const before = song.sections.findLast((section) => section.bar < bar);
  const mark = (section: Section) => document.make({ type: 'mark-section', song: song.id, section });
  const save = () => {
    if (!name.trim()) return;
    const alike = song.sections.find((section) => kindOfSection(section.name) === kindOfSection(name.trim()));
    mark({
      id: existing?.id ?? id<'Section'>(freshId()),
      bar,
      name: name.trim().slice(0, 120),
      note: note.trim().slice(0, 400),
      tint: existing?.tint ?? alike?.tint ?? song.sections.length % 8,
    });
    onDone();
  };
  const join = () => {
    if (!existing) return;
    document.make({ type: 'unmark-section', song: song.id, section: existing.id });
    say(before ? WORDS.partNow(existing.name, before.name) : WORDS.isRemoved(existing.name), {
      undo: document.takingBack(),
    });
    onDone();
  };
  return (
    <Column gap={8} role="group" aria-label={WORDS.section}>
      {!existing && (
        <Choices label={WORDS.kindsOfSections}>
          {kindsFor(song).map((kind) => (
            <Chip
              key={kind}
              small
              name={nextName(song, kind)}
              on={name === nextName(song, kind)}
              onPress={() => setName(nextName(song, kind))}
            />
          ))}
        </Choices>
      )}
      <Column paddingHorizontal={16} gap={8}>
        <Field label={WORDS.sectionName} value={name} onChange={setName} placeholder={WORDS.verse1} onEnter={save} />
        <Field
          label={WORDS.whatLightShould}
          value={note}
          onChange={setNote}
          placeholder={WORDS.onlyBlueWait}
          onEnter={save}
        />
        {existing && <Tints section={existing} onChoose={(tint) => mark({ ...existing, tint })} />}
      </Column>
      <Choices label={WORDS.whatBecomesSection}>
        <Button kind="primary" onPress={save} disabled={!name.trim()}>
          {existing ? WORDS.changeSection : WORDS.beginSectionHere}
        </Button>
        {existing && (
          <Begins
            song={song}
            section={existing}
            onMove={(to) => {
              mark({ ...existing, bar: to });
              onRange(barsOfSection({ ...song, sections: moved(song, existing, to) }, to));
            }}
          />
        )}
        {existing && <Button onPress={join}>{before ? WORDS.joinWith(before.name) : WORDS.remove}</Button>}
        {existing && <AgainButton song={song} section={existing} onRange={onRange} />}
      </Choices>
    </Column>
  );
}

const moved = (song: Song, section: Section, bar: number): Section[] =>
  song.sections.map((one) => (one.id === section.id ? { ...one, bar } : one)).sort((a, b) => a.bar - b.bar);

function Tints({ section, onChoose }: { readonly section: Section; readonly onChoose: (tint: number) => void }) {
  const tints = useTints();
  return (
    <Row justifyContent="space-between" role="group" aria-label={WORDS.colourSection} maxWidth={380}>
      {tints.map((tint, i) => (
        <View
          key={tint}
          render="button"
          aria-label={WORDS.colour(i + 1)}
          aria-pressed={section.tint === i}
          onPress={() => onChoose(i)}
          flex={1}
          minWidth={0}
          height={44}
          alignItems="center"
          justifyContent="center"
          padding={0}
          borderWidth={0}
          backgroundColor="transparent"
          cursor="pointer"
        >
          <View
            width={28}
            height={28}
            borderRadius={14}
            backgroundColor={tint as '$text'}
            borderWidth={section.tint === i ? 3 : 0}
            borderColor="$text"
          />
        </View>
      ))}
    </Row>
  );
}

/** A section's first bar, a bar earlier or later; it passes none of its neighbours. */
function Begins({
  song,
  section,
  onMove,
}: {
  readonly song: Song;
  readonly section: Section;
  readonly onMove: (bar: number) => void;
}) {
  const span = barsOfSection(song, section.bar);
  const before = song.sections.findLast(({ bar }) => bar < section.bar);
  const first = before ? before.bar + 1 : undefined;
  return (
    <Stepper
      name={WORDS.beginsAt}
      value={`bar ${barLabel(section.bar)}`}
      less={WORDS.sectionBeginsBar}
      more={WORDS.sectionBeginsBarLater}
      onLess={first !== undefined && section.bar <= first ? undefined : () => onMove(section.bar - 1)}
      onMore={section.bar >= span.last ? undefined : () => onMove(section.bar + 1)}
    />
  );
}

/** The same section once more, right behind this one, with its light: a chorus that comes twice. */
function AgainButton({
  song,
  section,
  onRange,
}: {
  readonly song: Song;
  readonly section: Section;
  readonly onRange: (range: BarRange) => void;
}) {
  const { document } = useHovlix();
  const { laying } = useCopying(song);
  const say = useSession((session) => session.say);
  const span = barsOfSection(song, section.bar);
  const next = barsOfSection(song, span.last + 1);
  const length = span.last - span.first + 1;
  if (sectionAt(song, span.last + 1) === undefined || next.first !== span.last + 1) return null;
  const again = () => {
    const name = nextName(song, section.name.replace(/[\s\d.#]+$/, ''));
    const bar = span.last + 1;
    const onto = { first: bar, last: Math.min(next.last, bar + length - 1) };
    const rest = song.sections.find((one) => one.bar === bar);
    const marks = [
      {
        type: 'mark-section' as const,
        song: song.id,
        section: { ...section, id: id<'Section'>(freshId()), bar, name },
      },
      // What was there goes on behind it.
      ...(rest && onto.last < next.last
        ? [{ type: 'mark-section' as const, song: song.id, section: { ...rest, bar: onto.last + 1 } }]
        : []),
    ];
    if (!document.together([...marks, laying(span, onto)])) return;
    say(WORDS.followsLitLike(name, section.name), { undo: document.takingBack() });
    onRange(onto);
  };
  return <Button onPress={again}>{WORDS.repeatBehindIt}</Button>;
}
