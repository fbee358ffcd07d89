// The night: what is on, where in it we are, what comes next, and looks as pads.

import { useEffect, useRef } from 'react';
import { useRouter } from 'expo-router';
import { Text, View } from '@tamagui/core';
import { barSpan, rehearsalMark, type Song } from '@hovlix/core/song';
import { songTimeAt } from '@hovlix/core/live';
import { toggleLook, togglePlay } from '../../host/gestures';
import { useHovlix, useLive, useShow } from '../../host/hovlix';
import { LookPicture } from '../../ui/LookPicture';
import { usePalette, useTints } from '../../ui/palette';
import { Button, Column, Figures, Quiet, Row, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { gigPlace } from './model';

export function GigPlace() {
  const app = useHovlix();
  const router = useRouter();
  const show = useShow((one) => one);
  const current = useLive((live) => live.song?.id ?? null);
  const playing = useLive((live) => live.song?.playing ?? false);
  const songs = show?.songs ?? [];
  const at = Math.max(
    0,
    songs.findIndex((song) => song.id === current),
  );
  const song = songs[at];
  const next = songs[at + 1];
  if (!show || !song)
    return (
      <Column padding={24} gap={12} alignItems="flex-start">
        <Text render="h1" margin={0} fontFamily="$heading" fontSize={26} lineHeight={30} fontWeight="650" color="$text">
          Gig
        </Text>
        <Words>The set list is empty. Add a song and it stands here on the night.</Words>
        <Button kind="primary" onPress={() => router.push('/songs')}>
          To the songs
        </Button>
      </Column>
    );
  return (
    <ScrollArea>
      <Column paddingHorizontal={16} paddingTop={14} gap={6}>
        <Quiet>
          {at + 1} of {songs.length} · {show.name}
        </Quiet>
        <Text
          render="h1"
          margin={0}
          fontFamily="$heading"
          fontWeight="650"
          fontSize={31}
          lineHeight={36}
          color="$text"
          numberOfLines={1}
        >
          {song.title}
        </Text>
        <Where song={song} />
        <Row gap={8} paddingTop={6}>
          <View flex={1}>
            <Button kind="primary" onPress={() => togglePlay(app, song)}>
              {playing && current === song.id ? 'Pause' : `Play ${song.title}`}
            </Button>
          </View>
          {next && (
            <View flex={1}>
              <Button label={`Next song: ${next.title}`} onPress={() => void app.player.play(next, 0)}>
                <Words numberOfLines={1} fontWeight="600">
                  Next: {next.title}
                </Words>
              </Button>
            </View>
          )}
        </Row>
      </Column>
      <div
        style={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(168px, 1fr))', gap: 12, padding: 12 }}
      >
        {show.looks.slice(0, 9).map((look, i) => (
          <Pad key={look.id} look={look.id} name={look.name} digit={i + 1} />
        ))}
      </div>
      <Column paddingHorizontal={16} gap={4}>
        <Text render="h2" margin={0} fontFamily="$heading" fontWeight="650" fontSize={16} lineHeight={22} color="$text">
          Set list
        </Text>
        {songs.map((one, i) => (
          <View
            key={one.id}
            render="button"
            aria-label={`Go to ${one.title}`}
            aria-current={one.id === song.id}
            onPress={() => app.player.seek(one, 0)}
            flexDirection="row"
            alignItems="center"
            gap={12}
            minHeight={48}
            padding={0}
            borderWidth={0}
            backgroundColor="transparent"
            cursor="pointer"
          >
            <Figures color={one.id === song.id ? '$doingText' : '$quiet'}>{String(i + 1).padStart(2, '0')}</Figures>
            <Words fontWeight={one.id === song.id ? '600' : '400'}>{one.title}</Words>
          </View>
        ))}
      </Column>
    </ScrollArea>
  );
}

/** The section, the bar in it, and what comes then; moved by the clock. */
function Where({ song }: { readonly song: Song }) {
  const app = useHovlix();
  const palette = usePalette();
  const tints = useTints();
  const mark = useRef<HTMLElement>(null);
  const name = useRef<HTMLElement>(null);
  const count = useRef<HTMLElement>(null);
  const then = useRef<HTMLElement>(null);
  const cells = useRef<HTMLDivElement>(null);
  useEffect(() => {
    let frame = 0;
    let shown = '';
    const { last } = barSpan(song);
    const draw = () => {
      frame = requestAnimationFrame(draw);
      const live = app.conducting.store.getState().live.song;
      const time = live?.id === song.id ? songTimeAt(live, app.conducting.now()) : 0;
      const place = gigPlace(song, time, last);
      const key = `${place.section?.id} ${place.bar} ${place.of}`;
      if (key === shown) return;
      shown = key;
      const tint = place.section ? tints[place.section.tint]! : palette.quiet;
      const set = (ref: React.RefObject<HTMLElement | null>, text: string, colour?: string) => {
        if (!ref.current) return;
        ref.current.textContent = text;
        if (colour) ref.current.style.color = colour;
      };
      set(mark, place.section ? rehearsalMark(song.sections.indexOf(place.section)) : '·', tint);
      if (mark.current) mark.current.style.borderColor = tint;
      set(name, place.section?.name ?? 'No section yet', tint);
      set(count, `bar ${place.bar} of ${place.of}`);
      set(then, place.next ? `then ${place.next.name}` : 'then the end');
      const dots = Math.min(16, place.of);
      cells.current?.replaceChildren(
        ...Array.from({ length: dots }, (_, i) => {
          const cell = window.document.createElement('span');
          const here = Math.floor(((place.bar - 1) / place.of) * dots);
          cell.style.cssText = `flex:1;height:8px;border-radius:4px;background:${i < here ? palette.text : i === here ? palette.doing : palette.line}`;
          return cell;
        }),
      );
    };
    draw();
    return () => cancelAnimationFrame(frame);
  }, [app, song, palette, tints]);
  return (
    <Column gap={8}>
      <Row justifyContent="space-between" gap={8}>
        <Row gap={10} flexShrink={1} minWidth={0}>
          <Text
            ref={mark as never}
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
            ref={name as never}
            fontFamily="$heading"
            fontWeight="650"
            fontSize={20}
            lineHeight={26}
            whiteSpace="nowrap"
          />
        </Row>
        <Figures
          ref={count as never}
          fontSize={20}
          lineHeight={26}
          fontWeight="600"
          color="$text"
          whiteSpace="nowrap"
          testID="gig-bar"
        />
      </Row>
      <div ref={cells} style={{ display: 'flex', gap: 4 }} aria-hidden />
      <Quiet ref={then as never} />
    </Column>
  );
}

function Pad({ look, name, digit }: { readonly look: string; readonly name: string; readonly digit: number }) {
  const app = useHovlix();
  const on = useLive((live) => live.standing.some((one) => one.look === look && one.on));
  const armed = useLive((live) => live.blackout.on || (live.song?.playing ?? false));
  return (
    <View
      render="button"
      aria-label={`${name}, key ${digit}, ${on ? 'on' : 'off'}`}
      aria-pressed={on}
      onPress={() => toggleLook(app, look as never)}
      height={104}
      padding={0}
      borderRadius={14}
      overflow="hidden"
      borderWidth={2}
      borderStyle={on && armed ? 'dashed' : 'solid'}
      borderColor={on ? (armed ? '$warn' : '$doing') : '$line'}
      backgroundColor="#000"
      cursor="pointer"
      position="relative"
      pressStyle={{ opacity: 0.8 }}
      minWidth={0}
    >
      <LookPicture look={look} height={100} />
      <View
        position="absolute"
        left={0}
        right={0}
        bottom={0}
        height={56}
        style={{ background: 'linear-gradient(transparent, rgba(8,6,10,.88))' }}
      />
      <Text
        position="absolute"
        left={10}
        bottom={8}
        right={10}
        textAlign="left"
        fontFamily="$heading"
        fontWeight="650"
        fontSize={17}
        lineHeight={22}
        color="#fff"
        numberOfLines={1}
      >
        {name}
      </Text>
      <Row position="absolute" left={10} right={10} top={6} justifyContent="space-between">
        <Text fontFamily="$body" fontSize={13} lineHeight={18} fontWeight="600" color="#fff">
          {on ? (armed ? 'armed' : 'on') : ''}
        </Text>
        <Text fontFamily="$mono" fontSize={13} lineHeight={18} color="#fff">
          {digit}
        </Text>
      </Row>
    </View>
  );
}
