// The sections of the song as places to go to: at the next bar line while it plays.

import { useEffect, useRef } from 'react';
import { useMedia, View, type TamaguiWebElement } from '@tamagui/core';
import Repeat from 'lucide-react-native/icons/repeat';
import { jumpAhead, loopsNow, placeAt, sectionNow, sectionOfTime, toSection } from '@hovlix/core/live';
import { rehearsalMark, timeOfBar, type Section, type Song } from '@hovlix/core/song';
import { doAct, run } from '../../../host/controls/act';
import { momentOf } from '../../../host/conduct/gestures';
import { useHovlix, useLive } from '../../../host/hovlix';
import { usePalette, useTints } from '../../../ui/palette';
import { Row, Words } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { useMoment } from '../use-moment';
import { WORDS } from './words';

export function Sections({ song }: { readonly song: Song }) {
  const app = useHovlix();
  const isOn = useLive((live) => live.song?.id === song.id);
  const here = useMoment((moment) => (isOn ? sectionNow(moment)?.id : undefined));
  /** The section that is come to at the next bar line. */
  const ahead = useMoment((moment) => {
    const jump = moment.live.song ? jumpAhead(moment.live.song, moment.now) : undefined;
    return jump && sectionOfTime(song, jump.to)?.id;
  });
  const loops = useMoment(loopsNow) ?? false;
  if (song.sections.length === 0) return null;
  const go = (section: Section) => {
    const moment = momentOf(app);
    if (!moment) return;
    if (!isOn || !moment.live.song) return app.player.seek(song, Math.max(0, timeOfBar(song, section.bar)));
    void run(app, toSection(moment, section, placeAt(moment).set, loopsNow(moment)));
  };
  return (
    <ScrollArea sideways>
      <Row gap={6} paddingHorizontal={14} role="group" aria-label={WORDS.sections}>
        <LoopKey on={loops} onPress={() => doAct(app, { act: 'loop' })} />
        {song.sections.map((section, i) => (
          <SectionKey
            key={section.id}
            section={section}
            mark={rehearsalMark(i)}
            here={section.id === here}
            ahead={section.id === ahead}
            onPress={() => go(section)}
          />
        ))}
      </Row>
    </ScrollArea>
  );
}

function LoopKey({ on, onPress }: { readonly on: boolean; readonly onPress: () => void }) {
  const palette = usePalette();
  return (
    <View
      render="button"
      aria-label={WORDS.loopThisSection}
      aria-pressed={on}
      onPress={onPress}
      width={44}
      height={44}
      borderRadius={22}
      flexShrink={0}
      alignItems="center"
      justifyContent="center"
      cursor="pointer"
      borderWidth={2}
      borderColor={on ? '$doing' : '$line'}
      backgroundColor={on ? '$doing' : 'transparent'}
    >
      <Repeat size={20} color={on ? palette.onDoing : palette.text} aria-hidden />
    </View>
  );
}

type KeyProps = {
  readonly section: Section;
  readonly mark: string;
  readonly here: boolean;
  readonly ahead: boolean;
  readonly onPress: () => void;
};

function SectionKey({ section, mark, here, ahead, onPress }: KeyProps) {
  const tint = useTints()[section.tint]!;
  const own = useRef<TamaguiWebElement>(null);
  // A phone that is turned has another width.
  const { flat } = useMedia();
  useEffect(() => {
    if (here && own.current) bringInSight(own.current);
  }, [here, flat]);
  return (
    <View
      ref={own}
      render="button"
      aria-label={WORDS.goTo(section.name, ahead ? ', at the next bar' : '')}
      aria-current={here}
      onPress={onPress}
      flexDirection="row"
      alignItems="center"
      gap={8}
      minHeight={44}
      paddingHorizontal={12}
      borderRadius={22}
      borderWidth={2}
      borderStyle={ahead ? 'dashed' : 'solid'}
      borderColor={here ? '$doing' : ahead ? '$warn' : '$line'}
      backgroundColor={here ? '$well' : 'transparent'}
      cursor="pointer"
      flexShrink={0}
    >
      <Words fontFamily="$heading" fontWeight="650" style={{ color: tint }}>
        {mark}
      </Words>
      <Words fontWeight="600" fontSize={14} whiteSpace="nowrap">
        {section.name}
      </Words>
    </View>
  );
}

/** Scrolls the row alone, so that the page stays where a finger is. */
function bringInSight(key: HTMLElement): void {
  const row = key.parentElement?.parentElement;
  if (!row) return;
  const [at, of] = [key.getBoundingClientRect(), row.getBoundingClientRect()];
  row.scrollTo({ left: row.scrollLeft + at.left - of.left - (of.width - at.width) / 2, behavior: 'smooth' });
}
