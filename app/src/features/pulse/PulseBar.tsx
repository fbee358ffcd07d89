// Tempo, the beat, tap, grand master and blackout: never covered, always in reach of a thumb.

import { useEffect, useRef, useState } from 'react';
import { Text, useMedia, View, type TamaguiWebElement } from '@tamagui/core';
import { seconds } from '@hovlix/core/units';
import { rampAt } from '@hovlix/core/light';
import { tapTempo, toggleBlackout } from '../../host/conduct/gestures';
import { useHovlix, useLive, useShow } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { atOnce, type Stamped } from '../../ui/at-once';
import { eachFrame, REST_MS } from '../../ui/each-frame';
import { MoonIcon } from '../../ui/icons';
import { Range } from '../../ui/Range';
import { Button, Column, Figures, Row, Words } from '../../ui/pieces';
import { DAY, NIGHT } from '../../ui/tokens';
import { pulseAt } from './model';
import { WORDS } from './words';

const MOST_DOTS = 6;

/** @param stacked it stands in a column of its own, in two rows. */
export function PulseBar({ stacked }: { readonly stacked: boolean }) {
  const app = useHovlix();
  const dark = useLive((live) => live.blackout.on);
  const theme = useSession((session) => session.theme);
  const say = useSession((session) => session.say);
  const ink = dark ? NIGHT.onDoing : (theme === 'night' ? NIGHT : DAY).text;
  const tap = (event: Stamped) => {
    const { live } = app.conducting.store.getState();
    tapTempo(app, event);
    if (live.song?.playing) say(WORDS.songKeepsIts);
  };
  return (
    <Row
      role="toolbar"
      aria-label={WORDS.pulse}
      {...(stacked ? { flexDirection: 'column', alignItems: 'stretch', paddingVertical: 10 } : { height: 64 })}
      gap={10}
      paddingHorizontal={12}
      justifyContent="space-between"
      backgroundColor={dark ? '$doing' : '$sunken'}
      borderTopWidth={1}
      borderColor={dark ? '$doing' : '$line'}
      // The master's fader lies over sheets.
      zIndex={20}
    >
      <Pulse dark={dark} stacked={stacked} />
      <Row gap={8} justifyContent="space-between">
        <Button label={WORDS.tapTheTempo} onDown={tap}>
          <Text fontFamily="$body" fontWeight="600" fontSize={16} color="$text" paddingHorizontal={8}>
            {WORDS.tap}
          </Text>
        </Button>
        <Master aside={stacked} />
        <View
          render="button"
          aria-label={dark ? WORDS.lightAgainEnd : WORDS.blackout}
          aria-pressed={dark}
          {...atOnce(() => toggleBlackout(app))}
          width={44}
          height={44}
          borderRadius={14}
          borderWidth={dark ? 2 : 0}
          borderColor="$onDoing"
          alignItems="center"
          justifyContent="center"
          backgroundColor={dark ? 'transparent' : '$well'}
          cursor="pointer"
          pressStyle={{ opacity: 0.7 }}
        >
          <MoonIcon color={ink} />
        </View>
      </Row>
    </Row>
  );
}

