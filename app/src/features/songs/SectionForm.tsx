// A section begins at a bar: its name, and a note on what the light should do.

import { useState } from 'react';
import type { Song } from '@hovlix/core/song';
import { id } from '@hovlix/core/units';
import { freshId } from '../../host/fresh-id';
import { useHovlix } from '../../host/hovlix';
import { Button, Column, Row } from '../../ui/pieces';
import { Field } from '../../ui/Field';

export function SectionForm({
  song,
  bar,
  onDone,
}: {
  readonly song: Song;
  readonly bar: number;
  readonly onDone: () => void;
}) {
  const app = useHovlix();
  const existing = song.sections.find((section) => section.bar === bar);
  const [name, setName] = useState(existing?.name ?? '');
  const [note, setNote] = useState(existing?.note ?? '');
  const save = () => {
    if (!name.trim()) return;
    const tint = song.sections.find((section) => section.name === name.trim())?.tint ?? song.sections.length % 8;
    app.document.make({
      type: 'mark-section',
      song: song.id,
      section: {
        id: existing?.id ?? id<'Section'>(freshId()),
        bar,
        name: name.trim().slice(0, 120),
        note: note.trim().slice(0, 400),
        tint: existing?.tint ?? tint,
      },
    });
    onDone();
  };
  return (
    <Column paddingHorizontal={16} gap={8}>
      <Field label="Section name" value={name} onChange={setName} placeholder="Verse 1" onEnter={save} />
      <Field
        label="What the light should do"
        value={note}
        onChange={setNote}
        placeholder="only blue, wait for the drummer"
        onEnter={save}
      />
      <Row gap={8} justifyContent="flex-end">
        {existing && (
          <Button
            onPress={() => {
              app.document.make({ type: 'unmark-section', song: song.id, section: existing.id });
              onDone();
            }}
          >
            Remove
          </Button>
        )}
        <Button kind="primary" onPress={save} disabled={!name.trim()}>
          {existing ? 'Change section' : 'Begin section here'}
        </Button>
      </Row>
    </Column>
  );
}
