// Flash safety: on or off, how many flashes a second, and where in the show it acts.

import { useEffect, useState } from 'react';
import { router } from 'expo-router';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import type { FlashStretch } from '@hovlix/core/engine';
import type { Show } from '@hovlix/core/show';
import { countShow } from '../../host/light/flashes';
import { useHovlix, useShow } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Card } from '../../ui/card';
import { Hold } from '../../ui/Hold';
import { usePalette } from '../../ui/palette';
import { Button, Column, Figures, PlaceHead, Quiet, Row, Words } from '../../ui/pieces';
import { clockText } from '../../ui/clock-text';
import { ScrollArea } from '../../ui/ScrollArea';
import { Slider } from '../../ui/Slider';
import { WORDS } from './words';

export function SafetyPlace() {
  const palette = usePalette();
  const show = useShow((one) => one);
  if (!show) return null;
  return (
    <ScrollArea>
      <PlaceHead title={WORDS.flashSafety}>
        <Button label={WORDS.backGig} kind="quiet" onPress={() => router.push('/gig')}>
          <ArrowLeft size={20} color={palette.text} aria-hidden />
        </Button>
      </PlaceHead>
      <Column gap={14} paddingHorizontal={12}>
        <Setting show={show} />
        <Report show={show} />
      </Column>
    </ScrollArea>
  );
}

function Setting({ show }: { readonly show: Show }) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const { on, most } = show.safety;
  const put = (safety: Show['safety']) => app.document.make({ type: 'set-safety', safety });
  return (
    <Card title={on ? WORDS.mostSecond(most, most === 1 ? 'flash' : 'flashes') : 'Off: flashes are not limited'}>
      <Quiet>{WORDS.moreThanThree}</Quiet>
      <Slider
        label={WORDS.flashesASecond}
        value={most}
        low={1}
        high={10}
        step={1}
        unit="/s"
        onChange={(next) => put({ on, most: Math.round(next) })}
      />
      {most > 3 && <Quiet color="$text">{WORDS.moreThanThreeSecond}</Quiet>}
      <Row>
        {on ? (
          <Hold
            onHeld={() => {
              put({ on: false, most });
              say(WORDS.flashesNotLimited, { undo: app.document.takingBack() });
            }}
          >
            {WORDS.holdTurnOff}
          </Hold>
        ) : (
          <Button kind="primary" onPress={() => put({ on: true, most })}>
            {WORDS.turnItOn}
          </Button>
        )}
      </Row>
    </Card>
  );
}

type Counted = { readonly show: Show; readonly found: readonly FlashStretch[] };

/** Where it acts: counted in the light of every song and look, when it is asked for. */
function Report({ show }: { readonly show: Show }) {
  const app = useHovlix();
  const [share, setShare] = useState<number | null>(null);
  const [counted, setCounted] = useState<Counted | null>(null);
  const [job, setJob] = useState<{ cancel: () => void } | null>(null);
  useEffect(() => () => job?.cancel(), [job]);
  const count = () => {
    setShare(0);
    const mine = countShow(show, app.repository, setShare);
    setJob(mine);
    void mine.done.then((found) => {
      setShare(null);
      if (found) setCounted({ show, found });
    });
  };
  const old = counted !== null && counted.show !== show;
  const { on, most } = show.safety;
  return (
    <Card title={WORDS.whereItActs}>
      {share === null ? (
        <Row>
          <Button onPress={count}>{counted ? WORDS.countAgain : WORDS.countFlashesShow}</Button>
        </Row>
      ) : (
        <Row justifyContent="space-between" gap={8}>
          <Words role="status">{WORDS.counting(Math.round(share * 100))}</Words>
          <Button onPress={() => job?.cancel()}>{WORDS.stop}</Button>
        </Row>
      )}
      {old && <Quiet>{WORDS.showHasChanged}</Quiet>}
      {counted?.found.length === 0 && <Words>{WORDS.nowhereNoSong(most)}</Words>}
      {counted?.found.map((one, i) => (
        <Stretch key={i} stretch={one} most={most} on={on} />
      ))}
      {counted && (
        <Quiet>
          {WORDS.countedLightWhole(counted.show.songs.length, counted.show.songs.length === 1 ? 'song' : 'songs')}
        </Quiet>
      )}
    </Card>
  );
}

type StretchProps = { readonly stretch: FlashStretch; readonly most: number; readonly on: boolean };

function Stretch({ stretch, most, on }: StretchProps) {
  const { kind, name, from, to, made, leaves } = stretch;
  const left = leaves > most;
  const words = left ? WORDS.secondFlashSafety(made, leaves) : `${made} a second${on ? `, held to ${leaves}` : ''}`;
  return (
    <Row justifyContent="space-between" gap={8} minHeight={48} role="group" aria-label={name}>
      <Column flexShrink={1}>
        <Words fontWeight="600">{name}</Words>
        <Quiet {...(left ? { color: '$text' as const } : {})}>{words}</Quiet>
      </Column>
      {kind === 'song' && (
        <Figures>
          {clockText(from)}–{clockText(to)}
        </Figures>
      )}
    </Row>
  );
}
