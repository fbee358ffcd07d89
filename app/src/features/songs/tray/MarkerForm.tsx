// Markers of the chosen bars: a name at a beat, for anything that is no section.

import { useState } from 'react';
import Trash from 'lucide-react-native/icons/trash';
import type { Marker, Song } from '@hovlix/core/song';
import { beats, id } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { Field } from '../../../ui/Field';
import { named, Typed } from '../../../ui/form';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Row } from '../../../ui/pieces';
import { beatOfPlace, placeText, readPlace } from '../close-up/grid';
import { WORDS } from './words';

type Props = { readonly song: Song; readonly from: number; readonly to: number; readonly onDone: () => void };

export function MarkerForm({ song, from, to, onDone }: Props) {
  const { document } = useHovlix();
  const palette = usePalette();
  const [name, setName] = useState('');
  const all = song.markers ?? [];
  const set = (markers: readonly Marker[]) =>
    document.make({ type: 'set-markers', song: song.id, markers: [...markers] });
  const change = (marker: Marker, more: Partial<Marker>) =>
    set(all.map((one) => (one.id === marker.id ? { ...one, ...more } : one)));
  const add = () => {
    if (!name.trim()) return;
    set([...all, { id: id<'Marker'>(freshId()), at: beats(from), name: name.trim().slice(0, 120) }]);
    setName('');
    onDone();
  };
  const here = all.filter(({ at }) => at >= from && at < to);
  return (
    <Column paddingHorizontal={16} gap={8} role="group" aria-label={WORDS.markers}>
      {here.map((marker) => (
        <Row key={marker.id} gap={8} alignItems="flex-end">
          <Column flex={1}>
            <Typed
              label={WORDS.marker}
              value={marker.name}
              read={named}
              onChange={(to) => change(marker, { name: to })}
            />
          </Column>
          <Column width={96}>
            <Typed
              label={WORDS.barAndBeat}
              value={placeText(song, marker.at)}
              read={readPlace(song)}
              patient
              onChange={(text) => {
                const at = beatOfPlace(song, text);
                if (at !== undefined) change(marker, { at: beats(at) });
              }}
              numeric
            />
          </Column>
          <Button
            label={WORDS.deleteMarker(marker.name)}
            kind="quiet"
            onPress={() => set(all.filter((one) => one !== marker))}
          >
            <Trash size={18} color={palette.text} aria-hidden />
          </Button>
        </Row>
      ))}
      <Row gap={8} alignItems="flex-end">
        <Column flex={1}>
          <Field
            label={WORDS.newMarker}
            value={name}
            onChange={setName}
            placeholder={WORDS.guitarChange}
            onEnter={add}
          />
        </Column>
        <Button kind="primary" onPress={add} disabled={!name.trim()}>
          {WORDS.setMarker}
        </Button>
      </Row>
    </Column>
  );
}
