// Where in the song one is.

import { useEffect, useMemo, useRef } from 'react';
import { Text, useMedia, type TamaguiWebElement } from '@tamagui/core';
import { songTimeAt } from '@hovlix/core/live';
import { barSpan, endingWords, gigPlace, rehearsalMark, type Song } from '@hovlix/core/song';
import { useHovlix, usePlays, useShow } from '../../../host/hovlix';
import { eachFrame, REST_MS } from '../../../ui/each-frame';
import { usePalette, useTints } from '../../../ui/palette';
import { Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { WORDS } from './words';

/** A bar is told so soon after it begins, in ms. */
const LOOK_MS = 40;

/** The section, the bar in it, and what comes then; moved by the clock. */
export function Where({ song }: { readonly song: Song }) {
  const app = useHovlix();
  const palette = usePalette();
  const tints = useTints();
  const { short, flat } = useMedia();
  const plays = usePlays();
  const next = useShow((show) => show.songs[show.songs.findIndex(({ id }) => id === song.id) + 1]?.title);
  const ends = useMemo(
    () => endingWords(song, new Map(plays.map(({ id, name }) => [id, name])), next),
    [song, plays, next],
  );
  const mark = useRef<TamaguiWebElement>(null);
  const name = useRef<TamaguiWebElement>(null);
  const count = useRef<TamaguiWebElement>(null);
  const then = useRef<TamaguiWebElement>(null);
  const note = useRef<TamaguiWebElement>(null);
  const cells = useRef<HTMLDivElement>(null);
  useEffect(() => {
    let shown = '';
    const { last } = barSpan(song);
    const draw = () => {
      const live = app.conducting.store.getState().live.song;
      const time = live?.id === song.id ? songTimeAt(live, app.conducting.now()) : 0;
      const place = gigPlace(song, time, last);
      const key = `${place.section?.id} ${place.bar} ${place.of}`;
      const rest = live?.playing ? LOOK_MS : REST_MS;
      if (key === shown) return rest;
      shown = key;
      const tint = place.section ? tints[place.section.tint]! : palette.quiet;
      const set = (ref: React.RefObject<HTMLElement | null>, text: string, colour?: string) => {
        if (!ref.current) return;
        ref.current.textContent = text;
        if (colour) ref.current.style.color = colour;
      };
      set(mark, place.section ? rehearsalMark(song.sections.indexOf(place.section)) : '·', tint);
      if (mark.current) mark.current.style.borderColor = tint;
      set(name, place.section?.name ?? WORDS.noSectionYet, tint);
      set(count, WORDS.barOf(place.bar, place.of));
      set(note, place.section?.note ?? '');
      set(then, WORDS.then(place.next?.name ?? ends));
      const dots = Math.min(16, place.of);
      cells.current?.replaceChildren(
        ...Array.from({ length: dots }, (_, i) => {
          const cell = window.document.createElement('span');
          const here = Math.floor(((place.bar - 1) / place.of) * dots);
          cell.style.cssText = `flex:1;height:8px;border-radius:4px;background:${i < here ? palette.text : i === here ? palette.doing : palette.line}`;
          return cell;
        }),
      );
      return rest;
    };
    return eachFrame(draw, app.conducting.store.subscribe);
    // Turned sideways a phone has no room for the bars; turned back they are drawn anew.
  }, [app, song, palette, tints, ends, short, flat]);
  return (
    // On its side all of it is one line, where that has room for the note.
    <Column
      gap={short ? 2 : 8}
      {...(flat ? { flexDirection: 'row', flexWrap: 'wrap', columnGap: 16, alignItems: 'center' } : {})}
    >
      <Row justifyContent="space-between" gap={8} flexGrow={flat ? 1 : 0}>
        <Row gap={10} flexShrink={1} minWidth={0}>
          <Text
            ref={mark}
            width={30}
            height={30}
            borderWidth={1.5}
            borderStyle="solid"
            borderRadius={6}
            textAlign="center"
            fontFamily="$heading"
            fontWeight="650"
            fontSize={16}
            lineHeight={27}
          />
          <Text
            ref={name}
            fontFamily="$heading"
            fontWeight="650"
            fontSize={20}
            lineHeight={26}
            numberOfLines={1}
            flexShrink={1}
            minWidth={0}
          />
        </Row>
        <Figures
          ref={count}
          fontSize={20}
          lineHeight={26}
          fontWeight="600"
          color="$text"
          whiteSpace="nowrap"
          testID="gig-bar"
        />
      </Row>
      {!short && <div ref={cells} style={{ display: 'flex', gap: 4 }} data-testid="gig-bars" aria-hidden />}
      <Row
        justifyContent="space-between"
        gap={12}
        alignItems="baseline"
        {...(flat ? { flexGrow: 1, flexBasis: 260 } : {})}
      >
        <Words ref={note} fontStyle="italic" testID="gig-note" flexShrink={1} minWidth={0} numberOfLines={1} />
        <Quiet ref={then} flexShrink={0} />
      </Row>
    </Column>
  );
}
