// The end of the lead sheet: what the light does when the music is over.

import { useEffect, useState } from 'react';
import { View } from '@tamagui/core';
import { songRemarks, type SongRemark } from '@hovlix/core/show';
import type { Ending, Song } from '@hovlix/core/song';
import { useHovlix, useMay, usePlays, useShow } from '../../host/hovlix';
import { Choose } from '../../ui/form';
import { Column, Figures, Quiet, Words } from '../../ui/pieces';
import { Stepper } from '../../ui/Stepper';
import { WORDS } from './words';

const THEN = [
  { value: 'before', name: WORDS.bringBackLooks },
  { value: 'hold', name: WORDS.holdLastLight },
  { value: 'dark', name: WORDS.fadeToDark },
  { value: 'look', name: WORDS.fadeLook },
  { value: 'next', name: WORDS.playNextSong },
] as const;
type Then = (typeof THEN)[number]['value'];

const FADES = [0, 0.5, 1, 2, 4, 8, 16, 30];
const USUAL_FADE = 2;

type Props = { readonly song: Song; readonly onBar: (bar: number) => void };

export function SongEnd({ song, onBar }: Props) {
  const { document } = useHovlix();
  const may = useMay('operator');
  const looks = usePlays();
  const next = useShow((show) => show.songs[show.songs.findIndex(({ id }) => id === song.id) + 1]);
  const { ending } = song;
  const then: Then = ending?.then ?? 'before';
  const set = (to: Ending | null) => document.make({ type: 'set-ending', song: song.id, ending: to });
  const fade = ending && 'fade' in ending ? ending.fade : USUAL_FADE;
  const choose = (value: Then) => {
    const [first] = looks;
    if (value === 'before') set(null);
    else if (value === 'dark') set({ then: 'dark', fade });
    else if (value === 'look') first && set({ then: 'look', look: first.id, fade });
    else set({ then: value });
  };
  const name = THEN.find(({ value }) => value === then)!.name;
  if (!may) return <Quiet paddingVertical={12}>{WORDS.afterTheSong(name.toLowerCase())}</Quiet>;
  const shorter = FADES.findLast((one) => one < fade - 1e-9);
  const longer = FADES.find((one) => one > fade + 1e-9);
  const fades = (to: number | undefined) =>
    to !== undefined && ending && 'fade' in ending ? () => set({ ...ending, fade: to }) : undefined;
  return (
    <Column gap={10} paddingVertical={16} maxWidth={440} role="group" aria-label={WORDS.afterTheSongAlone}>
      <Remarks song={song} onBar={onBar} />
      <Choose
        label={WORDS.afterTheSongAlone}
        value={then}
        choices={THEN.filter(({ value }) => value !== 'look' || looks.length > 0)}
        hint={then === 'next' ? (next ? WORDS.comesNext(next.title) : WORDS.lastSongLast) : undefined}
        onChoose={choose}
      />
      {ending?.then === 'look' && (
        <Choose
          label={WORDS.lookAfterSong}
          value={ending.look as string}
          choices={looks.map((look) => ({ value: look.id as string, name: look.name }))}
          onChoose={(look) => set({ ...ending, look: look as typeof ending.look })}
        />
      )}
      {ending && 'fade' in ending && (
        <Stepper
          name={WORDS.fadeAfterSong}
          value={`${ending.fade} s`}
          less={WORDS.fadeAfterSongShorter}
          more={WORDS.fadeAfterSongLonger}
          onLess={fades(shorter)}
          onMore={fades(longer)}
        />
      )}
    </Column>
  );
}

const REMARKS_AFTER_MS = 400;

/** What will not come out as it was meant; a press goes to its bar. */
function Remarks({ song, onBar }: Props) {
  const show = useShow((one) => one);
  const [remarks, setRemarks] = useState<readonly SongRemark[]>([]);
  // They go through all that lies on the song: once nobody waits for the page.
  useEffect(() => {
    const wait = setTimeout(() => setRemarks(show ? songRemarks(show, song) : []), REMARKS_AFTER_MS);
    return () => clearTimeout(wait);
  }, [show, song]);
  if (remarks.length === 0) return null;
  return (
    <Column gap={4} role="group" aria-label={WORDS.worthALook}>
      <Words fontWeight="600">{WORDS.worthALook}</Words>
      {remarks.map(({ bar, text }) => (
        <View
          key={`${bar} ${text}`}
          render="button"
          disabled={bar === null}
          onPress={() => bar !== null && onBar(bar)}
          flexDirection="row"
          alignItems="center"
          gap={10}
          minHeight={44}
          padding={0}
          borderWidth={0}
          backgroundColor="transparent"
          cursor={bar === null ? 'default' : 'pointer'}
        >
          <Figures width={56} flexShrink={0} textAlign="left">
            {bar === null ? '' : WORDS.barInLine(bar + 1)}
          </Figures>
          <Words color="$warn" fontSize={14} textAlign="left" flexShrink={1}>
            {text}
          </Words>
        </View>
      ))}
    </Column>
  );
}
