// What is running: every look, chase and hand that gives light now, how fast it runs, and a way to stop it.

import { useEffect, useState } from 'react';
import { View } from '@tamagui/core';
import { isOn, type Standing } from '@hovlix/core/live';
import { seconds } from '@hovlix/core/units';
import { clockNow, lookOff } from '../../../host/conduct/gestures';
import { useHovlix, useLive, usePlays } from '../../../host/hovlix';
import { Chip } from '../../../ui/Chip';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { SpeedRow } from '../../../ui/SpeedRow';
import { WORDS } from './words';

/** What goes out by itself is looked for so often. */
const LOOK_MS = 500;

/** What is on now; one that goes out by itself is gone when its time has come. */
function useRunning(): readonly Standing[] {
  const app = useHovlix();
  const standing = useLive((live) => live.standing);
  const [, wake] = useState(0);
  const ends = standing.some((one) => one.ends);
  useEffect(() => {
    const timer = ends ? setInterval(() => wake((n) => n + 1), LOOK_MS) : undefined;
    return () => clearInterval(timer);
  }, [ends]);
  return standing.filter((one) => isOn(one, app.conducting.now()));
}

/** Always in its place, so that nothing moves under a finger when a look comes on. */
export function RunningChip() {
  const running = useRunning();
  const [open, setOpen] = useState(false);
  const name = running.length === 0 ? WORDS.nothingRunning : WORDS.running(running.length);
  return (
    <>
      <Chip
        small
        name={name}
        label={WORDS.whatIsRunning(running.length)}
        on={false}
        picture={<Light on={running.length > 0} />}
        onPress={() => setOpen(true)}
      />
      {open && (
        <Sheet title={WORDS.whatIsRunningAlone} onClose={() => setOpen(false)}>
          <Running running={running} />
        </Sheet>
      )}
    </>
  );
}

/** Lit while something runs. */
function Light({ on }: { readonly on: boolean }) {
  return (
    <View
      width={10}
      height={10}
      borderRadius={5}
      borderWidth={2}
      borderColor={on ? '$doing' : '$quiet'}
      backgroundColor={on ? '$doing' : 'transparent'}
    />
  );
}

function Running({ running }: { readonly running: readonly Standing[] }) {
  const app = useHovlix();
  const plays = usePlays();
  const hands = useLive((live) => live.hands.some((one) => one.on));
  const song = useLive((live) => live.song?.playing ?? false);
  return (
    <>
      {running.length === 0 && <Quiet>{WORDS.noLookNo}</Quiet>}
      {running.map((one) => {
        const name = plays.find(({ id }) => id === one.look)?.name ?? 'A look that is gone';
        return (
          <Column key={one.look} gap={2} role="group" aria-label={name}>
            <Row justifyContent="space-between" gap={4} minHeight={48}>
              <Words flexShrink={1} flexGrow={1} numberOfLines={1} fontWeight="600">
                {name}
              </Words>
              <Button label={WORDS.stopNamed(name)} onPress={() => lookOff(app, one.look)}>
                {WORDS.stop}
              </Button>
            </Row>
            <SpeedRow id={one.look} name={name} />
          </Column>
        );
      })}
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => app.conducting.act({ type: 'all-off', fade: seconds(clockNow(app).pulse) })}>
          {WORDS.allOff}
        </Button>
        {hands && (
          <Button onPress={() => app.conducting.act({ type: 'release', fade: clockNow(app).pulse })}>
            {WORDS.release}
          </Button>
        )}
      </Row>
      {song && <Quiet>{WORDS.songPlaysThese}</Quiet>}
    </>
  );
}