/** The figures and the dots follow the clock by themselves, without React. */
function Pulse({ dark, stacked }: { readonly dark: boolean; readonly stacked: boolean }) {
  const app = useHovlix();
  const { narrow } = useMedia();
  // Beside the figures a small phone has no room for the dots.
  const under = narrow && !stacked && !dark;
  const figures = useRef<TamaguiWebElement>(null);
  const dots = useRef<(HTMLElement | null)[]>([]);
  const songs = useShow((show) => show.songs);
  const theme = useSession((session) => session.theme);
  const palette = theme === 'night' ? NIGHT : DAY;
  const setTempo = useSession((session) => session.setTempo);

  useEffect(() => {
    let shown = '';
    let lastLit = -2;
    let lastCount = 0;
    const draw = () => {
      const pulse = pulseAt(app.conducting.store.getState().live, songs ?? [], app.conducting.now());
      const text = pulse.bpm.toFixed(1);
      if (text !== shown && figures.current) figures.current.textContent = shown = text;
      const rest = pulse.lit < 0 ? REST_MS : pulse.next * 1000;
      if (pulse.lit === lastLit && pulse.count === lastCount) return rest;
      lastLit = pulse.lit;
      lastCount = pulse.count;
      dots.current.forEach((dot, i) => {
        if (!dot) return;
        const on = i === pulse.lit;
        dot.style.display = i < pulse.count ? 'block' : 'none';
        dot.style.backgroundColor = on
          ? dark
            ? palette.onDoing
            : palette.doing
          : dark
            ? 'rgba(34,16,19,.3)'
            : palette.line;
        dot.style.boxShadow = on && !dark ? `0 0 10px ${palette.doing}` : 'none';
        dot.dataset['on'] = String(on);
      });
      return rest;
    };
    return eachFrame(draw, app.conducting.store.subscribe);
  }, [app, songs, dark, palette]);

  return (
    <Row
      flexShrink={1}
      minWidth={0}
      minHeight={44}
      justifyContent={stacked ? 'space-between' : 'flex-start'}
      {...(under ? { flexDirection: 'column', alignItems: 'flex-start', gap: 0 } : { gap: 10 })}
    >
      {dark ? (
        <Words fontWeight="600" color="$onDoing" numberOfLines={2}>
          {WORDS.blackoutAllDark}
        </Words>
      ) : (
        <View
          render="button"
          aria-label={WORDS.tempo}
          onPress={() => setTempo(true)}
          flexDirection="row"
          gap={4}
          alignItems="baseline"
          minHeight={44}
          paddingVertical={8}
          paddingHorizontal={0}
          borderWidth={0}
          backgroundColor="transparent"
          cursor="pointer"
        >
          <Figures
            ref={figures}
            fontSize={24}
            lineHeight={28}
            fontWeight="600"
            color="$text"
            testID="bpm"
            minWidth={76}
            textAlign="right"
          >
            120.0
          </Figures>
          {!narrow && !stacked && (
            <Words fontSize={12} color="$quiet">
              {WORDS.bpm}
            </Words>
          )}
        </View>
      )}
      <Row gap={7} aria-hidden data-testid="dots">
        {Array.from({ length: MOST_DOTS }, (_, i) => (
          <span
            key={i}
            ref={(element) => {
              dots.current[i] = element;
            }}
            style={{ width: i === 0 ? 13 : 9, height: i === 0 ? 13 : 9, borderRadius: 8, display: 'block' }}
          />
        ))}
      </Row>
    </Row>
  );
}

/** The grand master: a well that opens into a fader, above it or beside it. */
function Master({ aside }: { readonly aside: boolean }) {
  const app = useHovlix();
  const level = useLive((live) => rampAt(live.master, seconds(Number.MAX_SAFE_INTEGER)));
  const [open, setOpen] = useState(false);
  const setMasters = useSession((session) => session.setMasters);
  const well = useRef<TamaguiWebElement>(null);
  const percent = Math.round(level * 100);
  useEffect(() => {
    if (!open) return;
    // A press anywhere else puts the fader away.
    const elsewhere = (event: PointerEvent) => {
      if (!well.current?.contains(event.target as Node)) setOpen(false);
    };
    window.addEventListener('pointerdown', elsewhere);
    return () => window.removeEventListener('pointerdown', elsewhere);
  }, [open]);
  return (
    <View ref={well} position="relative">
      <View
        render="button"
        aria-label={WORDS.grandMasterPercent(percent)}
        aria-expanded={open}
        onPress={() => setOpen(!open)}
        width={44}
        height={44}
        borderRadius={14}
        overflow="hidden"
        alignItems="center"
        justifyContent="center"
        backgroundColor="$well"
        borderWidth={open ? 2 : 0}
        borderColor="$doing"
        cursor="pointer"
      >
        <View
          position="absolute"
          left={0}
          right={0}
          bottom={0}
          borderRadius={13}
          height={`${percent}%`}
          backgroundColor="$quiet"
          opacity={0.35}
        />
        <Figures color="$text" fontSize={14} fontWeight="600" testID="master">
          {percent}
        </Figures>
      </View>
      {open && (
        <Column
          position="absolute"
          {...(aside ? { bottom: 0, right: 156 } : { bottom: 58, right: -20 })}
          width={84}
          height="min(310px, calc(100dvh - 20px))"
          padding={12}
          gap={8}
          alignItems="center"
          borderRadius={14}
          backgroundColor="$raised"
          borderWidth={1}
          borderColor="$line"
          boxShadow="0 12px 40px rgba(0,0,0,0.4)"
        >
          <Words fontSize={12} color="$quiet">
            {WORDS.master}
          </Words>
          <Range
            upright
            most={100}
            value={percent}
            aria-label={WORDS.grandMasterLevel}
            onChange={(level) => app.conducting.act({ type: 'master', level: level / 100 })}
          />
          <Button
            label={WORDS.grandMasterFull}
            kind="quiet"
            onPress={() => app.conducting.act({ type: 'master', level: 1 })}
          >
            {WORDS.full}
          </Button>
          <Button
            label={WORDS.allMasters}
            kind="quiet"
            onPress={() => {
              setOpen(false);
              setMasters(true);
            }}
          >
            {WORDS.all}
          </Button>
        </Column>
      )}
    </View>
  );
}
