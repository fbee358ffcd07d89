// The form of a song in one row: its sections as long as they are, to jump to.

import { useEffect, useState } from 'react';
import { Text, useMedia, View } from '@tamagui/core';
import { songTimeAt } from '@hovlix/core/live';
import { barsAt, barSpan, rehearsalMark, sectionAt, type Song } from '@hovlix/core/song';
import { useHovlix } from '../../host/hovlix';
import { eachFrame, REST_MS } from '../../ui/each-frame';
import { usePalette, useTints } from '../../ui/palette';
import { ScrollArea } from '../../ui/ScrollArea';
import { WORDS } from './words';

const LEAST_WIDTH = 44;
/** On a phone sections of fewer bars have their letter alone. */
const LONG = 6;
/** A name that is longer is cut, in pixels. */
const LONGEST_NAME = 200;

type Props = { readonly song: Song; readonly onGo: (bar: number) => void };

const LOOK_MS = 200;

/** The section in which the song is; the clock goes on without telling. */
function useSectionNow(song: Song): string | undefined {
  const { conducting } = useHovlix();
  const [now, setNow] = useState<string | undefined>(undefined);
  useEffect(() => {
    const look = () => {
      const live = conducting.store.getState().live.song;
      const here = live?.id === song.id ? live : null;
      const bar = here ? Math.floor(barsAt(song, songTimeAt(here, conducting.now())) + 1e-6) : undefined;
      setNow(bar === undefined ? undefined : sectionAt(song, bar)?.id);
      return here?.playing ? LOOK_MS : REST_MS;
    };
    return eachFrame(look, conducting.store.subscribe);
  }, [conducting, song]);
  return now;
}

export function SectionStrip({ song, onGo }: Props) {
  const tints = useTints();
  const palette = usePalette();
  const { wide } = useMedia();
  const { first, last } = barSpan(song);
  const shown = song.sections.filter(({ bar }) => bar <= last);
  const now = useSectionNow(song);
  if (shown.length === 0) return null;
  return (
    <ScrollArea sideways>
      <nav
        aria-label={WORDS.sections}
        style={{
          display: 'flex',
          minWidth: '100%',
          width: 'max-content',
          padding: '0 12px',
          boxSizing: 'border-box',
          gap: 3,
          borderBottom: `1px solid ${palette.line}`,
        }}
      >
        {shown.map((section, i) => {
          const begins = Math.max(first, section.bar);
          const bars = (shown[i + 1]?.bar ?? last + 1) - begins;
          const tint = tints[section.tint]!;
          const here = section.id === now;
          return (
            <View
              key={section.id}
              render="button"
              aria-label={WORDS.goTo(section.name)}
              aria-current={here ? 'true' : undefined}
              onPress={() => onGo(begins)}
              flexGrow={bars}
              flexBasis={0}
              minWidth="max-content"
              height={44}
              padding={0}
              borderWidth={0}
              backgroundColor="transparent"
              cursor="pointer"
              justifyContent="center"
            >
              <View
                minWidth={LEAST_WIDTH}
                height={26}
                borderRadius={6}
                justifyContent="center"
                paddingHorizontal={7}
                backgroundColor={here ? (tint as '$text') : '$sunken'}
                borderBottomWidth={3}
                borderColor={tint as '$text'}
              >
                <Text
                  fontFamily="$heading"
                  fontWeight="650"
                  fontSize={13}
                  lineHeight={18}
                  color={here ? '$ground' : (tint as '$text')}
                  whiteSpace="nowrap"
                  maxWidth={LONGEST_NAME}
                  overflow="hidden"
                  textOverflow="ellipsis"
                >
                  {rehearsalMark(song.sections.indexOf(section))}
                  {wide || bars >= LONG ? ` ${section.name}` : ''}
                </Text>
              </View>
            </View>
          );
        })}
      </nav>
    </ScrollArea>
  );
}
