// What is running: every look, chase and hand that gives light now, how fast it runs, and a way to stop it.

import { useEffect, useState } from 'react';
import { isOn } from '@hovlix/core/live';
import { seconds } from '@hovlix/core/units';
import { clockNow, lookOff } from '../../host/gestures';
import { useHovlix, useLive, usePlays } from '../../host/hovlix';
import { Button, Column, Figures, Quiet, Row, Words } from '../../ui/pieces';

const RATES = { least: 1 / 8, most: 8 } as const;
/** What goes out by itself is looked for so often. */
const LOOK_MS = 500;

export function Running() {
  const app = useHovlix();
  const plays = usePlays();
  const standing = useLive((live) => live.standing);
  const sounding = useLive((live) => live.sounding.length > 0);
  const [, wake] = useState(0);
  const ends = standing.some((one) => one.ends);
  useEffect(() => {
    const timer = ends ? setInterval(() => wake((n) => n + 1), LOOK_MS) : undefined;
    return () => clearInterval(timer);
  }, [ends]);
  const on = standing.filter((one) => isOn(one, app.conducting.now()));
  if (on.length === 0) return null;
  return (
    <Column paddingHorizontal={16} gap={4} role="region" aria-label="What is running">
      <Row justifyContent="space-between" gap={8}>
        <Words fontWeight="600">Running now</Words>
        {(on.length > 1 || sounding) && (
          <Button onPress={() => app.conducting.act({ type: 'all-off', fade: seconds(clockNow(app).pulse) })}>
            All off
          </Button>
        )}
      </Row>
      {on.map((one) => {
        const play = plays.find(({ id }) => id === one.look);
        const name = play?.name ?? 'A look that is gone';
        const rate = one.speed?.rate ?? 1;
        const put = (next: number) =>
          app.conducting.act({ type: 'speed', rate: next, look: one.look, beat: clockNow(app).beat });
        return (
          <Row key={one.look} justifyContent="space-between" gap={4} minHeight={48} role="group" aria-label={name}>
            <Words flexShrink={1} flexGrow={1} numberOfLines={1}>
              {name}
            </Words>
            <Button label={`${name}: half as fast`} kind="quiet" disabled={rate <= RATES.least} onPress={() => put(rate / 2)}>
              ÷2
            </Button>
            <Figures color={rate === 1 ? '$quiet' : '$text'} minWidth={38} textAlign="center">
              {rateWords(rate)}
            </Figures>
            <Button label={`${name}: twice as fast`} kind="quiet" disabled={rate >= RATES.most} onPress={() => put(rate * 2)}>
              ×2
            </Button>
            <Button label={`Stop ${name}`} onPress={() => lookOff(app, one.look)}>
              Stop
            </Button>
          </Row>
        );
      })}
      {on.some(({ look }) => !plays.some(({ id }) => id === look)) && <Quiet>It gives no light any more.</Quiet>}
    </Column>
  ); // prettier-ignore
}

function rateWords(rate: number): string {
  if (rate < 1 && Number.isInteger(1 / rate)) return `1/${1 / rate}`;
  return `×${Math.round(rate * 100) / 100}`;
}
